/** Changes of a traced outline's handles; millimetres, the pole at (0, 0), heights upwards. */
import type { Handle, Traced } from "./recipe";

export type Line = "front" | "side";

const LEAST_APART = 1;
const MOST_R = 900;
const MOST_Z = 1900;

/** A handle put somewhere else, on whole millimetres; the pole stays, and a closed end stays on the axis. */
export function moved(form: Traced, line: Line, at: number, to: Handle): Traced {
  const handles = form[line];
  if (at === 0) return form;
  const last = at === handles.length - 1;
  const r = last && !form.open ? 0 : Math.min(MOST_R, Math.max(last ? 0 : 1, Math.round(to[0])));
  const z = Math.min(MOST_Z, Math.max(last ? 5 : -200, Math.round(to[1])));
  const next = handles.map((h, i) => (i === at ? ([r, z] as Handle) : h));
  const apart = next.every(
    (h, i) => i === at || Math.abs(i - at) > 1 || Math.hypot(h[0] - r, h[1] - z) >= LEAST_APART,
  );
  return apart ? { ...form, [line]: next } : form;
}

/** One more handle, half way between a handle and the next. */
export function added(form: Traced, line: Line, after: number): Traced {
  const handles = form[line];
  const at = Math.min(Math.max(after, 0), handles.length - 2);
  const [a, b] = [handles[at], handles[at + 1]];
  if (!a || !b || handles.length >= 60) return form;
  const middle: Handle = [Math.max(1, Math.round((a[0] + b[0]) / 2)), Math.round((a[1] + b[1]) / 2)];
  return { ...form, [line]: [...handles.slice(0, at + 1), middle, ...handles.slice(at + 1)] };
}

/** Without a handle; pole, end and one between them stay. */
export function without(form: Traced, line: Line, at: number): Traced {
  const handles = form[line];
  if (at <= 0 || at >= handles.length - 1 || handles.length <= 3) return form;
  return { ...form, [line]: handles.filter((_, i) => i !== at) };
}

/** Everything larger or smaller, its picture too. */
export function scaled(form: Traced, factor: number): Traced {
  const larger = (handles: Handle[]) =>
    handles.map(([r, z]): Handle => [Math.round(r * factor * 10) / 10, Math.round(z * factor * 10) / 10]);
  return {
    ...form,
    front: larger(form.front),
    side: larger(form.side),
    axis: larger(form.axis),
    picture: form.picture && { ...form.picture, mm_per_px: form.picture.mm_per_px * factor },
  };
}

/** An outline that was found on a picture, at the height that the shape has now. */
export function found(
  form: Traced,
  picture: number,
  at: { handles: number[][]; pole: number[] },
  height: number,
): Traced {
  const tall = Math.max(...at.handles.map((h) => h[1] ?? 0), 1);
  const mm = height / tall;
  const front = at.handles.map(
    ([r = 0, z = 0]): Handle => [Math.round(r * mm * 10) / 10, Math.round(z * mm * 10) / 10],
  );
  return {
    ...form,
    front,
    picture: { number: picture, mm_per_px: mm, pole_x: at.pole[0] ?? 0, pole_y: at.pole[1] ?? 0 },
  };
}

/** Height of an outline from its lowest to its highest handle. */
export function tallOf(handles: readonly Handle[]): number {
  return Math.max(...handles.map((h) => h[1])) - Math.min(...handles.map((h) => h[1]));
}
