import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Design, Part } from "../design/design";
import { usePage } from "../design/use-page";
import { Frame } from "../ui/test-frame";
import { usePartText } from "./use-part-text";

type Sent = { method: string; path: string; body: Record<string, unknown> };

const sent: Sent[] = [];
let replies: ((request: Sent) => Response | Promise<Response>)[] = [];

function json(body: unknown, status = 200): Response {
  const type = status < 400 ? "application/json" : "application/problem+json";
  return new Response(JSON.stringify(body), { status, headers: { "Content-Type": type } });
}

/** An answer that is given when the test says so. */
function held(): { promise: Promise<Response>; resolve: (reply: Response) => void } {
  let resolve: (reply: Response) => void = () => {};
  const promise = new Promise<Response>((give) => {
    resolve = give;
  });
  return { promise, resolve };
}

const PART = { key: "abcd", name: "Body", text: "R1: 6 sc in ring", etag: "v1" } as Part;
const BRIEF = { audience: "play", level: "easy", height_mm: null, intro: "", notes: "", pictures: [] };
const DESIGN = {
  id: 3,
  name: "Moth",
  revision: 5,
  terms: "us",
  parts: [PART],
  brief: BRIEF,
} as unknown as Design;

beforeEach(() => {
  vi.useFakeTimers();
  sent.length = 0;
  replies = [];
  localStorage.clear();
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.text();
    const one = {
      method: request.method,
      path: new URL(request.url).pathname,
      body: text ? JSON.parse(text) : {},
    };
    sent.push(one);
    const reply = replies.shift();
    if (reply) return reply(one);
    return one.path.endsWith("/typed")
      ? json({ etag: `t${sent.length}`, saved: "2026-01-01T00:00:00Z" })
      : json({ ...DESIGN, revision: 6 });
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const texts = () => sent.filter((s) => s.path.endsWith("/typed")).map((s) => s.body);

describe("the text of a part", () => {
  function start(part: Part = PART) {
    const outside = vi.fn();
    const hook = renderHook(({ p }) => usePartText(DESIGN, p, outside), {
      wrapper: Frame,
      initialProps: { p: part },
    });
    return { ...hook, outside };
  }

  it("is saved once after a breath, over the tag it was typed on", async () => {
    const { result } = start();
    for (const text of ["R", "R2", "R2: inc"]) act(() => result.current.type(text));
    expect(result.current.state).toBe("unsaved");
    expect(localStorage.getItem("spirrel-unsent--3-text-abcd")).toContain("R2: inc");
    await wait(600);
    expect(texts()).toEqual([{ text: "R2: inc", etag: "v1" }]);
    expect(result.current.state).toBe("saved");
    expect(localStorage.getItem("spirrel-unsent--3-text-abcd")).toBeNull();
    act(() => result.current.type("R2: inc x 6"));
    await wait(600);
    expect(texts()[1]).toEqual({ text: "R2: inc x 6", etag: "t1" });
  });

  it("is kept as a version after a rest", async () => {
    const { result } = start();
    act(() => result.current.type("x"));
    await wait(6000);
    expect(sent.map((s) => s.path.split("/").pop())).toEqual(["typed", "versions"]);
  });

  it("waits for the studio and tries again", async () => {
    replies = [
      () => Promise.reject(new TypeError("network")),
      () => json({ title: "broken", detail: "x", status: 500, type: "x" }, 500),
    ];
    const { result } = start();
    act(() => result.current.type("in a tunnel"));
    await wait(600);
    expect(result.current.state).toBe("offline");
    await wait(3100);
    expect(result.current.state).toBe("offline");
    await wait(3100);
    expect(result.current.state).toBe("saved");
    expect(texts()).toHaveLength(3);
  });

  it("offers the choice when another window was first", async () => {
    replies = [
      () =>
        json(
          {
            type: "/problems/stale-text",
            title: "s",
            status: 409,
            detail: "d",
            theirs: "theirs",
            mine: "mine",
            etag: "t9",
          },
          409,
        ),
    ];
    const { result, outside } = start();
    act(() => result.current.type("mine"));
    await wait(600);
    expect(result.current.conflict).toEqual({ mine: "mine", theirs: "theirs", etag: "t9" });
    act(() => result.current.settle("mine"));
    await wait(10);
    expect(texts()[1]).toEqual({ text: "mine", etag: "t9" });
    replies = [
      () =>
        json(
          {
            type: "/problems/stale-text",
            title: "s",
            status: 409,
            detail: "d",
            theirs: "theirs",
            etag: "t10",
          },
          409,
        ),
    ];
    act(() => result.current.type("mine again"));
    await wait(600);
    act(() => result.current.settle("theirs"));
    expect(outside).toHaveBeenLastCalledWith("theirs");
    expect([result.current.text, result.current.state]).toEqual(["theirs", "saved"]);
  });

  it("comes back from this browser when it was never sent", async () => {
    localStorage.setItem(
      "spirrel-unsent--3-text-abcd",
      JSON.stringify({ kind: "text", part: "abcd", text: "left over", etag: "v1" }),
    );
    const { result } = start();
    expect(result.current.text).toBe("left over");
    await wait(10);
    expect(texts()).toEqual([{ text: "left over", etag: "v1" }]);
    localStorage.setItem("spirrel-unsent--3-text-efgh", "{ damaged");
    expect(start({ ...PART, key: "efgh" }).result.current.text).toBe(PART.text);
  });

  it("follows an undo, unless something waits here", async () => {
    const { result, rerender, outside } = start();
    rerender({ p: { ...PART, text: "undone", etag: "v0" } });
    expect([result.current.text, outside.mock.calls.length]).toEqual(["undone", 1]);
    act(() => result.current.type("typed"));
    rerender({ p: { ...PART, text: "other", etag: "v7" } });
    expect(result.current.text).toBe("typed");
  });

  it("tells a refusal that is nobody's conflict", async () => {
    replies = [() => json({ type: "/problems/invalid", title: "i", status: 422, detail: "Too long." }, 422)];
    const { result } = start();
    act(() => result.current.type("x"));
    await wait(600);
    expect(result.current.problem?.detail).toBe("Too long.");
    expect(result.current.state).toBe("unsaved");
  });
});

describe("a page of notes", () => {
  const start = () => renderHook(() => usePage(DESIGN, "brief"), { wrapper: Frame });

  it("is saved after a pause, on the revision it was filled in on", async () => {
    const { result } = start();
    act(() => result.current.change({ ...DESIGN.brief, intro: "A moth" }));
    expect([result.current.value.intro, result.current.state]).toEqual(["A moth", "unsaved"]);
    await wait(800);
    expect(sent).toHaveLength(1);
    expect(sent[0]?.body).toMatchObject({ base: 5, data: { intro: "A moth" } });
    expect(result.current.state).toBe("saved");
    act(() => result.current.change({ ...DESIGN.brief, intro: "A bat" }));
    await wait(800);
    expect(sent[1]?.body.base).toBe(6);
  });

  it("is saved one change at a time: what is typed while a save is under way is not told as saved before it is", async () => {
    const slow = held();
    replies = [() => slow.promise];
    const { result } = start();
    act(() => result.current.change({ ...DESIGN.brief, intro: "first" }));
    await wait(800);
    act(() => result.current.change({ ...DESIGN.brief, intro: "second" }));
    await wait(800);
    expect([sent.length, result.current.state]).toEqual([1, "unsaved"]);
    const kept = () => JSON.parse(localStorage.getItem("spirrel-unsent--3-page-brief") ?? "null");
    expect(kept()).toMatchObject({ base: 5, data: { intro: "second" } });
    const last = held();
    replies = [() => last.promise];
    slow.resolve(json({ ...DESIGN, revision: 6 }));
    await wait(10);
    // The first is with the studio, the second on its way: shown, kept here, and on the first one's revision.
    expect([result.current.value.intro, result.current.state]).toEqual(["second", "saving"]);
    expect(kept()).toMatchObject({ base: 6, data: { intro: "second" } });
    expect(sent[1]?.body).toMatchObject({ base: 6, data: { intro: "second" } });
    last.resolve(json({ ...DESIGN, revision: 7, brief: { ...BRIEF, intro: "second" } }));
    await wait(10);
    expect([result.current.value.intro, result.current.state, kept()]).toEqual(["second", "saved", null]);
  });

  it("asks what goes on after a conflict", async () => {
    replies = [
      () =>
        json(
          {
            type: "/problems/stale-page",
            title: "s",
            status: 409,
            detail: "Changed.",
            theirs: { ...BRIEF, intro: "theirs" },
            revision: 9,
          },
          409,
        ),
    ];
    const { result } = start();
    act(() => result.current.change({ ...DESIGN.brief, intro: "mine" }));
    await wait(800);
    expect([result.current.state, result.current.problem?.detail]).toEqual(["stale", "Changed."]);
    act(() => result.current.settle("mine"));
    await wait(10);
    expect(sent[1]?.body).toMatchObject({ base: 9, data: { intro: "mine" } });
  });

  it("keeps trying when the studio does not answer", async () => {
    replies = [() => Promise.reject(new TypeError("network"))];
    const { result } = start();
    act(() => result.current.change({ ...DESIGN.brief, intro: "kept" }));
    await wait(800);
    expect(result.current.state).toBe("offline");
    await wait(4100);
    expect(result.current.state).toBe("saved");
  });

  it("is sent on the way out", async () => {
    const { result, unmount } = start();
    act(() => result.current.change({ ...DESIGN.brief, intro: "leaving" }));
    unmount();
    await wait(10);
    expect(sent[0]?.body).toMatchObject({ data: { intro: "leaving" } });
  });
});
