/** The solid's outline with handles to drag: the side for the width, the end for the height. */
import { type PointerEvent, useRef, useState } from "react";
import type { SolidForm } from "./recipe";

type Grip = "width" | "height";

const SIZE = 240;
const LEAST = 5;
const MOST = 600;

function held(value: number): number {
  return Math.round(Math.min(MOST, Math.max(LEAST, value)));
}

export function Outline({
  points,
  solid,
  onSolid,
}: {
  points: [number, number][];
  solid: SolidForm;
  onSolid: (solid: SolidForm) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [grip, setGrip] = useState<Grip | null>(null);
  const widest = Math.max(...points.map((p) => p[0]), 1);
  const tallest = Math.max(...points.map((p) => p[1]), 1);
  const frozen = useRef(1);
  if (grip === null) frozen.current = (SIZE * 0.74) / Math.max(widest * 2, tallest);
  const scale = frozen.current;
  const foot = SIZE - 24;
  const x = (r: number) => SIZE / 2 + r * scale;
  const y = (z: number) => foot - z * scale;
  const right = points.map(([r, z]) => `${x(r).toFixed(1)} ${y(z).toFixed(1)}`);
  const left = points.map(([r, z]) => `${x(-r).toFixed(1)} ${y(z).toFixed(1)}`).reverse();
  const widestAt = points.reduce((best, p) => (p[0] > best[0] ? p : best), points[0] ?? [0, 0]);
  const set = (which: Grip, value: number) => {
    const size = held(value);
    if (which === "width")
      onSolid({ ...solid, width_mm: size, ...(solid.kind === "sphere" ? { height_mm: size } : {}) });
    else onSolid({ ...solid, height_mm: size, ...(solid.kind === "sphere" ? { width_mm: size } : {}) });
  };
  const move = (e: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!grip || !box) return;
    const [px, py] = [
      ((e.clientX - box.left) / box.width) * SIZE,
      ((e.clientY - box.top) / box.height) * SIZE,
    ];
    set(grip, grip === "width" ? (Math.abs(px - SIZE / 2) * 2) / scale : (foot - py) / scale);
  };
  const handle = (which: Grip, cx: number, cy: number) => {
    const value = which === "width" ? solid.width_mm : solid.height_mm;
    return (
      <circle
        cx={cx}
        cy={cy}
        r={8}
        fill="var(--woad-ground)"
        stroke="var(--woad)"
        strokeWidth={2}
        className={which === "width" ? "cursor-ew-resize" : "cursor-ns-resize"}
        role="slider"
        tabIndex={0}
        aria-label={which === "width" ? "Width" : "Height"}
        aria-valuenow={Math.round(value)}
        aria-valuemin={LEAST}
        aria-valuemax={MOST}
        aria-valuetext={`${Math.round(value)} mm`}
        aria-orientation={which === "width" ? "horizontal" : "vertical"}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setGrip(which);
        }}
        onPointerMove={move}
        onPointerUp={() => setGrip(null)}
        onKeyDown={(e) => {
          const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[
            e.key
          ];
          if (!by) return;
          e.preventDefault();
          set(which, value + by);
        }}
      />
    );
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className="mx-auto block w-full max-w-72 touch-none select-none"
      role="group"
      aria-label="Outline aimed at; drag its handles"
    >
      <line x1="20" x2={SIZE - 20} y1={foot} y2={foot} stroke="var(--line)" />
      <line x1={SIZE / 2} x2={SIZE / 2} y1="8" y2={foot + 8} stroke="var(--line)" strokeDasharray="3 4" />
      <path
        d={`M${[...right, ...left].join("L")}Z`}
        fill="var(--weld-ground)"
        stroke="var(--weld)"
        strokeWidth={2}
      />
      {handle("width", x(widestAt[0]), y(widestAt[1]))}
      {handle("height", SIZE / 2, y(tallest))}
      <text x={SIZE / 2} y={SIZE - 6} textAnchor="middle" fontSize="12" fill="var(--ink)">
        {Math.round(solid.width_mm)} mm wide,{" "}
        {Math.round(solid.kind === "sphere" ? solid.width_mm : solid.height_mm)} mm tall
      </text>
    </svg>
  );
}
