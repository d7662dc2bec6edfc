import { describe, expect, it } from "vitest";
import { difference, isFolded, renumbered, withRepeat } from "./lines";
import { toUnits } from "./positions";
import { passes } from "./views";

describe("one repeat more or less", () => {
  it.each([
    ["R4: (2 sc, inc) x 6 [24]", 1, "R4: (2 sc, inc) x 7 [24]"],
    ["R4: (2 sc, inc) x 6 [24]", -1, "R4: (2 sc, inc) x 5 [24]"],
    ["R4: (2X, V) * 6 (24)", 1, "R4: (2X, V) * 7 (24)"],
    ["Rnd 4: *2 sc, inc* 6 times (24)", 1, "Rnd 4: *2 sc, inc* 7 times (24)"],
    ["R5: 24 sc [24]", 1, "R5: 25 sc [24]"],
    ["R5: (sc, inc) x 1", -1, "R5: (sc, inc) x 1"],
    ["R2: ((sc, inc) x 2, dec) x 3", 1, "R2: ((sc, inc) x 2, dec) x 4"],
  ])("%s by %i", (line, by, made) => {
    expect(withRepeat(line, by)).toBe(made);
  });
  it("leaves lines alone that have none", () => {
    expect(withRepeat("Stuff firmly.", 1)).toBeNull();
    expect(withRepeat("R7: sc around [18]", 1)).toBeNull();
  });
});

describe("numbers in order", () => {
  it("counts on after a line was moved, copied or deleted", () => {
    expect(renumbered("R1: a\nR3: b\nR3: c")).toBe("R1: a\nR2: b\nR3: c");
  });
  it("keeps the length of ranges, and every other line", () => {
    expect(renumbered("R1: a\nNote R9\nR5-R8: b\nStuff.\nR2: c")).toBe(
      "R1: a\nNote R9\nR2-R5: b\nStuff.\nR6: c",
    );
  });
  it("changes nothing that is in order", () => {
    const text = "Rnd 1: a\nRnd 2-4: b\nRnd 5: c";
    expect(renumbered(text)).toBe(text);
  });
});

describe("places", () => {
  it("are the same in plain text", () => {
    const at = toUnits("R1: 6 sc");
    expect([at(0), at(4), at(99)]).toEqual([0, 4, 8]);
  });
  it("move on behind characters of two units", () => {
    const text = "🦔 R1: 🦔 sc";
    const at = toUnits(text);
    expect(text.slice(at(6), at(7))).toBe("🦔");
    expect(text.slice(at(8))).toBe("sc");
  });
});

it("knows folded rounds", () => {
  expect(isFolded("R1: a\nR2-R5: b")).toBe(true);
  expect(isFolded("R1: a\nR2: 6-12 b")).toBe(false);
});

describe("the one stretch in which two texts differ", () => {
  it.each([
    ["same", "same", []],
    ["R1: 6 sc\nR2: inc", "R1: 7 sc\nR2: inc", [{ from: 4, to: 5, insert: "7" }]],
    ["aa", "aaa", [{ from: 2, to: 2, insert: "a" }]],
    ["ab", "b", [{ from: 0, to: 1, insert: "" }]],
  ])("%j to %j", (before, after, made) => {
    expect(difference(before, after)).toEqual(made);
  });
});

describe("what passes an opening", () => {
  it("is said with the last round that lets it through", () => {
    expect(
      passes([
        ["a hand", null],
        ["a finger", "R10"],
      ]),
    ).toBe("a hand never, a finger R10");
  });
});
