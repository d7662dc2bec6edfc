import { Matrix4, Vector3 } from "three";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { placed } from "../assembly/aim";
import { fromFront, gapOf } from "../assembly/places";
import type { Scene } from "../assembly/use-scene";
import { strainColour } from "./relief";
import { between, boxOf, givenWay, placeStitch, stitchAt, stitchBeside, stitchName, unpack } from "./settled";

function packed(values: number[], Kind: typeof Int16Array | typeof Int32Array | typeof Uint8Array): string {
  const bytes = new Uint8Array(Kind.from(values).buffer);
  return btoa(String.fromCharCode(...bytes));
}

/** Two rounds of four on a tube of radius 10, the second above the first; then a middle below. */
function tube(): Schemas["Settled"] {
  const ring = (z: number) => [0, -10, z, -10, 0, z, 0, 10, z, 10, 0, z];
  const rest = [...ring(5), ...ring(10), 0, 0, 0];
  const wide = rest.map((v) => v * 2);
  return {
    labels: ["R1", "R2"],
    counts: [4, 4],
    kinds: ["sc", "inc2", "dec2"],
    colours: ["Main"],
    scale: 0.5,
    frames: [
      packed(
        wide.map((v) => v * 2),
        Int16Array,
      ),
      packed(wide, Int16Array),
    ],
    stitches: 8,
    middles: 1,
    closings: 0,
    below: packed([8, 8, 8, 8, 8, 8, 8, 8, 0, 0, 1, 1, 2, 2, 3, 3], Int32Array),
    beside: packed([3, 1, 0, 2, 1, 3, 2, 0, 7, 5, 4, 6, 5, 7, 6, 4], Int32Array),
    triangles: packed([0, 1, 8], Int32Array),
    round: packed([0, 0, 0, 0, 1, 1, 1, 1], Int16Array),
    place: packed([1, 2, 3, 4, 1, 2, 3, 4], Int16Array),
    kind: packed([0, 0, 0, 0, 0, 1, 2, 0], Uint8Array),
    colour: packed([0, 0, 0, 0, 0, 0, 0, 0], Int16Array),
    stretch: packed([0, 0, 0, 0, 0, 0, 150, -150], Int16Array),
    measures: { width_mm: 20, depth_mm: 20, height_mm: 10, volume_ml: 3, area_cm2: 6, fill_g: 1, rounds: [] },
    passes: [],
    stuffed: true,
    flaps: [],
    limbs: [],
    limb: "",
    converged: true,
    steps: 9,
  };
}

describe("a settled part", () => {
  const part = unpack(tube());
  it("is unpacked to millimetres", () => {
    expect(Array.from(part.x.slice(0, 3))).toEqual([0, -10, 5]);
    expect(part.frames).toHaveLength(2);
    expect(boxOf(part.x)).toEqual({ low: [-10, -10, 0], high: [10, 10, 10] });
  });
  it("moves from its start to rest", () => {
    expect(between(part, 0)[1]).toBe(-20);
    expect(between(part, 0.5)[1]).toBe(-15);
    expect(between(part, 1)[1]).toBe(-10);
    expect(between(part, 7)[1]).toBe(-10);
  });
  it("stands every stitch up the fabric and outward", () => {
    const m = new Matrix4();
    placeStitch(part, part.x, 4, m);
    const [x, y, z] = [new Vector3(), new Vector3(), new Vector3()];
    m.extractBasis(x, y, z);
    expect(y.normalize().z).toBeCloseTo(1);
    expect(z.normalize().y).toBeCloseTo(-1);
    expect(m.determinant()).toBeGreaterThan(0);
    expect(new Vector3().setFromMatrixPosition(m).toArray()).toEqual([0, -10, 7.5]);
  });
  it("names its stitches", () => {
    expect(stitchName(part, 4)).toBe("R2, stitch 1 of 4");
    expect(stitchName(part, 5)).toBe("R2, stitch 2 of 4, increase");
    expect(stitchName(part, 6)).toBe("R2, stitch 3 of 4, decrease");
  });
  it("is walked by keys, around and up", () => {
    expect(stitchAt(part, 1, 3)).toBe(6);
    expect(stitchAt(part, 9, 1)).toBeNull();
    expect(stitchBeside(part, 7, 1, 0)).toBe(4);
    expect(stitchBeside(part, 4, -1, 0)).toBe(7);
    expect(stitchBeside(part, 1, 0, 1)).toBe(5);
    expect(stitchBeside(part, 5, 0, 9)).toBe(5);
  });
  it("shows strain by colour, with both ends apart", () => {
    const rest = strainColour(0).getHexString();
    expect(strainColour(150).getHexString()).not.toBe(rest);
    expect(strainColour(-150).getHexString()).not.toBe(strainColour(150).getHexString());
    expect(strainColour(900).getHexString()).toBe(strainColour(150).getHexString());
  });
});

