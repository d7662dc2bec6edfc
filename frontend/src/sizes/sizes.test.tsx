import { describe, expect, it } from "vitest";
import type { Yarn } from "../yarns/basket";
import { ACROSS, type Asked, entriesOf, heightsOf, THING } from "./asking";
import { measureOf, pxPerMm, settledSaid } from "./size-picture";

const YARN = {
  id: 4,
  name: "Fog",
  colour: "#9aa6a8",
  weight: 5,
  wraps: 7,
  plush: true,
  skein_m: 80,
  skein_g: 100,
  left_g: null,
  diameter_mm: 3.5,
} satisfies Yarn;
const ASKED: Asked = {
  name: "",
  hook: "6",
  strands: 2,
  height: 128,
  heights: "",
  part: "ab12cd34",
  count: 24,
  grams: 42,
  girth: 180,
  ease: -5,
  fits: "",
  across: 70,
  alone: true,
  easy: false,
  second: "",
  fitsDesign: "",
  apart: false,
  classes: [1, 3],
  roles: {},
};

describe("a size that is asked for", () => {
  it("has a yarn for each colour that is worked in one of its own", () => {
    const gold = { ...YARN, id: 9, name: "Gold", weight: 2, plush: false };
    const roles = {
      Moss: { yarn: "9", hook: "2.5", strands: 2, second: "4" },
      Gone: { yarn: "77", hook: "3", strands: 1, second: "" },
    };
    const [entry] = entriesOf("yarn", { ...ASKED, roles }, { yarn: YARN, basket: [YARN, gold] });
    expect(entry?.others).toHaveLength(1);
    expect(entry?.others?.[0]).toMatchObject({ role: "Moss", hook_mm: 2.5, strands: 2 });
    expect(entry?.others?.[0]?.yarn).toMatchObject({ yarn_id: 9, name: "Gold", weight: 2 });
    expect(entry?.others?.[0]?.second).toMatchObject({ yarn_id: 4, name: "Fog" });
    const other = entriesOf("height", { ...ASKED, roles }, { basket: [YARN, gold] })[0];
    expect(other?.others).toEqual([]);
  });

  it("in another yarn keeps the yarn whole, and is called after it", () => {
    const { key, ...entry } = entriesOf("yarn", ASKED, { yarn: YARN })[0] ?? { key: "" };
    expect(key).toMatch(/^[0-9a-f]{8}$/);
    expect(entry).toEqual({
      kind: "yarn",
      name: "Fog",
      hook_mm: 6,
      strands: 2,
      ease_mm: 0,
      alone: false,
      easy: false,
      apart: false,
      among_mm: [],
      settled_share: 1,
      others: [],
      yarn: {
        yarn_id: 4,
        name: "Fog",
        colour: "#9aa6a8",
        weight: 5,
        wraps: 7,
        plush: true,
        skein_m: 80,
        skein_g: 100,
      },
    });
  });
  it("at another height is called after it, unless she names it", () => {
    expect(entriesOf("height", ASKED, {})).toMatchObject([{ name: "12.8 cm", height_mm: 128 }]);
    expect(entriesOf("height", { ...ASKED, name: "No. 2 (tall)" }, {})[0]?.name).toBe("No. 2 (tall)");
  });
  it.each([
    ["part-height", { kind: "height", name: "Head 12.8 cm", height_mm: 128, part: "ab12cd34" }],
    ["count", { kind: "count", name: "Head on 24", count: 24, part: "ab12cd34" }],
    ["fit", { kind: "fit", name: "Head to fit 18 cm", girth_mm: 180, ease_mm: -5, part: "ab12cd34" }],
    ["grams", { kind: "grams", name: "from 42 g", grams: 42 }],
  ] as const)("by %s says all it needs", (way, entry) => {
    expect(entriesOf(way, ASKED, { partName: "Head" })).toMatchObject([entry]);
  });
  it("to fit another part names that part, and never the part itself", () => {
    const hat = { ...ASKED, fits: "beef0001" };
    expect(entriesOf("fit", hat, { partName: "Hat", fitsName: "Head" })).toMatchObject([
      { name: "Hat to fit Head", fits: "beef0001", alone: true },
    ]);
    expect(entriesOf("fit", { ...hat, fits: hat.part }, {})).toEqual([]);
  });
  it("to fit something round says how wide it is, or names the thing", () => {
    const egg = { key: "hen-egg", name: "a hen's egg, medium", girth_mm: 135.1, source: "from memory" };
    const known = { partName: "Cosy", things: [egg] };
    expect(entriesOf("fit", { ...ASKED, fits: ACROSS }, known)).toMatchObject([
      { name: "Cosy to fit 7 cm across", across_mm: 70, ease_mm: -5 },
    ]);
    expect(entriesOf("fit", { ...ASKED, fits: `${THING}hen-egg` }, known)).toMatchObject([
      { name: "Cosy to fit a hen's egg, medium", girth_mm: 135.1 },
    ]);
    expect(entriesOf("fit", { ...ASKED, fits: `${THING}gone` }, known)).toEqual([]);
    expect(entriesOf("fit", { ...ASKED, fits: ACROSS, across: null }, known)).toEqual([]);
  });
  it("in several yarn weights is one size for each that is chosen", () => {
    const weights = [1, 2, 3].map((number) => ({
      number,
      name: `Weight ${number}`,
      wraps: [10, 20] as [number, number],
      hook_mm: null,
      stuffed_hook_mm: number + 0.5,
    }));
    expect(entriesOf("classes", ASKED, { weights })).toMatchObject([
      { name: "Weight 1 (1)", hook_mm: 1.5, kind: "yarn", yarn: { weight: 1, wraps: null } },
      { name: "Weight 3 (3)", hook_mm: 3.5, kind: "yarn", yarn: { weight: 3, wraps: null } },
    ]);
    expect(entriesOf("classes", { ...ASKED, classes: [] }, { weights })).toEqual([]);
  });
  it("at several heights is one size for each", () => {
    const found = entriesOf("heights", { ...ASKED, heights: "6, 9 and 12.5 cm" }, {});
    expect(found.map((e) => [e.name, e.height_mm])).toEqual([
      ["6 cm", 60],
      ["9 cm", 90],
      ["12.5 cm", 125],
    ]);
    expect(new Set(found.map((e) => e.key)).size).toBe(3);
  });
  it.each([
    ["6 9 12", [60, 90, 120]],
    ["6,5; 9", [65, 90]],
    ["6cm, 9cm", [60, 90]],
    ["six", []],
    ["6, 9000", []],
    ["", []],
  ])("reads the heights %j", (typed, heights) => {
    expect(heightsOf(typed)).toEqual(heights);
  });
  it("is none while something is missing", () => {
    const nothing = { ...ASKED, height: null, count: null, grams: null, girth: null, heights: "x" };
    for (const way of ["yarn", "height", "heights", "part-height", "count", "fit", "grams"] as const)
      expect(entriesOf(way, nothing, {})).toEqual([]);
  });
});

