/** A pen on a sheet: a mouse, a pen that presses, a finger, or the arrow keys. */
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { MOST_POINTS, type Point, SHEET } from "./strokes";

export interface Pen {
  /** What is under the pen now, before it is lifted. */
  points: readonly Point[];
  pressed: boolean;
  /** Where the arrow keys have the pen; null until they are used. */
  cursor: { x: number; y: number; down: boolean } | null;
  /** What the sheet listens to. */
  on: {
    onPointerDown: (e: PointerEvent<SVGSVGElement>) => void;
    onPointerMove: (e: PointerEvent<SVGSVGElement>) => void;
    onPointerUp: (e: PointerEvent<SVGSVGElement>) => void;
    onPointerCancel: () => void;
    onKeyDown: (e: KeyboardEvent<SVGSVGElement>) => void;
    onBlur: () => void;
  };
}

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** Units of the sheet that an arrow key goes, and with Shift. */
const STEP = 12;
const FINE = 2;

function placed(e: { clientX: number; clientY: number; pressure: number }, on: Element): Point {
  const r = on.getBoundingClientRect();
  const x = ((e.clientX - r.left) / (r.width || 1)) * SHEET.wide;
  const y = ((e.clientY - r.top) / (r.height || 1)) * SHEET.tall;
  return [Math.round(x * 10) / 10, Math.round(y * 10) / 10, e.pressure || 0.5];
}

/** `moved` is told every place that the pen comes to while it is down; `lifted` the whole way once it is not. */
export function usePen(
  moved: (at: Point) => void,
  lifted: (points: readonly Point[], pressed: boolean) => void,
): Pen {
  const [points, setPoints] = useState<readonly Point[]>([]);
  const [cursor, setCursor] = useState<Pen["cursor"]>(null);
  // The pointer that draws; once a pen was there, a hand that rests on the sheet is none.
  const drawing = useRef<{ id: number; pressed: boolean } | null>(null);
  const pen = useRef(false);
  const way = useRef<Point[]>([]);

  const go = (more: readonly Point[]) => {
    way.current = [...way.current, ...more].slice(0, MOST_POINTS);
    setPoints(way.current);
    for (const at of more) moved(at);
  };
  const end = () => {
    const done = way.current;
    way.current = [];
    setPoints([]);
    if (done.length) lifted(done, drawing.current?.pressed ?? false);
    drawing.current = null;
  };
  const byKeys = (e: KeyboardEvent<SVGSVGElement>) => {
    const at = cursor ?? { x: SHEET.wide / 2, y: SHEET.tall / 2, down: false };
    const step = STEPS[e.key];
    if (step) {
      e.preventDefault();
      const by = e.shiftKey ? FINE : STEP;
      const x = Math.min(SHEET.wide, Math.max(0, at.x + step[0] * by));
      const y = Math.min(SHEET.tall, Math.max(0, at.y + step[1] * by));
      setCursor({ ...at, x, y });
      if (at.down) go([[x, y, 0.5]]);
    } else if (e.key === " " || e.key === "Enter") {
      e.preventDefault();
      setCursor({ ...at, down: !at.down });
      if (at.down) end();
      else go([[at.x, at.y, 0.5]]);
    }
  };
  return {
    points,
    pressed: drawing.current?.pressed ?? false,
    cursor,
    on: {
      onPointerDown: (e) => {
        if (e.button !== 0 || drawing.current) return;
        if (e.pointerType === "touch" && pen.current) return;
        pen.current = pen.current || e.pointerType === "pen";
        e.currentTarget.setPointerCapture?.(e.pointerId);
        drawing.current = { id: e.pointerId, pressed: e.pointerType === "pen" };
        go([placed(e, e.currentTarget)]);
      },
      onPointerMove: (e) => {
        if (drawing.current?.id !== e.pointerId) return;
        const all = e.nativeEvent.getCoalescedEvents?.() ?? [];
        go((all.length ? all : [e]).map((one) => placed(one, e.currentTarget)));
      },
      onPointerUp: (e) => drawing.current?.id === e.pointerId && end(),
      onPointerCancel: end,
      onKeyDown: byKeys,
      onBlur: () => {
        if (cursor?.down) end();
        setCursor(null);
      },
    },
  };
}
