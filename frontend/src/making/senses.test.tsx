import { act, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useAwake } from "./senses";

function Screen({ wanted }: { wanted: boolean }) {
  return <p role="status">{useAwake(wanted) ?? "awake"}</p>;
}

const shown = () => screen.getByRole("status").textContent;

/** Gives the browser a wake lock, or takes it away. */
function device(request: (() => Promise<unknown>) | null): void {
  if (request === null) Reflect.deleteProperty(navigator, "wakeLock");
  else Object.defineProperty(navigator, "wakeLock", { configurable: true, value: { request } });
}

describe("a screen that is to stay on", () => {
  const release = vi.fn(async () => undefined);
  beforeEach(() => release.mockClear());
  afterEach(() => device(null));

  it("is told where the browser knows no such thing", () => {
    device(null);
    render(<Screen wanted />);
    expect(shown()).toContain("This browser cannot keep the screen on");
  });

  it("says when the device refuses, and no more once it does not", async () => {
    const request = vi.fn().mockRejectedValueOnce(new DOMException("no", "NotAllowedError"));
    request.mockResolvedValue({ release });
    device(request);
    render(<Screen wanted />);
    await waitFor(() => expect(shown()).toContain("does not keep the screen on now"));
    await act(async () => void document.dispatchEvent(new Event("visibilitychange")));
    await waitFor(() => expect(shown()).toBe("awake"));
    expect(request).toHaveBeenCalledTimes(2);
    expect(request).toHaveBeenLastCalledWith("screen");
  });

  it("is let go when the page is left, or when she no longer wants it", async () => {
    device(vi.fn(async () => ({ release })));
    const { rerender, unmount } = render(<Screen wanted />);
    await act(async () => undefined);
    rerender(<Screen wanted={false} />);
    expect(release).toHaveBeenCalledTimes(1);
    rerender(<Screen wanted />);
    await act(async () => undefined);
    unmount();
    expect(release).toHaveBeenCalledTimes(2);
  });

  it("asks for nothing while nobody wants it", () => {
    const request = vi.fn(async () => ({ release }));
    device(request);
    render(<Screen wanted={false} />);
    expect(request).not.toHaveBeenCalled();
    expect(shown()).toBe("awake");
  });
});