describe("pictures of sizes", () => {
  it("stand in one measure, which the tallest fits", () => {
    const svg = '<svg viewBox="-20.0 -70.5 52.0 88.0" role="img">';
    expect(measureOf(svg)).toEqual({ width: 52, height: 88 });
    expect(measureOf("<svg>")).toBeNull();
    expect(pxPerMm([50, 100])).toBeCloseTo(190 / 112);
    expect(pxPerMm([])).toBeLessThan(10);
  });
});

describe("what a size settles to", () => {
  const SETTLED = {
    whole: true,
    parts: 3,
    under_way: 0,
    svg: "<svg/>",
    height_mm: 162,
    width_mm: 80,
    told: [],
  };
  it.each([
    [undefined, "Settling…"],
    [{ ...SETTLED, whole: false, under_way: 2, meets: null, proportion: null }, "Settling: 2 parts to go."],
    [{ ...SETTLED, whole: false, under_way: 1, meets: null, proportion: null }, "Settling: 1 part to go."],
    [{ ...SETTLED, whole: false, svg: null, meets: null, proportion: null }, "Not all of it can be settled"],
    [{ ...SETTLED, meets: null, proportion: null }, "Settled: 16 cm tall, 8 cm wide."],
    [{ ...SETTLED, meets: null, proportion: 0.03 }, "8 cm wide."],
    [{ ...SETTLED, meets: null, proportion: 0.08 }, "8 % slimmer than the first."],
    [{ ...SETTLED, meets: null, proportion: -0.11 }, "11 % stouter than the first."],
  ])("is said in a sentence", (found, said) => {
    expect(settledSaid(found)).toContain(said);
  });
});
