/** A settled part as it comes from the studio: positions of every stitch, on the way there and at rest. */
import { type Matrix4, Vector3 } from "three";
import type { Schemas } from "../api/client";

export type RoundMeasure = Schemas["RoundMeasure"];

/** Root mean square distance from the target in mm and in stitch widths, and volume as a share of the target's. */
export type ShapeError = Schemas["ShapeErrorOut"];

export type Settled = {
  labels: string[];
  counts: number[];
  colours: string[];
  frames: Float32Array[];
  /** Positions at rest, x y z of every node in mm. */
  x: Float32Array;
  stitches: number;
  below: Int32Array;
  beside: Int32Array;
  triangles: Uint32Array;
  round: Int16Array;
  place: Uint16Array;
  kind: string[];
  colour: Uint16Array;
  stretch: Int16Array;
  measures: Schemas["Settled"]["measures"];
  /** What has to go in, and up to which round it does; null for what never does. */
  passes: Schemas["Settled"]["passes"];
  stuffed: boolean;
  error?: ShapeError;
  /** Hundredths of a mm by which each node lies outside the target. */
  off?: Int16Array;
  aim?: Surface;
};

/** Corners in mm and triangles of a surface. */
export type Surface = { x: Float32Array; triangles: Uint32Array };

function bytes(text: string): ArrayBuffer {
  const raw = atob(text);
  const out = new Uint8Array(raw.length);
  for (let i = 0; i < raw.length; i++) out[i] = raw.charCodeAt(i);
  return out.buffer;
}

export function unpack(answer: Schemas["Settled"]): Settled {
  const frames = answer.frames.map((f) =>
    Float32Array.from(new Int16Array(bytes(f)), (v) => v * answer.scale),
  );
  const kinds = new Uint8Array(bytes(answer.kind));
  return {
    labels: answer.labels,
    counts: answer.counts,
    colours: answer.colours,
    frames,
    x: frames.at(-1) ?? new Float32Array(),
    stitches: answer.stitches,
    below: new Int32Array(bytes(answer.below)),
    beside: new Int32Array(bytes(answer.beside)),
    triangles: new Uint32Array(bytes(answer.triangles)),
    round: new Int16Array(bytes(answer.round)),
    place: new Uint16Array(bytes(answer.place)),
    kind: Array.from(kinds, (k) => answer.kinds[k] ?? ""),
    colour: new Uint16Array(bytes(answer.colour)),
    stretch: new Int16Array(bytes(answer.stretch)),
    measures: answer.measures,
    passes: answer.passes,
    stuffed: answer.stuffed,
  };
}

/** The part as it lies in a piece that gives way to others, or hangs. */
export function givenWay(settled: Settled, to: Schemas["GivesWay"] | null | undefined): Settled {
  if (!to) return settled;
  const x = Float32Array.from(new Int16Array(bytes(to.x)), (v) => v * to.scale);
  if (x.length !== settled.x.length) return settled;
  const lying = { ...settled, x, frames: [x] };
  return to.turned ? { ...lying, ...mirrored(settled, new Uint8Array(bytes(to.turned))) } : lying;
}

/** Triangles and neighbours with the right side out where the fabric is mirrored. turned: 1 for such nodes. */
function mirrored(settled: Settled, turned: Uint8Array): Pick<Settled, "triangles" | "beside"> {
  const triangles = settled.triangles.slice();
  for (let at = 0; at < triangles.length; at += 3) {
    const [a = 0, b = 0, c = 0] = triangles.subarray(at, at + 3);
    if (turned[a] || turned[b] || turned[c]) triangles.set([c, b, a], at);
  }
  const beside = settled.beside.slice();
  for (let stitch = 0; stitch * 2 < beside.length; stitch++)
    if (turned[stitch]) {
      const [before = stitch, after = stitch] = beside.subarray(stitch * 2, stitch * 2 + 2);
      beside.set([after, before], stitch * 2);
    }
  return { triangles, beside };
}

/** A settled shape with its target. */
export function unpackFitted({ settled, error, off, aim }: Schemas["Fitted"]): Settled {
  return {
    ...unpack(settled),
    error,
    off: new Int16Array(bytes(off)),
    aim: {
      x: Float32Array.from(new Int16Array(bytes(aim.x)), (v) => v * aim.scale),
      triangles: new Uint32Array(bytes(aim.triangles)),
    },
  };
}

