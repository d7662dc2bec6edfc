/** Pulling a rung by its end: how many stitches more or fewer it would have. */
import { type PointerEvent, useCallback, useRef, useState } from "react";

type Pull = { round: number; by: number };

/** Stitches that a pull of `dx` units of the drawing adds: both ends move, so two a stitch's width. */
export function stitchesFor(dx: number, unit: number): number {
  return Math.round((2 * dx) / unit);
}

export function useDrag(onWiden?: (round: number, by: number) => void) {
  const [pull, setPull] = useState<Pull | null>(null);
  const now = useRef<Pull | null>(null);
  const begin = useCallback(
    (e: PointerEvent<SVGElement>, round: number, unit: number) => {
      e.preventDefault();
      e.stopPropagation();
      const svg = e.currentTarget.ownerSVGElement;
      const scale = svg ? svg.viewBox.baseVal.width / Math.max(svg.getBoundingClientRect().width, 1) : 1;
      const from = e.clientX;
      const move = (event: globalThis.PointerEvent) => {
        now.current = { round, by: stitchesFor((event.clientX - from) * scale, unit) };
        setPull(now.current);
      };
      const end = (event: globalThis.PointerEvent) => {
        window.removeEventListener("pointermove", move);
        window.removeEventListener("pointerup", end);
        window.removeEventListener("pointercancel", end);
        const done = now.current;
        now.current = null;
        setPull(null);
        if (event.type === "pointerup" && done && done.by !== 0) onWiden?.(done.round, done.by);
      };
      window.addEventListener("pointermove", move);
      window.addEventListener("pointerup", end);
      window.addEventListener("pointercancel", end);
    },
    [onWiden],
  );
  const by = (round: number) => (pull?.round === round ? pull.by : 0);
  return { begin, by };
}
