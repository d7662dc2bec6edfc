/** A sketch as strokes of a pen: drawn, rubbed out, mirrored, taken back; and as a picture. */
import { getStroke } from "perfect-freehand";
import { asRefused } from "../api/client";

/** A point under the pen: across, down, and how hard it presses, from 0 to 1. */
export type Point = [x: number, y: number, pressure: number];

export interface Stroke {
  ink: string;
  /** Width of the pen in units of the sheet. */
  size: number;
  points: readonly Point[];
  /** Whether the device tells how hard the pen presses; a mouse does not. */
  pressed: boolean;
}

export interface Sketch {
  strokes: readonly Stroke[];
  /** Steps that can be taken back, latest last, and those that were. */
  before: readonly (readonly Stroke[])[];
  after: readonly (readonly Stroke[])[];
}

/** The sheet, in units of its own. */
export const SHEET = { wide: 1200, tall: 900 } as const;

export const EMPTY: Sketch = { strokes: [], before: [], after: [] };

/** Strokes of a sketch, points of a stroke, and steps back: more of them are a film, and no sketch. */
const MOST_STROKES = 2_000;
export const MOST_POINTS = 4_000;
const MOST_BACK = 200;

/** The sketch with other strokes, as one step that can be taken back. */
export function changed(sketch: Sketch, strokes: readonly Stroke[]): Sketch {
  if (strokes === sketch.strokes || strokes.length > MOST_STROKES) return sketch;
  return { strokes, before: [...sketch.before, sketch.strokes].slice(-MOST_BACK), after: [] };
}

export function undone(sketch: Sketch): Sketch {
  const back = sketch.before.at(-1);
  if (!back) return sketch;
  return { strokes: back, before: sketch.before.slice(0, -1), after: [...sketch.after, sketch.strokes] };
}

export function redone(sketch: Sketch): Sketch {
  const on = sketch.after.at(-1);
  if (!on) return sketch;
  return { strokes: on, before: [...sketch.before, sketch.strokes], after: sketch.after.slice(0, -1) };
}

/** The stroke on the other side of the middle of the sheet. */
export function mirrored(stroke: Stroke): Stroke {
  return { ...stroke, points: stroke.points.map(([x, y, p]) => [SHEET.wide - x, y, p]) };
}

/** Strokes without those that pass near a point: what a rubber takes, whole strokes at a time. */
export function rubbed(strokes: readonly Stroke[], at: Point, reach: number): readonly Stroke[] {
  const left = strokes.filter((s) => !passes(s, at, reach + s.size / 2));
  return left.length === strokes.length ? strokes : left;
}

function passes({ points }: Stroke, [x, y]: Point, reach: number): boolean {
  return points.some((p, i) => distance([x, y], p, points[i + 1] ?? p) <= reach);
}

/** How far a place is from the line between two points. */
function distance([x, y]: readonly [number, number], a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const along = ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1);
  const t = Math.min(1, Math.max(0, along));
  return Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy);
}

/** The outline of a stroke as the path of a drawing; fuller where the pen presses. */
export function outline(stroke: Stroke): string {
  const around = getStroke(
    stroke.points.map((p) => [...p]),
    { size: stroke.size, thinning: 0.6, streamline: 0.4, simulatePressure: !stroke.pressed },
  );
  const [first, ...rest] = around;
  if (!first) return "";
  const at = ([x = 0, y = 0]: readonly number[]) => `${x.toFixed(1)} ${y.toFixed(1)}`;
  return `M${at(first)}${rest.map((p) => `L${at(p)}`).join("")}Z`;
}

/** The sketch as a PNG file on white paper, over `under` where it goes on from a picture. */
export async function asPicture(strokes: readonly Stroke[], under: HTMLImageElement | null): Promise<File> {
  const canvas = document.createElement("canvas");
  canvas.width = SHEET.wide;
  canvas.height = SHEET.tall;
  const pen = canvas.getContext("2d");
  if (!pen) throw asRefused({ detail: "This browser draws no pictures." }, 400);
  pen.fillStyle = "#fff";
  pen.fillRect(0, 0, SHEET.wide, SHEET.tall);
  if (under) {
    const { x, y, wide, tall } = laidUnder(under.naturalWidth, under.naturalHeight);
    pen.drawImage(under, x, y, wide, tall);
  }
  for (const stroke of strokes) {
    pen.fillStyle = stroke.ink;
    pen.fill(new Path2D(outline(stroke)));
  }
  const blob = await new Promise<Blob | null>((then) => canvas.toBlob(then, "image/png"));
  if (!blob) throw asRefused({ detail: "This browser makes no pictures." }, 400);
  return new File([blob], "sketch.png", { type: "image/png" });
}

/** Where a picture lies on the sheet: as large as it finds room, in the middle. */
export function laidUnder(width: number, height: number) {
  const scale = Math.min(SHEET.wide / (width || 1), SHEET.tall / (height || 1));
  const [wide, tall] = [width * scale, height * scale];
  return { x: (SHEET.wide - wide) / 2, y: (SHEET.tall - tall) / 2, wide, tall };
}

const KEPT = "sketch-of-design-";

/** A sketch that is not saved yet waits on this device. */
export function keep(design: number, strokes: readonly Stroke[]): void {
  try {
    if (strokes.length) localStorage.setItem(KEPT + design, JSON.stringify({ format: 1, strokes }));
    else localStorage.removeItem(KEPT + design);
  } catch {
    // A full or forbidden store: the sketch stays on the sheet all the same.
  }
}

/** What waits of an earlier sketch; nothing where there is none, or none that is understood. */
export function kept(design: number): readonly Stroke[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEPT + design) ?? "null");
    if (!isKept(found)) return [];
    return found.strokes;
  } catch {
    return [];
  }
}

function isKept(found: unknown): found is { format: 1; strokes: Stroke[] } {
  const { format, strokes } = (found ?? {}) as { format?: unknown; strokes?: unknown };
  return (
    format === 1 &&
    Array.isArray(strokes) &&
    strokes.every(
      (s: Partial<Stroke> | null) =>
        typeof s?.ink === "string" &&
        typeof s.size === "number" &&
        typeof s.pressed === "boolean" &&
        Array.isArray(s.points) &&
        s.points.every((p: unknown) => Array.isArray(p) && p.length === 3 && p.every(Number.isFinite)),
    )
  );
}
