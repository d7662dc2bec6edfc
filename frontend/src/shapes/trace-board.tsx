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

type BoardProps = {
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
};

type Grip = number | "length" | null;

export function Board({ design, curve, focused, onFocus, measuring, length, onLength, ...of }: BoardProps) {
  const { form, line, onForm } = of;
  const svg = useRef<SVGSVGElement>(null);
  const [grip, setGrip] = useState<Grip>(null);
  const handles = form[line];
  const view = useView(handles, grip !== null);
  const press = useHandleKeys(of);
  const place = (e: PointerEvent): Handle => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return view.at(((e.clientX - box.left) / box.width) * SIZE, ((e.clientY - box.top) / box.height) * SIZE);
  };
  const drag = (e: PointerEvent) => {
    const to = place(e);
    if (grip === "length" && length) onLength([length[0], to]);
    else if (typeof grip === "number") onForm(moved(form, line, grip, [Math.abs(to[0]), to[1]]));
  };
  const begin = (e: PointerEvent) => {
    if (!measuring) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    const at = place(e);
    onLength([at, at]);
    setGrip("length");
  };
  const grab = (e: PointerEvent, at: number) => {
    if (measuring) return;
    e.stopPropagation();
    svg.current?.setPointerCapture(e.pointerId);
    setGrip(at);
    onFocus(at);
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className={`mx-auto block w-full max-w-80 touch-none select-none rounded border border-line bg-ground ${measuring ? "cursor-crosshair" : ""}`}
      role="group"
      aria-label={`Outline from the ${line}: arrow keys move a handle by a millimetre, with Shift by ten; + adds one, Delete removes it`}
      onPointerDown={begin}
      onPointerMove={drag}
      onPointerUp={() => setGrip(null)}
    >
      <Behind design={design} form={form} line={line} curve={curve} view={view} />
      <path
        d={`M${handles.map((h) => view.point(h)).join("L")}`}
        fill="none"
        stroke="var(--woad)"
        strokeDasharray="2 3"
      />
      {length && (
        <path d={`M${length.map((h) => view.point(h)).join("L")}`} stroke="var(--madder)" strokeWidth={3} />
      )}
      {handles.map((handle, i) => (
        <Knob
          key={i}
          at={i}
          handle={handle}
          last={i === handles.length - 1}
          focused={i === focused}
          view={view}
          onFocus={() => onFocus(i)}
          onKeyDown={(e) => press(e, i)}
          onPointerDown={(e) => grab(e, i)}
        />
      ))}
    </svg>
  );
}

/** From millimetres to the board and back. It stays while a handle is held, so that nothing runs away under it. */
function useView(handles: Handle[], held: boolean) {
  const seen = useRef({ low: 0, tall: 100 });
  if (!held) {
    const high = Math.max(...handles.map((h) => h[1]));
    const low = Math.min(...handles.map((h) => h[1]), 0);
    const tall = Math.max(high - low, 2 * Math.max(...handles.map((h) => h[0]))) * 1.22;
    seen.current = { low: low - (tall - (high - low)) / 2, tall };
  }
  const { low, tall } = seen.current;
  const scale = SIZE / tall;
  const x = (r: number) => SIZE / 2 + r * scale;
  const y = (z: number) => SIZE - (z - low) * scale;
  const point = ([r, z]: Handle) => `${x(r).toFixed(1)} ${y(z).toFixed(1)}`;
  const at = (px: number, py: number): Handle => [(px - SIZE / 2) / scale, (SIZE - py) / scale + low];
  return { x, y, point, at, scale };
}

type View = ReturnType<typeof useView>;

function useHandleKeys({
  form,
  line,
  onForm,
  onBack,
}: Pick<BoardProps, "form" | "line" | "onForm" | "onBack">) {
  return (e: KeyboardEvent, at: number) => {
    if ((e.ctrlKey || e.metaKey) && e.key === "z") {
      e.preventDefault();
      e.stopPropagation();
      return onBack();
    }
    const by = KEYS[e.key];
    const h = form[line][at];
    if (e.key === "Delete" || e.key === "Backspace") onForm(without(form, line, at));
    else if (e.key === "+" || e.key === "Insert") onForm(added(form, line, at));
    else if (by && h) {
      const far = e.shiftKey ? 10 : 1;
      onForm(moved(form, line, at, [h[0] + by[0] * far, h[1] + by[1] * far]));
    } else return;
    e.preventDefault();
  };
}

/** The picture that is traced over, the middle, and the smooth outline. */
function Behind({
  design,
  form,
  line,
  curve,
  view,
}: Pick<BoardProps, "design" | "form" | "line" | "curve"> & { view: View }) {
  const picture = usePictures(design).find((p) => p.id === form.picture?.number);
  const backing = form.picture && picture && line === "front" ? form.picture : null;
  const right = curve.map((h) => view.point(h));
  const left = curve.map(([r, z]) => view.point([-r, z])).reverse();
  return (
    <>
      {backing && picture && (
        <image
          href={picture.url}
          x={view.x(-backing.pole_x * backing.mm_per_px)}
          y={view.y(backing.pole_y * backing.mm_per_px)}
          width={picture.width * backing.mm_per_px * view.scale}
          height={picture.height * backing.mm_per_px * view.scale}
          preserveAspectRatio="none"
          opacity={0.75}
        />
      )}
      <line x1={SIZE / 2} x2={SIZE / 2} y1={4} y2={SIZE - 4} stroke="var(--line)" strokeDasharray="3 4" />
      {curve.length > 1 && (
        <path
          d={`M${[...right, ...left].join("L")}Z`}
          fill="var(--weld-ground)"
          fillOpacity={backing ? 0.25 : 0.8}
          stroke="var(--weld)"
          strokeWidth={2}
        />
      )}
    </>
  );
}

function Knob({
  at,
  handle: [r, z],
  last,
  focused,
  view,
  ...heard
}: {
  at: number;
  handle: Handle;
  last: boolean;
  focused: boolean;
  view: View;
  onFocus: () => void;
  onKeyDown: (e: KeyboardEvent) => void;
  onPointerDown: (e: PointerEvent) => void;
}) {
  return (
    <circle
      cx={view.x(r)}
      cy={view.y(z)}
      r={focused ? 8 : 6.5}
      fill={at === 0 ? "var(--panel)" : "var(--woad-ground)"}
      stroke="var(--woad)"
      strokeWidth={2}
      className="cursor-move"
      role="slider"
      tabIndex={0}
      aria-label={at === 0 ? "Start pole" : last ? "End" : `Handle ${at}`}
      aria-valuemin={0}
      aria-valuemax={900}
      aria-valuenow={Math.round(r)}
      aria-valuetext={`${Math.round(r)} mm from the middle, ${Math.round(z)} mm up`}
      {...heard}
    />
  );
}
