import { describe, expect, it } from "vitest";
import { drawStages, lookAt, scaleOf } from "./figure-now";
import type { Stages } from "./types";

/** A tube of faces, one a round, each so many tenths of a millimetre wide and ten tall. */
function tube(rounds: number, wide: number): Stages {
  const each = Array.from({ length: rounds }, (_, k) => k);
  return {
    corners: each.map((k) => [0, 10 * k, wide, 10 * k, wide, 10 * k + 10, 0, 10 * k + 10]),
    rounds: each.map((k) => k + 1),
    shades: each.map(() => 80),
    fills: each.map(() => 0),
    colours: ["#808080"],
  };
}

const finished = tube(10, 100);
const open = [
  { after: 3, look: tube(3, 160) },
  { after: 7, look: tube(7, 120) },
];

describe("the look of a part on its way", () => {
  it("is the next one that was settled open, and the finished one at the end", () => {
    expect(lookAt(finished, open, 2, 10)).toBe(open[0]?.look);
    expect(lookAt(finished, open, 3, 10)).toBe(open[0]?.look);
    expect(lookAt(finished, open, 4, 10)).toBe(open[1]?.look);
    expect(lookAt(finished, open, 8, 10)).toBe(finished);
    expect(lookAt(finished, open, 10, 10)).toBe(finished);
    expect(lookAt(finished, [], 4, 10)).toBe(finished);
  });

  it("has one scale, at which the widest and the tallest of them have room", () => {
    const scale = scaleOf([finished, ...open.map((o) => o.look)]);
    expect(scale * 160).toBeLessThanOrEqual(360 - 24);
    expect(scale * 100).toBeLessThanOrEqual(560 - 24);
    expect(scaleOf([finished])).toBeGreaterThan(scale);
  });

  it("fills the rounds that are done and outlines those to come", () => {
    const canvas = document.createElement("canvas");
    const calls = { fill: 0, stroke: 0 };
    const draw = {
      canvas,
      clearRect() {},
      beginPath() {},
      lineTo() {},
      closePath() {},
      fill: () => calls.fill++,
      stroke: () => calls.stroke++,
    } as unknown as CanvasRenderingContext2D;
    drawStages(draw, tube(7, 120), 4, 10, 1);
    expect(calls).toEqual({ fill: 4, stroke: 7 });
  });
});
