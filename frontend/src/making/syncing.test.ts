// @vitest-environment node
import "fake-indexeddb/auto";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { SHEET } from "./sheet.fixture";
import {
  addPhoto,
  append,
  closeStore,
  drop,
  eventsOf,
  keep,
  kept,
  photosOf,
  refusedOf,
  unsent,
} from "./store";
import { syncNow } from "./syncing";
import type { LogEvent, Making } from "./types";

const WAY = { token: "abc" };
const ID = "5b6f8e1c-0000-4000-8000-000000000001";
const note = (text: string) => ({ kind: "note", text, part: "", round: 0 }) as const;

/** A studio that keeps a union of what it is sent, as the real one does. */
class Studio {
  rows: LogEvent[] = [];
  asked = 0;
  answer: (() => Response) | null = null;
  refuse = new Map<string, string>();

  reply(path: string, init: RequestInit): Response {
    this.asked += 1;
    if (this.answer) return this.answer();
    if (!path.endsWith("/sync")) return Response.json({ id: path });
    const { events, known } = JSON.parse(String(init.body)) as { events: LogEvent[]; known: number };
    const refused = events.filter((e) => e.kind === "note" && this.refuse.has(e.text));
    for (const event of events)
      if (!refused.includes(event) && !this.rows.some((r) => r.id === event.id)) this.rows.push(event);
    const given = this.rows.slice(known, known + 3);
    return Response.json({
      events: given,
      known: known + given.length,
      more: known + given.length < this.rows.length,
      now: 0,
      refused: refused.map((e) => ({ id: e.id, why: this.refuse.get((e as { text: string }).text) })),
    });
  }
}

let studio: Studio;

beforeEach(async () => {
  studio = new Studio();
  vi.stubGlobal("navigator", {});
  vi.stubGlobal("fetch", async (path: string, init: RequestInit) => studio.reply(path, init));
  await keep({
    id: ID,
    token: "abc",
    making: { id: ID, title: "First", sheet: SHEET } as unknown as Making,
    call: "",
    designer: "",
    figure: null,
    page: null,
    known: 0,
    opened: 1,
  });
});

afterEach(async () => {
  vi.unstubAllGlobals();
  await drop(ID);
  await closeStore();
});

describe("the log on a device", () => {
  it("numbers its events one after the other, however many are written at once", async () => {
    const written = await Promise.all(
      Array.from({ length: 20 }, (_, i) => append(ID, note(`${i}`), 1_790_000_000_000)),
    );
    const seqs = written.map((e) => e.seq).sort((a, b) => a - b);
    expect(new Set(seqs).size).toBe(20);
    expect((seqs.at(-1) ?? 0) - (seqs[0] ?? 0)).toBe(19);
    expect(new Set(written.map((e) => e.device)).size).toBe(1);
  });
  it("is still there after the page was closed", async () => {
    await append(ID, note("kept"), 1);
    await closeStore();
    expect((await eventsOf(ID)).map((e) => e.kind)).toEqual(["note"]);
    expect(await unsent(ID)).toHaveLength(1);
  });
});

describe("a sync", () => {
  it("brings everything and fetches everything, in as many requests as it takes", async () => {
    for (let i = 0; i < 5; i++) await append(ID, note(`mine ${i}`), i);
    studio.rows.push({ ...note("theirs"), id: "t1", device: "tablet", seq: 0, at: 5 } as LogEvent);
    expect(await syncNow(WAY, ID)).toEqual({ state: "synced" });
    expect(studio.rows).toHaveLength(6);
    expect(await eventsOf(ID)).toHaveLength(6);
    expect(await unsent(ID)).toEqual([]);
    expect((await kept(ID))?.known).toBe(6);
  });
  it("that was cut off is done again, and nothing is there twice", async () => {
    await append(ID, note("one"), 1);
    const whole = studio.reply.bind(studio);
    studio.reply = (path, init) => {
      whole(path, init);
      throw new TypeError("cut off after the studio had it");
    };
    expect(await syncNow(WAY, ID)).toEqual({ state: "offline" });
    expect(await unsent(ID)).toHaveLength(1);
    studio.reply = whole;
    await syncNow(WAY, ID);
    expect(studio.rows).toHaveLength(1);
    expect(await eventsOf(ID)).toHaveLength(1);
  });
  it("without a net keeps all, and says so", async () => {
    await append(ID, note("one"), 1);
    studio.answer = () => new Response("", { status: 503 });
    expect(await syncNow(WAY, ID)).toEqual({ state: "offline" });
    expect(await unsent(ID)).toHaveLength(1);
  });
  it("by a link that was withdrawn says why, and keeps what is here", async () => {
    await append(ID, note("one"), 1);
    studio.answer = () => Response.json({ detail: "This link was withdrawn." }, { status: 403 });
    expect(await syncNow(WAY, ID)).toEqual({ state: "closed", why: "This link was withdrawn." });
    expect(await eventsOf(ID)).toHaveLength(1);
  });
  it("that asks too often waits, and does not give up", async () => {
    studio.answer = () => Response.json({ detail: "too often" }, { status: 429 });
    expect(await syncNow(WAY, ID)).toEqual({ state: "offline" });
  });
  it.each([503, 507, 500])(
    "waits where the studio has trouble of its own (%i), and gives up no photograph",
    async (status) => {
      await append(ID, note("One"), 1);
      await addPhoto(ID, "photo-1", new Blob(["x"]));
      studio.answer = () => Response.json({ detail: "Many are bringing pictures just now." }, { status });
      expect(await syncNow(WAY, ID)).toEqual({ state: "offline" });
      let asked = 0;
      studio.answer = () => {
        asked += 1;
        return asked === 1
          ? Response.json({ events: [], known: 0, more: false, now: 0, refused: [] })
          : Response.json({ detail: "Many are bringing pictures just now." }, { status });
      };
      expect(await syncNow(WAY, ID)).toEqual({ state: "offline" });
      expect(await photosOf(ID)).toMatchObject([{ sent: 0 }]);
      expect((await photosOf(ID))[0]?.refused).toBeUndefined();
      studio.answer = null;
      expect(await syncNow(WAY, ID)).toEqual({ state: "synced" });
      expect(await photosOf(ID)).toMatchObject([{ sent: 1 }]);
    },
  );
  it("tells what the studio cannot take, once, and goes on with the rest", async () => {
    studio.refuse.set("bad", "The clock of this device is not set.");
    await append(ID, note("bad"), 1);
    await append(ID, note("good"), 2);
    await syncNow(WAY, ID);
    expect(studio.rows.map((r) => (r.kind === "note" ? r.text : ""))).toEqual(["good"]);
    expect(await refusedOf(ID)).toEqual(["The clock of this device is not set."]);
    const before = studio.asked;
    await syncNow(WAY, ID);
    expect(studio.asked).toBe(before + 1);
    expect(await eventsOf(ID)).toHaveLength(2);
  });
  it("sends photographs under the ids that they have here", async () => {
    await addPhoto(ID, "p1", new Blob(["x"]));
    await syncNow(WAY, ID);
    expect((await photosOf(ID)).map((p) => p.sent)).toEqual([1]);
  });
});
