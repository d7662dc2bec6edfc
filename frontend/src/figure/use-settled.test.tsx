import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import { type ReactNode, useState } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useSettled } from "./use-settled";

type Got = { id: number; state: string; progress: number; error: string };

const replies: Got[] = [];
const asked: string[] = [];
const ANSWER = {
  labels: ["R1"],
  counts: [1],
  kinds: ["sc"],
  colours: ["Main"],
  scale: 1,
  frames: [btoa("\0\0\0\0\0\0")],
  stitches: 1,
  middles: 0,
  closings: 0,
  below: btoa("\0".repeat(8)),
  beside: btoa("\0".repeat(8)),
  triangles: "",
  round: btoa("\0\0"),
  place: btoa("\0\0"),
  kind: btoa("\0"),
  colour: btoa("\0\0"),
  stretch: btoa("\0\0"),
  measures: { width_mm: 1, depth_mm: 1, height_mm: 1, volume_ml: 1, area_cm2: 1, fill_g: 1, rounds: [] },
  stuffed: true,
  converged: true,
  steps: 1,
};

beforeEach(() => {
  replies.length = 0;
  asked.length = 0;
  vi.stubGlobal("fetch", async (input: Request | string) => {
    const url = new URL(typeof input === "string" ? input : input.url, "http://x").pathname;
    asked.push(url);
    const body = url.endsWith("/answer") ? { job: "settle", settled: ANSWER } : replies.shift();
    return new Response(JSON.stringify(body), {
      status: 200,
      headers: { "Content-Type": "application/json" },
    });
  });
});

const job = (id: number, state: string, more: Partial<Got> = {}) => ({
  id,
  state,
  progress: 0,
  error: "",
  ...more,
});

const wrapper = ({ children }: { children: ReactNode }) => {
  const [queries] = useState(() => new QueryClient());
  return <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
};

describe("having a part settled", () => {
  it("tells how far it is, and why it failed", async () => {
    replies.push(job(2, "running", { progress: 40 }), job(2, "failed", { error: "Too many." }));
    const told: (number | null)[] = [];
    const { result } = renderHook(
      () => {
        const settling = useSettled("a", async () => job(2, "waiting") as never);
        told.push(settling.way?.percent ?? null);
        return settling;
      },
      { wrapper },
    );
    await waitFor(() => expect(result.current.problem).toBe("Too many."));
    await waitFor(() => expect(result.current.way).toBeNull());
    expect([...new Set(told)]).toEqual([0, 40, null]);
    expect(asked.filter((url) => url.endsWith("/answer"))).toHaveLength(0);
  });
  it("keeps the last figure while the next one settles, and remembers it as the one before", async () => {
    const ask = vi.fn(async () => job(10, "done") as never);
    const { result, rerender } = renderHook(({ key }) => useSettled(key, ask), {
      wrapper,
      initialProps: { key: null as string | null },
    });
    expect(ask).not.toHaveBeenCalled();
    rerender({ key: "a" });
    await waitFor(() => expect(result.current.settled).not.toBeNull());
    const first = result.current.settled;
    ask.mockImplementation(async () => job(11, "done") as never);
    rerender({ key: "b" });
    expect(result.current.settled).toBe(first);
    await waitFor(() => expect(result.current.before).toBe(first));
    expect(result.current.settled).not.toBe(first);
    expect(result.current.way).toBeNull();
  });
  it("tells a refusal and can be stopped", async () => {
    const { result, rerender } = renderHook(
      ({ key }) => useSettled(key, async () => Promise.reject(new Error("no studio"))),
      { wrapper, initialProps: { key: "a" } },
    );
    await waitFor(() => expect(result.current.problem).not.toBeNull());
    rerender({ key: "b" });
    act(() => result.current.cancel());
    expect(result.current.way).toBeNull();
  });
  it("calls off what nobody waits for any more", async () => {
    replies.push(...Array.from({ length: 40 }, () => job(20, "running")));
    const ask = vi.fn(async () => job(20, "running") as never);
    const { rerender, unmount } = renderHook(({ key }) => useSettled(key, ask), {
      wrapper,
      initialProps: { key: "a" },
    });
    await waitFor(() => expect(asked).toContain("/api/jobs/20"));
    expect(asked).not.toContain("/api/jobs/20/cancel");
    rerender({ key: "b" });
    await waitFor(() => expect(asked).toContain("/api/jobs/20/cancel"));
    asked.length = 0;
    await waitFor(() => expect(asked).toContain("/api/jobs/20"));
    unmount();
    await waitFor(() => expect(asked).toContain("/api/jobs/20/cancel"));
  });
  it("asks anew when another window called off the work that it waits for", async () => {
    const ask = vi.fn().mockResolvedValueOnce(job(30, "cancelled")).mockResolvedValue(job(31, "done"));
    const { result } = renderHook(() => useSettled("a", ask), { wrapper });
    await waitFor(() => expect(result.current.settled).not.toBeNull());
    expect(ask).toHaveBeenCalledTimes(2);
  });
});
