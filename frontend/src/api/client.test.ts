import { afterEach, describe, expect, it, vi } from "vitest";
import { isTyping } from "../ui/keys";
import { moved } from "../ui/moved";
import { answer, cookie, inLine, Refused, sentence } from "./client";

function response(status: number): Response {
  return new Response(null, { status });
}

/** What an asking was refused with. */
async function refusal(asked: Promise<unknown>): Promise<Refused> {
  const error = await asked.then(
    () => null,
    (e: unknown) => e,
  );
  if (!(error instanceof Refused)) throw new Error("it was not refused");
  return error;
}

describe("where the studio has no place just now", () => {
  afterEach(() => vi.useRealTimers());
  const full = () => new Response(null, { status: 503, headers: { "Retry-After": "2" } });
  it("she waits for it, and sees no refusal", async () => {
    vi.useFakeTimers();
    const answers = [full(), full(), response(200)];
    const got = inLine(async () => answers.shift() ?? response(500));
    await vi.advanceTimersByTimeAsync(10_000);
    expect((await got).status).toBe(200);
    expect(answers).toEqual([]);
  });
  it("is told in the end, and any other refusal at once", async () => {
    vi.useFakeTimers();
    const send = vi.fn(async () => full());
    const got = inLine(send);
    await vi.advanceTimersByTimeAsync(120_000);
    expect((await got).status).toBe(503);
    expect(send.mock.calls.length).toBe(20);
    expect((await inLine(async () => response(503))).status).toBe(503);
  });
});

describe("answers", () => {
  it("hand out their data", async () => {
    expect(await answer(Promise.resolve({ data: 5, response: response(200) }))).toBe(5);
  });
  it("become a problem when refused", async () => {
    const problem = {
      type: "/problems/stale-text",
      title: "stale",
      status: 409,
      detail: "Changed elsewhere.",
    };
    const refused = await refusal(answer(Promise.resolve({ error: problem, response: response(409) })));
    expect([refused.kind, sentence(refused)]).toEqual(["stale-text", "Changed elsewhere."]);
  });
  it("become a sentence when nothing sensible came back", async () => {
    const odd = await refusal(answer(Promise.resolve({ error: "<html>", response: response(502) })));
    expect([odd.problem.status, sentence(odd)]).toEqual([
      502,
      "The studio answered something odd. Try again.",
    ]);
    const lost = await refusal(answer(Promise.reject(new TypeError("network"))));
    expect([lost.problem.status, lost.kind]).toEqual([0, "offline"]);
    expect(sentence(new Error("x"))).toContain("Reload");
  });
});

it("reads the token from the cookies", () => {
  expect(cookie("csrftoken", "a=1; csrftoken=b%3D2; c=3")).toBe("b=2");
  expect(cookie("csrftoken", "")).toBe("");
});

it("moves steps within the list only", () => {
  expect(moved([1, 2, 3], 0, 1)).toEqual([2, 1, 3]);
  expect(moved([1, 2, 3], 0, -1)).toEqual([1, 2, 3]);
  expect(moved([1, 2, 3], 2, 3)).toEqual([1, 2, 3]);
});

it("knows where typing goes", () => {
  expect(isTyping(document.createElement("input"))).toBe(true);
  expect(isTyping(document.createElement("button"))).toBe(false);
  expect(isTyping(null)).toBe(false);
});
