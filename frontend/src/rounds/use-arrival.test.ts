import { describe, expect, it } from "vitest";
import type { Preview } from "./ask";
import { holds, lineOf } from "./use-arrival";

const READ = {
  part: {
    rounds: [
      { label: "R1", line: 2 },
      { label: "R2-R4", line: 3 },
      { label: "Row 7", line: 9 },
    ],
  },
  problems: [
    { round: "R5", line: 4 },
    { round: null, line: 1 },
  ],
} as unknown as Preview;

describe("coming to a round", () => {
  it("knows a round by its number, within a fold, and as a row", () => {
    expect(holds("R6", 6)).toBe(true);
    expect(holds("R5-R8", 8)).toBe(true);
    expect(holds("R5-R8", 9)).toBe(false);
    expect(holds("Row 3", 3)).toBe(true);
    expect(holds("start", 1)).toBe(false);
  });
  it("goes to the line of a worked round, or of what is wrong with one that could not be", () => {
    expect(lineOf(READ, 3)).toBe(3);
    expect(lineOf(READ, 7)).toBe(9);
    expect(lineOf(READ, 5)).toBe(4);
    expect(lineOf(READ, 12)).toBeNull();
  });
});
