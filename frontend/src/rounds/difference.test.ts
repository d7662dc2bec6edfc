import { describe, expect, it } from "vitest";
import { difference } from "./difference";
import { toUnits } from "./positions";
import { passes } from "./views";

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
