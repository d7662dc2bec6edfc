import { describe, expect, it } from "vitest";
import golden from "../../../tests/golden/makings.json";
import { addressOf } from "./making-page";
import { inOrder, nextPiece, piecesOf, progressOf, stitchesOf } from "./progress";
import { boxesOf } from "./round-card";
import { rung, SHEET } from "./sheet.fixture";
import type { LogEvent, Rung } from "./types";

function events(...said: Partial<LogEvent>[]): LogEvent[] {
  return said.map((e, i) => ({
    id: `e${i}`,
    device: "phone",
    seq: i,
    at: 1_790_000_000_000 + i,
    ...e,
  })) as LogEvent[];
}
const done = (part: string, piece: number, round: number) => ({ kind: "done", part, piece, round }) as const;

describe("a log on the phone", () => {
  for (const [name, { events, answer }] of Object.entries(golden))
    it(`comes to what the studio makes of it: ${name}`, () => {
      const found = progressOf(events as unknown as LogEvent[]);
      const pieces = [...found.pieces].sort((a, b) => (a.part + a.piece < b.part + b.piece ? -1 : 1));
      const { gone: _, ...rest } = found;
      expect({ ...rest, pieces }).toEqual(answer);
    });
  it("comes to the same whatever order it arrives in", () => {
    const wild = golden["three devices whose clocks jump"].events as unknown as LogEvent[];
    expect(progressOf([...wild].reverse())).toEqual(progressOf([...wild, ...wild.slice(0, 9)]));
    expect(inOrder(wild)).toHaveLength(wild.length);
  });
});

describe("what is to be worked", () => {
  it("is the piece in hand until it is done, then the next", () => {
    const at = (...e: Partial<LogEvent>[]) => nextPiece(SHEET, progressOf(events(...e)));
    expect(at()).toMatchObject({ part: { key: "ball" }, piece: 1 });
    expect(at(done("foot", 1, 1))).toMatchObject({ part: { key: "foot" }, piece: 1 });
    expect(at(done("foot", 1, 2))).toMatchObject({ part: { key: "foot" }, piece: 2 });
    expect(at(done("foot", 1, 2), done("foot", 2, 2))).toMatchObject({ part: { key: "ball" } });
    expect(at(done("foot", 1, 2), done("foot", 2, 2), done("ball", 1, 3))).toBeNull();
  });
  it("is counted in stitches, pieces made several times as often as they are", () => {
    expect(piecesOf(SHEET)).toHaveLength(3);
    expect(stitchesOf(SHEET, progressOf(events(done("ball", 1, 2), done("foot", 2, 1))))).toEqual([22, 40]);
  });
});

describe("pieces of a round", () => {
  it("are ticked off by the stitches after which each is done", () => {
    const made: Rung = {
      ...rung("R3", 18),
      ticks: [
        { text: "sc, inc", times: 3, stitches: 3 },
        { text: "sc", times: 1, stitches: 1 },
      ],
    };
    expect(boxesOf(made).map((b) => b.until)).toEqual([3, 6, 9, 10]);
  });
});

describe("addresses", () => {
  it("tell the designer's own from a tester's and from the device's list", () => {
    expect(addressOf("/make/own/1-2")).toEqual({ way: { token: null }, id: "1-2" });
    expect(addressOf("/make/abc_d")).toEqual({ way: { token: "abc_d" }, id: null });
    expect(addressOf("/make/")).toBeNull();
    expect(addressOf("/make/own/")).toBeNull();
    expect(addressOf("/make/scale")).toBeNull();
  });
});
