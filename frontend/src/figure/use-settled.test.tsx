import { act, renderHook, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useSettled, watched } from "./use-settled";

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

describe("a job", () => {
  it("is watched until it is done, and its answer fetched once", async () => {
    replies.push(job(1, "running", { progress: 40 }), job(1, "done"));
    const told: number[] = [];
    const got = await watched(
      job(1, "waiting") as never,
      () => true,
      (p) => told.push(p),
    );
    expect(typeof got === "object" && got?.stitches).toBe(1);
    expect(told).toEqual([0, 40]);
    await watched(
      job(1, "done") as never,
      () => true,
      () => {},
    );
    expect(asked.filter((url) => url.endsWith("/answer"))).toHaveLength(1);
  });
  it("says why it failed, and nothing when nobody waits any more", async () => {
    expect(
      await watched(
        job(2, "failed", { error: "Too many." }) as never,
        () => true,
        () => {},
      ),
    ).toBe("Too many.");
    expect(
      await watched(
        job(3, "cancelled") as never,
        () => true,
        () => {},
      ),
    ).toBeNull();
    expect(
      await watched(
        job(4, "waiting") as never,
        () => false,
        () => {},
      ),
    ).toBeNull();
  });
});

describe("having a part settled", () => {
  it("keeps the last figure while the next one settles, and remembers it as the one before", async () => {
    const ask = vi.fn(async () => job(10, "done") as never);
    const { result, rerender } = renderHook(({ key }) => useSettled(key, ask), {
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
    expect(result.current.progress).toBeNull();
  });
  it("tells a refusal and can be stopped", async () => {
    const { result, rerender } = renderHook(
      ({ key }) => useSettled(key, async () => Promise.reject(new Error("no studio"))),
      { initialProps: { key: "a" } },
    );
    await waitFor(() => expect(result.current.problem).not.toBeNull());
    rerender({ key: "b" });
    act(() => result.current.cancel());
    expect(result.current.progress).toBeNull();
  });
  it("calls off what nobody waits for any more", async () => {
    replies.push(...Array.from({ length: 40 }, () => job(20, "running")));
    const ask = vi.fn(async () => job(20, "running") as never);
    const { rerender, unmount } = renderHook(({ key }) => useSettled(key, ask), {
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
    const { result } = renderHook(() => useSettled("a", ask));
    await waitFor(() => expect(result.current.settled).not.toBeNull());
    expect(ask).toHaveBeenCalledTimes(2);
  });
});
