import { expect, test } from "vitest";
import { distance } from "./stage";
import { unbroken } from "./whole-scene";

const HEDGEHOG = { width: 110, depth: 130, height: 80 };
const SHARE = Math.tan((16 * Math.PI) / 180);

/** Half of what is in sight where the figure's near side is. */
const reach = (far: number, near: number) => (far - near / 2) * SHARE;

test.each(["front", "back", "left", "top"] as const)("the whole figure is in sight from %s", (side) => {
  const [wide, tall, deep] = {
    front: [110, 80, 130],
    back: [110, 80, 130],
    left: [130, 80, 110],
    top: [110, 130, 80],
  }[side] as [number, number, number];
  for (const aspect of [0.6, 1, 1.8]) {
    const half = reach(distance(HEDGEHOG, side, aspect), deep);
    expect(half).toBeGreaterThan(tall / 2);
    expect(half * aspect).toBeGreaterThan(wide / 2);
    // And nothing is smaller than it has to be: it fills nine tenths of what bounds it.
    expect(Math.max(tall / 2 / half, wide / 2 / (half * aspect))).toBeGreaterThan(0.88);
  }
});

test("from between front and side a ball fills most of its stage, and is not cut", () => {
  const ball = { width: 60, depth: 60, height: 60 };
  const half = reach(distance(ball, "three-quarter", 1), 0);
  expect(half).toBeGreaterThan(30);
  expect(30 / half).toBeGreaterThan(0.6);
});

test("a box without a size is looked at from somewhere", () => {
  expect(distance({ width: 0, depth: 0, height: 0 }, "front", 1)).toBeGreaterThan(0);
});

test("a line from round to round leaves out what jumps to another tube", () => {
  const along = [0, 1, 2, 3, 4].map((z): [number, number, number] => [0, 0, z * 5]);
  const other = [0, 1, 2].map((z): [number, number, number] => [60, 0, z * 5]);
  expect(unbroken(along)).toHaveLength(4);
  expect(unbroken([...along, ...other])).toHaveLength(4 + 2);
  expect(unbroken([])).toEqual([]);
});