/** Positions `share` (0 to 1) of the way from the start to rest. */
export function between(settled: Settled, share: number): Float32Array {
  const last = settled.frames.length - 1;
  const at = Math.min(Math.max(share, 0), 1) * last;
  const low = Math.floor(at);
  const a = settled.frames[low];
  const b = settled.frames[Math.min(low + 1, last)];
  if (!a || !b || a === b || at === low) return a ?? settled.x;
  const part = at - low;
  return a.map((v, i) => v + ((b[i] ?? v) - v) * part);
}

const UP = new Vector3();
const ACROSS = new Vector3();
const OUT = new Vector3();
const BASE = new Vector3();
const TOP = new Vector3();
const OTHER = new Vector3();

/** Middle, directions and size of a stitch's body, written into `matrix`: x across, y up the fabric, z outwards. */
export function placeStitch(settled: Settled, x: Float32Array, stitch: number, matrix: Matrix4): void {
  TOP.fromArray(x, stitch * 3);
  const before = settled.beside[stitch * 2] ?? stitch;
  const after = settled.beside[stitch * 2 + 1] ?? stitch;
  ACROSS.fromArray(x, after * 3).sub(OTHER.fromArray(x, before * 3));
  const steps = (before !== stitch ? 1 : 0) + (after !== stitch ? 1 : 0);
  const wide = ACROSS.length() / Math.max(steps, 1) || 1;
  const first = settled.below[stitch * 2] ?? -1;
  const second = settled.below[stitch * 2 + 1] ?? -1;
  if (first < 0) {
    // A chain lies along itself: its body hangs a little below its top.
    BASE.copy(TOP).addScaledVector(OTHER.set(0, 0, -1), wide * 0.3);
  } else
    BASE.fromArray(x, first * 3)
      .add(OTHER.fromArray(x, second * 3))
      .multiplyScalar(0.5);
  UP.copy(TOP).sub(BASE);
  const tall = Math.max(UP.length(), wide * 0.5);
  OUT.crossVectors(UP, ACROSS);
  if (OUT.lengthSq() < 1e-9) OUT.set(0, -1, 0.01);
  OUT.normalize();
  UP.normalize();
  ACROSS.crossVectors(UP, OUT);
  matrix.makeBasis(ACROSS.multiplyScalar(wide), UP.multiplyScalar(tall), OUT.multiplyScalar(wide));
  matrix.setPosition((TOP.x + BASE.x) / 2, (TOP.y + BASE.y) / 2, (TOP.z + BASE.z) / 2);
}

const CHANGES: [RegExp, string][] = [
  [/inc/, "increase"],
  [/dec/, "decrease"],
];

/** A stitch in words: "R13, stitch 10 of 24, increase". */
export function stitchName(settled: Settled, stitch: number): string {
  const round = settled.round[stitch] ?? -1;
  if (round < 0) return "a stitch of a piece worked in";
  const kind = settled.kind[stitch] ?? "";
  const change = CHANGES.find(([test]) => test.test(kind))?.[1];
  const words = [`${settled.labels[round]}, stitch ${settled.place[stitch]} of ${settled.counts[round]}`];
  if (change) words.push(change);
  else if (kind !== "sc") words.push(kind);
  return words.join(", ");
}

/** The stitch `by` places on in its round, or as far along in the round `by` above. */
export function stitchBeside(settled: Settled, stitch: number, along: number, up: number): number {
  const round = settled.round[stitch] ?? 0;
  if (up) {
    const wanted = Math.min(Math.max(round + up, 0), settled.labels.length - 1);
    const share = ((settled.place[stitch] ?? 1) - 0.5) / Math.max(settled.counts[round] ?? 1, 1);
    return stitchAt(settled, wanted, Math.ceil(share * (settled.counts[wanted] ?? 1))) ?? stitch;
  }
  const many = settled.counts[round] ?? 1;
  const place = ((((settled.place[stitch] ?? 1) - 1 + along) % many) + many) % many;
  return stitchAt(settled, round, place + 1) ?? stitch;
}

/** The stitch at a place (from 1) of a round. */
export function stitchAt(settled: Settled, round: number, place: number): number | null {
  for (let i = 0; i < settled.stitches; i++)
    if (settled.round[i] === round && settled.place[i] === place) return i;
  return null;
}

/** Lowest and highest corner in mm. */
export function boxOf(x: Float32Array): { low: [number, number, number]; high: [number, number, number] } {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < x.length; i++) {
    const v = x[i] ?? 0;
    const k = i % 3;
    if (v < (low[k] ?? v)) low[k] = v;
    if (v > (high[k] ?? v)) high[k] = v;
  }
  return { low, high };
}
