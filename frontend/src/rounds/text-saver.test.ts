import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Part } from "../design/design";
import { keepUnsent } from "../design/unsent";
import { type Shown, TextSaver } from "./text-saver";

type Reply = { status: number; body: Record<string, unknown> };

const sent: { path: string; text: string; etag: string }[] = [];
const replies: (Reply | "no net")[] = [];
const PART = { key: "abcd", name: "Body", text: "R1: 6 sc in ring", etag: "v1" } as Part;

/** A saver with what it showed and how often it had a version kept. */
function saver(part: Part = PART) {
  const made = new TextSaver(3, part.key, part);
  const shown: Shown = { ...made.first };
  const kept = vi.fn();
  made.show = (change) => Object.assign(shown, change);
  made.keepVersion = kept;
  return { made, shown, kept };
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sent.length = 0;
  replies.length = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = JSON.parse(await request.text());
    sent.push({ path: new URL(request.url).pathname, ...body });
    const reply = replies.shift() ?? {
      status: 200,
      body: { etag: `t${sent.length}`, saved: "2026-01-01T00:00:00Z" },
    };
    if (reply === "no net") throw new TypeError("no net");
    const type = reply.status < 400 ? "application/json" : "application/problem+json";
    return new Response(JSON.stringify(reply.body), {
      status: reply.status,
      headers: { "Content-Type": type },
    });
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const refused = (status: number, more = {}): Reply => ({
  status,
  body: { type: "about:blank", title: "No", status, detail: "No.", ...more },
});

describe("a part's text", () => {
  it("is saved a breath after the last key, each time over the text that was saved before", async () => {
    const { made, shown } = saver();
    expect(made.type("one")).toBe(true);
    expect(made.type("one two")).toBe(false);
    await vi.advanceTimersByTimeAsync(600);
    expect(sent).toEqual([{ path: "/api/designs/3/parts/abcd/typed", text: "one two", etag: "v1" }]);
    expect(shown.state).toBe("saved");
    made.type("three");
    await made.flush();
    expect(sent[1]?.etag).toBe("t1");
  });
  it("is kept as a version when she rests, and only when something new was saved", async () => {
    const { made, kept } = saver();
    made.type("one");
    await vi.advanceTimersByTimeAsync(5100);
    expect(kept).toHaveBeenCalledTimes(1);
    await made.keep();
    expect(kept).toHaveBeenCalledTimes(1);
  });
  it("that she chose to keep is saved though the other window's became a version meanwhile", async () => {
    const { made, shown } = saver();
    replies.push(
      refused(409, { theirs: "theirs", mine: "mine", etag: "t9" }),
      refused(409, { theirs: "theirs", mine: "mine", etag: "v2" }),
    );
    made.type("mine");
    await made.flush();
    expect(shown.state).toBe("stale");
    if (shown.conflict) made.settle(shown.conflict, "mine");
    await vi.advanceTimersByTimeAsync(50);
    expect(sent.map((s) => s.etag)).toEqual(["v1", "t9", "v2"]);
    expect(shown).toMatchObject({ state: "saved", conflict: null });
  });
  it("that waited since before a reload is sent as soon as its stop is shown", async () => {
    keepUnsent(3, { kind: "text", part: "abcd", text: "typed before", etag: "v1" });
    const { made, shown } = saver();
    expect(shown).toMatchObject({ text: "typed before", state: "unsaved" });
    made.enter();
    await vi.advanceTimersByTimeAsync(0);
    await made.flush();
    expect(sent[0]?.text).toBe("typed before");
    expect(localStorage.length).toBe(0);
  });
  it("is sent again when the net is back, but not from a stop that was left", async () => {
    replies.push("no net");
    const { made, shown } = saver();
    made.type("in a tunnel");
    await vi.advanceTimersByTimeAsync(600);
    expect(shown.state).toBe("offline");
    await vi.advanceTimersByTimeAsync(3100);
    expect(sent).toHaveLength(2);
    expect(shown.state).toBe("saved");
    replies.push("no net");
    made.type("left");
    made.leave();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toHaveLength(3);
    expect(localStorage.length).toBe(1);
  });
  it("typed over by another window asks whose is kept", async () => {
    replies.push(refused(409, { theirs: "theirs", etag: "t9" }));
    const { made, shown } = saver();
    made.type("mine");
    await vi.advanceTimersByTimeAsync(600);
    expect(shown.conflict).toEqual({ mine: "mine", theirs: "theirs", etag: "t9" });
    expect(shown.state).toBe("stale");
    if (shown.conflict) made.settle(shown.conflict, "theirs");
    expect(shown).toMatchObject({ text: "theirs", state: "saved", conflict: null });
    replies.push(refused(409, { theirs: "theirs again", etag: "t12" }));
    made.type("mine again");
    await vi.advanceTimersByTimeAsync(600);
    if (shown.conflict) made.settle(shown.conflict, "mine");
    await vi.advanceTimersByTimeAsync(0);
    await made.flush();
    expect(sent.at(-1)).toMatchObject({ text: "mine again", etag: "t12" });
  });
  it("that is typed on while the choice is open joins her side of it, and is what is kept", async () => {
    replies.push(refused(409, { theirs: "theirs", etag: "t9" }));
    const { made, shown } = saver();
    made.type("min");
    await vi.advanceTimersByTimeAsync(600);
    made.type("mine");
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toHaveLength(1);
    expect(shown.conflict).toEqual({ mine: "mine", theirs: "theirs", etag: "t9" });
    if (shown.conflict) made.settle(shown.conflict, "mine");
    await vi.advanceTimersByTimeAsync(0);
    expect(sent.at(-1)).toMatchObject({ text: "mine", etag: "t9" });
    expect(shown).toMatchObject({ conflict: null, state: "saved" });
  });
  it("that is refused stays, with the reason", async () => {
    replies.push(refused(422));
    const { made, shown } = saver();
    made.type("x".repeat(10));
    await vi.advanceTimersByTimeAsync(600);
    expect(shown.problem?.status).toBe(422);
    expect(shown.state).toBe("unsaved");
  });
  it("from another window is shown, unless something is being typed or the answer is only late", async () => {
    const { made, shown } = saver();
    expect(made.hear({ ...PART, text: "from there", etag: "t5" })).toBe(true);
    expect(shown.text).toBe("from there");
    expect(made.hear({ ...PART, text: "late", etag: "v1" })).toBe(false);
    made.type("mine");
    expect(made.hear({ ...PART, text: "more", etag: "t6" })).toBe(false);
    expect(made.takeAnew({ ...PART, text: "undone", etag: "v0" })).toBe(false);
    await made.flush();
    expect(made.takeAnew({ ...PART, text: "undone", etag: "v0" })).toBe(true);
    expect(shown.text).toBe("undone");
  });
  it("is never in conflict with the version that was made of it while she typed on", async () => {
    const { made, shown } = saver();
    made.type("one");
    await vi.advanceTimersByTimeAsync(600);
    made.type("one two");
    expect(made.hear({ ...PART, text: "one", etag: "v2" })).toBe(false);
    await made.flush();
    expect(sent.at(-1)).toMatchObject({ text: "one two", etag: "v2" });
    replies.push(refused(409, { theirs: "one two", etag: "v3" }));
    made.type("one two three");
    await vi.advanceTimersByTimeAsync(700);
    expect(sent.at(-1)).toMatchObject({ text: "one two three", etag: "v3" });
    expect(shown).toMatchObject({ conflict: null, state: "saved" });
  });
});
