import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import { createElement, type ReactNode, useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "./client";
import { type Job, jobAnswer, useAskedJob, useJob, whyNothing } from "./jobs";

const asked: string[] = [];
const replies: unknown[] = [];
const statuses: number[] = [];

beforeEach(() => {
  asked.length = 0;
  replies.length = 0;
  statuses.length = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(`${request.method} ${new URL(request.url).pathname}`);
    return Response.json(replies.shift() ?? null, { status: statuses.shift() ?? 200 });
  });
});
afterEach(() => vi.unstubAllGlobals());

const job = (state: Schemas["JobOut"]["state"], progress = 0): Schemas["JobOut"] => ({
  id: 7,
  state,
  progress,
  ahead: null,
  error: "",
});

const problem = (status: number) => ({ type: "about:blank", title: "No", status, detail: "No." });

const wrapper = ({ children }: { children: ReactNode }) => {
  const [queries] = useState(() => new QueryClient());
  return createElement(QueryClientProvider, { client: queries }, children);
};

describe("a job", () => {
  it("is looked at until it ends, and tells how far it is", async () => {
    replies.push(job("running", 40), job("done", 100));
    const told: (number | undefined)[] = [];
    const { result } = renderHook(
      () => {
        const looked = useJob(job("waiting"), 20);
        told.push(looked.job?.progress);
        return looked;
      },
      { wrapper },
    );
    await waitFor(() => expect(result.current.job?.state).toBe("done"));
    expect([...new Set(told)]).toEqual([0, 40, 100]);
    await new Promise((rest) => setTimeout(rest, 60));
    expect(asked).toEqual(["GET /api/jobs/7", "GET /api/jobs/7"]);
  });
  it("is called off as soon as nobody looks at it", async () => {
    replies.push(...Array.from({ length: 50 }, () => job("running")));
    const { rerender } = renderHook(({ first }) => useJob(first, 1), {
      wrapper,
      initialProps: { first: job("running") as Job | null },
    });
    await waitFor(() => expect(asked.length).toBeGreaterThan(1));
    rerender({ first: null });
    await waitFor(() => expect(asked).toContain("POST /api/jobs/7/cancel"));
  });
  it("that has ended is not asked about again, nor called off", async () => {
    const { result, unmount } = renderHook(() => useJob(job("failed"), 1), { wrapper });
    unmount();
    await new Promise((rest) => setTimeout(rest, 20));
    expect(result.current.job?.state).toBe("failed");
    expect(asked).toEqual([]);
  });
  it("is looked at again after the net was away, but not after a refusal", async () => {
    statuses.push(503, 200, 404);
    replies.push(problem(503), job("running", 5), problem(404));
    const { result } = renderHook(() => useJob(job("running"), 1), { wrapper });
    await waitFor(() => expect(result.current.error).toMatchObject({ problem: { status: 404 } }));
    await new Promise((rest) => setTimeout(rest, 20));
    expect(asked).toHaveLength(3);
  });
});

describe("a job that is asked for", () => {
  it("is called off when its first answer comes too late", async () => {
    let send = (_: Job) => {};
    const ask = () => new Promise<Job>((done) => (send = done));
    const { result } = renderHook(() => useAskedJob(ask, 1), { wrapper });
    act(() => result.current.start(null));
    await waitFor(() => expect(result.current.asking).toBe(true));
    act(() => result.current.stop());
    send(job("running"));
    await waitFor(() => expect(asked).toEqual(["POST /api/jobs/7/cancel"]));
    expect(result.current.job).toBeNull();
  });
  it("says why there is nothing", () => {
    expect(whyNothing(job("running"))).toBeNull();
    expect(whyNothing(job("done"))).toBeNull();
    expect(whyNothing({ ...job("failed"), error: "Too many." })?.message).toBe("Too many.");
    expect(whyNothing(job("cancelled"))?.message).toBe("It was stopped.");
  });
});

describe("the answer of a job", () => {
  const flat = { job: "flat" as const, ways: [] };
  it("is handed out as what was asked for", async () => {
    replies.push(flat);
    expect(await jobAnswer(7, "flat")).toEqual(flat);
  });
  it("may be one of several kinds", async () => {
    replies.push(flat);
    expect((await jobAnswer(7, "compare", "flat")).job).toBe("flat");
  });
  it("of another kind is refused in words", async () => {
    replies.push(flat);
    await expect(jobAnswer(7, "settle", "fit")).rejects.toMatchObject({
      problem: { detail: "The studio answered something else than was asked." },
    });
  });
});
