import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { SHEET } from "./sheet.fixture";
import {
  addPhoto,
  allKept,
  append,
  closeStore,
  drop,
  dropOwn,
  eventsOf,
  type Kept,
  keep,
  photoSent,
  settle,
} from "./store";
import type { Making } from "./types";

const OWN = "5b6f8e1c-0000-4000-8000-000000000001";
const HERS = "5b6f8e1c-0000-4000-8000-000000000002";
const note = { kind: "note", text: "one more", part: "", round: 0 } as const;

const row = (id: string, token: string | null): Kept => ({
  id,
  token,
  making: { id, title: "first", sheet: SHEET } as unknown as Making,
  call: "",
  designer: "Lanternwick",
  figure: null,
  page: null,
  known: 0,
  opened: 1,
});

beforeEach(async () => {
  for (const one of await allKept()) await drop(one.id);
  await closeStore();
});

describe("signing out", () => {
  it("takes her own makings off the device, and leaves those of links", async () => {
    await keep(row(OWN, null));
    await keep(row(HERS, "a-token"));
    const event = await append(OWN, note, 1);
    await settle(OWN, [event], new Map(), [], 1);
    expect(await dropOwn()).toBe(0);
    expect((await allKept()).map((k) => k.id)).toEqual([HERS]);
    expect(await eventsOf(OWN)).toEqual([]);
  });

  it("leaves what waits for a net, and says how many do", async () => {
    await keep(row(OWN, null));
    await append(OWN, note, 1);
    expect(await dropOwn()).toBe(1);
    expect(await eventsOf(OWN)).toHaveLength(1);
  });

  it("leaves a making whose photograph waits, until it is sent or refused", async () => {
    await keep(row(OWN, null));
    await addPhoto(OWN, "p1", new Blob(["x"]));
    expect(await dropOwn()).toBe(1);
    await photoSent("p1", "too large");
    expect(await dropOwn()).toBe(0);
    expect(await allKept()).toEqual([]);
  });
});
