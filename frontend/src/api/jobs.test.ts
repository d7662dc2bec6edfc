import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "./client";
import { callOff, jobAnswer, watchJob } from "./jobs";

const asked: string[] = [];
const replies: unknown[] = [];

beforeEach(() => {
  asked.length = 0;
  replies.length = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(`${request.method} ${new URL(request.url).pathname}`);
    return Response.json(replies.shift() ?? null);
  });
});
afterEach(() => vi.unstubAllGlobals());

const job = (state: Schemas["JobOut"]["state"], progress = 0): Schemas["JobOut"] => ({
  id: 7,
  state,
  progress,
  error: "",
});

describe("a job", () => {
  it("is looked at until it ends, and tells how far it is", async () => {
    replies.push(job("running", 40), job("done", 100));
    const told: number[] = [];
    const ended = await watchJob(
      job("waiting"),
      () => true,
      (percent) => told.push(percent),
      1,
    );
    expect(ended.state).toBe("done");
    expect(told).toEqual([0, 40]);
    expect(asked).toEqual(["GET /api/jobs/7", "GET /api/jobs/7"]);
  });
  it("is let go as soon as nobody waits for it", async () => {
    const going = vi.fn().mockReturnValueOnce(true).mockReturnValue(false);
    expect((await watchJob(job("running"), going, vi.fn(), 1)).state).toBe("running");
    expect(asked).toEqual([]);
    callOff(7);
    await vi.waitFor(() => expect(asked.at(-1)).toBe("POST /api/jobs/7/cancel"));
  });
  it("that has ended is not asked about again", async () => {
    expect((await watchJob(job("failed"), () => true, vi.fn(), 1)).state).toBe("failed");
    expect(asked).toEqual([]);
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
