import { describe, expect, it } from "vitest";
import type { DryRun } from "./ask";
import { said, stepBy } from "./walk";

const move = (stitch: string, into: number[], makes: number[]) => ({
  stitch,
  how: "",
  into,
  makes,
  loops: "both" as const,
  colour: 0,
});

const RUN: DryRun = {
  rounds: [
    {
      label: "R1",
      line: 1,
      front: true,
      edge: [],
      after: [0, 1],
      moves: [move("sc", [], [0]), move("sc", [], [1])],
    },
    {
      label: "R2",
      line: 2,
      front: true,
      edge: [0, 1],
      after: [2, 3, 4],
      moves: [move("inc", [0], [2, 3]), move("sc", [1], [4])],
    },
  ],
  places: ["R1, stitch 1", "R1, stitch 2", "R2, stitch 1", "R2, stitch 2", "R2, stitch 3"],
  colours: ["Main"],
  steps: [],
  whole: true,
};

describe("walking through a dry run", () => {
  it.each([
    [{ round: 0, move: 0 }, 1, "move", { round: 0, move: 1 }],
    [{ round: 0, move: 1 }, 1, "move", { round: 1, move: 0 }],
    [{ round: 1, move: 0 }, -1, "move", { round: 0, move: 1 }],
    [{ round: 1, move: 1 }, 1, "move", { round: 1, move: 1 }],
    [{ round: 0, move: 0 }, -1, "move", { round: 0, move: 0 }],
    [{ round: 0, move: 1 }, 1, "round", { round: 1, move: 0 }],
    [{ round: 1, move: 1 }, 5, "round", { round: 1, move: 0 }],
  ] as const)("from %j by %i %s", (from, by, unit, to) => {
    expect(stepBy(RUN, from, by, unit)).toEqual(to);
  });

  it("says what the hook does, and keeps both edges", () => {
    const words = said(RUN, { round: 1, move: 1 });
    expect(words.stitch).toBe("sc");
    expect(words.into).toBe("into R1, stitch 2");
    expect(words.waiting).toEqual([1]);
    expect(words.made).toEqual([3, 2]);
  });

  it("begins from nothing", () => {
    expect(said(RUN, { round: 0, move: 0 }).into).toContain("nothing");
  });
});
