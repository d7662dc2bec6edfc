/** The board on which an outline is traced: picture, curve, handles to drag or to move by keys. */
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Design } from "../design/design";
import type { Handle, Traced } from "./recipe";
import { usePictures } from "./trace-picture";
import { added, type Line, moved, without } from "./trace-points";

const SIZE = 300;
const KEYS: Record<string, Handle> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export function Board({
  design,
  form,
  line,
  curve,
  focused,
  onFocus,
  onForm,
  onBack,
  measuring,
  length,
  onLength,
}: {
  design: Design;
  form: Traced;
  line: Line;
  curve: [number, number][];
  focused: number | null;
  onFocus: (at: number | null) => void;
  onForm: (form: Traced) => void;
  onBack: () => void;
  measuring: boolean;
  length: [Handle, Handle] | null;
  onLength: (length: [Handle, Handle]) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [grip, setGrip] = useState<number | "length" | null>(null);
  const picture = usePictures(design).find((p) => p.id === form.picture?.number);
  const handles = form[line];
  // The view stays while a handle is held, so that it does not run away under the pointer.
  const view = useRef({ low: 0, tall: 100 });
  if (grip === null) {
    const high = Math.max(...handles.map((h) => h[1]));
    const low = Math.min(...handles.map((h) => h[1]), 0);
    const tall = Math.max(high - low, 2 * Math.max(...handles.map((h) => h[0]))) * 1.22;
    view.current = { low: low - (tall - (high - low)) / 2, tall };
  }
  const { low, tall } = view.current;
  const scale = SIZE / tall;
  const x = (r: number) => SIZE / 2 + r * scale;
  const y = (z: number) => SIZE - (z - low) * scale;
  const place = (e: PointerEvent): Handle => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    const px = ((e.clientX - box.left) / box.width) * SIZE;
    const py = ((e.clientY - box.top) / box.height) * SIZE;
    return [(px - SIZE / 2) / scale, (SIZE - py) / scale + low];
  };
  const drag = (e: PointerEvent) => {
    const to = place(e);
    if (grip === "length" && length) onLength([length[0], to]);
    else if (typeof grip === "number") onForm(moved(form, line, grip, [Math.abs(to[0]), to[1]]));
  };
  const press = (e: KeyboardEvent, at: number) => {
    if ((e.ctrlKey || e.metaKey) && e.key === "z") {
      e.preventDefault();
      e.stopPropagation();
      return onBack();
    }
    const by = KEYS[e.key];
    const h = handles[at];
    if (e.key === "Delete" || e.key === "Backspace") onForm(without(form, line, at));
    else if (e.key === "+" || e.key === "Insert") onForm(added(form, line, at));
    else if (by && h) {
      const far = e.shiftKey ? 10 : 1;
      onForm(moved(form, line, at, [h[0] + by[0] * far, h[1] + by[1] * far]));
    } else return;
    e.preventDefault();
  };
  const smooth = curve.map(([r, z]) => `${x(r).toFixed(1)} ${y(z).toFixed(1)}`);
  const mirror = curve.map(([r, z]) => `${x(-r).toFixed(1)} ${y(z).toFixed(1)}`).reverse();
  const backing = form.picture && picture && line === "front" ? form.picture : null;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className={`mx-auto block w-full max-w-80 touch-none select-none rounded border border-line bg-ground ${measuring ? "cursor-crosshair" : ""}`}
      role="group"
      aria-label={`Outline from the ${line}: arrow keys move a handle by a millimetre, with Shift by ten; + adds one, Delete removes it`}
      onPointerDown={(e) => {
        if (!measuring) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        const at = place(e);
        onLength([at, at]);
        setGrip("length");
      }}
      onPointerMove={drag}
      onPointerUp={() => setGrip(null)}
    >
      {backing && picture && (
        <image
          href={picture.url}
          x={x(-backing.pole_x * backing.mm_per_px)}
          y={y(backing.pole_y * backing.mm_per_px)}
          width={picture.width * backing.mm_per_px * scale}
          height={picture.height * backing.mm_per_px * scale}
          preserveAspectRatio="none"
          opacity={0.75}
        />
      )}
      <line x1={SIZE / 2} x2={SIZE / 2} y1={4} y2={SIZE - 4} stroke="var(--line)" strokeDasharray="3 4" />
      {smooth.length > 1 && (
        <path
          d={`M${[...smooth, ...mirror].join("L")}Z`}
          fill="var(--weld-ground)"
          fillOpacity={backing ? 0.25 : 0.8}
          stroke="var(--weld)"
          strokeWidth={2}
        />
      )}
      <path
        d={`M${handles.map(([r, z]) => `${x(r).toFixed(1)} ${y(z).toFixed(1)}`).join("L")}`}
        fill="none"
        stroke="var(--woad)"
        strokeDasharray="2 3"
      />
      {length && (
        <line
          x1={x(length[0][0])}
          y1={y(length[0][1])}
          x2={x(length[1][0])}
          y2={y(length[1][1])}
          stroke="var(--madder)"
          strokeWidth={3}
        />
      )}
      {handles.map(([r, z], i) => (
        <circle
          key={i}
          cx={x(r)}
          cy={y(z)}
          r={i === focused ? 8 : 6.5}
          fill={i === 0 ? "var(--panel)" : "var(--woad-ground)"}
          stroke="var(--woad)"
          strokeWidth={2}
          className="cursor-move"
          role="slider"
          tabIndex={0}
          aria-label={i === 0 ? "Start pole" : i === handles.length - 1 ? "End" : `Handle ${i}`}
          aria-valuemin={0}
          aria-valuemax={900}
          aria-valuenow={Math.round(r)}
          aria-valuetext={`${Math.round(r)} mm from the middle, ${Math.round(z)} mm up`}
          onFocus={() => onFocus(i)}
          onKeyDown={(e) => press(e, i)}
          onPointerDown={(e) => {
            if (measuring) return;
            e.stopPropagation();
            svg.current?.setPointerCapture(e.pointerId);
            setGrip(i);
            onFocus(i);
          }}
        />
      ))}
    </svg>
  );
}