describe("a place that was pointed at", () => {
  const part = unpack(tube());
  const scene = {
    centre: { head: { place: [0, 0], front: [], starts: [], degrees: [], shift: [] } },
  } as never as Scene;
  it("is said from the front, left and right", () => {
    expect(fromFront(scene, "head", part, 4)).toBe(0);
    expect(fromFront(scene, "head", part, 5)).toBe(1);
    expect(fromFront(scene, "head", part, 7)).toBe(-1);
  });
  it("keeps the gap of eyes even on an even round", () => {
    expect(gapOf(3, 24)).toBe(6);
    expect(gapOf(-2.5, 24)).toBe(6);
    expect(gapOf(0, 24)).toBe(2);
    expect(gapOf(2.5, 25)).toBe(5);
  });
  it("moves the eyes, a step or a point, and nothing else", () => {
    const page = {
      steps: [
        { key: "a", part: "ear", on: null },
        { key: "b", part: "head" },
      ],
      marks: [{ key: "m", name: "nose", part: "head", round: 1, stitch: 0 }],
    } as never;
    const picked = { part: "head", stitch: 5, settled: part };
    const design = { parts: [{ key: "ear", name: "Ears", make: 2 }] } as never;
    expect(placed(design, page, { kind: "eyes" }, picked, scene).eyes).toEqual({
      part: "head",
      round: 2,
      between: 2,
      share: null,
    });
    const seated = placed(design, page, { kind: "step", key: "a" }, picked, scene).steps ?? [];
    expect(seated[0]).toMatchObject({ on: "head", round: 2, stitch: 1 });
    expect(placed(design, page, { kind: "step", key: "b" }, picked, scene).steps?.[1]).not.toHaveProperty(
      "on",
    );
    expect(placed(design, page, { kind: "mark", key: "m" }, picked, scene).marks?.[0]).toMatchObject({
      round: 2,
      stitch: 1,
    });
    const tray = placed(design, page, { kind: "part", key: "ear" }, picked, scene).steps ?? [];
    expect(tray[2]).toMatchObject({ part: "ear", on: "head", round: 2, stitch: 1, paired: true, text: "" });
    expect(placed(design, page, { kind: "part", key: "head" }, picked, scene)).toBe(page);
  });
});

describe("a piece that gives way", () => {
  it("lies where it is told to, and nowhere else when nothing is told", () => {
    const own = unpack(tube());
    expect(givenWay(own, null)).toBe(own);
    const x = Array.from(own.x, (v) => v + 3);
    const moved = givenWay(own, {
      scale: 0.1,
      x: packed(
        x.map((v) => Math.round(v * 10)),
        Int16Array,
      ),
    });
    expect(Array.from(moved.x).map((v) => Math.round(v))).toEqual(x.map((v) => Math.round(v)));
    expect(moved.frames).toHaveLength(1);
    expect(moved.labels).toBe(own.labels);
  });
  it("keeps the right side out where fabric was turned down about a seam", () => {
    const own = unpack(tube());
    const upper = Array.from({ length: own.x.length / 3 }, (_, node) => (node < 4 ? 1 : 0));
    const x = packed(Array.from(own.x, Math.round), Int16Array);
    const moved = givenWay(own, { scale: 1, x, turned: packed(upper, Uint8Array) });
    const corners = [...own.triangles];
    for (let at = 0; at < corners.length; at += 3) {
      const [a = 0, b = 0, c = 0] = corners.slice(at, at + 3);
      const over = [a, b, c].some((node) => upper[node]);
      expect([...moved.triangles.slice(at, at + 3)]).toEqual(over ? [c, b, a] : [a, b, c]);
    }
    expect([...moved.beside.slice(0, 2)]).toEqual([...own.beside.slice(0, 2)].reverse());
    expect([...moved.beside.slice(8)]).toEqual([...own.beside.slice(8)]);
    expect(own.triangles).not.toEqual(moved.triangles);
  });
  it("stays as it settled when the places are not its own", () => {
    const own = unpack(tube());
    expect(givenWay(own, { scale: 1, x: packed([1, 2, 3], Int16Array) })).toBe(own);
  });
});
