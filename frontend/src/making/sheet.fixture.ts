/** A small worksheet to test on. */
import type { PartSheet, Rung, Sheet } from "./types";

export const rung = (label: string, count: number, made = count): Rung => ({
  label,
  work: `${made} sc`,
  count,
  made,
  source: 0,
});
const part = (key: string, make: number, counts: number[]): PartSheet => ({
  key,
  name: key,
  make,
  rungs: counts.map((n, i) => rung(`R${i + 1}`, n)),
});

export const SHEET = {
  title: "Ball",
  parts: [part("ball", 1, [6, 12, 6]), part("foot", 2, [4, 4])],
  steps: ["Sew."],
} as unknown as Sheet;
