import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { IntoRounds } from "./into-rounds";
import type { Shape } from "./question";

const mutate = vi.fn();
vi.mock("../design/design", () => ({ useAct: () => ({ mutate, isPending: false }) }));
const say = vi.fn();
vi.mock("../ui/overlays", async (real) => ({ ...(await real<object>()), useSay: () => say }));

afterEach(() => {
  cleanup();
  mutate.mockClear();
  say.mockClear();
});

const view = (shape: Shape | null, refused = false) => (
  <IntoRounds
    design={{ id: 1 } as Design}
    part={null}
    shape={shape}
    refused={refused}
    onReplace={vi.fn()}
    onMade={vi.fn()}
  />
);
const drafted = { text: "R1: 6 sc in ring [6]", recipe: { start: 6 } } as unknown as Shape;

describe("a part added while its shape is still drafted", () => {
  const asked = () => {
    const shown = render(view(null));
    fireEvent.change(screen.getByLabelText("Call it"), { target: { value: "Pear" } });
    fireEvent.click(screen.getByRole("button", { name: "Add" }));
    return shown;
  };
  it("waits for the rounds of the shape as it stands", () => {
    const { rerender } = asked();
    expect(mutate).not.toHaveBeenCalled();
    screen.getByRole("button", { name: "Adding …" });
    rerender(view(drafted));
    expect(mutate).toHaveBeenCalledTimes(1);
    expect(mutate.mock.calls[0]?.[0]).toMatchObject({
      do: "add-part",
      name: "Pear",
      make: 1,
      text: drafted.text,
    });
    screen.getByRole("button", { name: "Add" });
  });
  it("is let go when that shape cannot be worked, and that is said", () => {
    const { rerender } = asked();
    rerender(view(null, true));
    expect(say).toHaveBeenCalledExactlyOnceWith(expect.stringContaining("Pear was not added"), true);
    expect(screen.getByRole("button", { name: "Add" })).toHaveProperty("disabled", true);
    rerender(view(drafted));
    expect(mutate).not.toHaveBeenCalled();
  });
});
