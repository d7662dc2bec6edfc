/** A silhouette traced with a few handles, over a picture where there is one. By mouse, and by keys alone. */
import { Minus, Plus, Ruler, Undo2 } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Design } from "../design/design";
import { Button, Check, IconButton, NumberField } from "../ui/controls";
import type { Handle, Traced } from "./recipe";
import { TracePicture, usePictures } from "./trace-picture";
import { added, type Line, moved, scaled, tallOf, without } from "./trace-points";

const SIZE = 300;
const KEYS: Record<string, Handle> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export function Trace({
  design,
  form,
  onForm,
  curve,
}: {
  design: Design;
  form: Traced;
  onForm: (form: Traced) => void;
  /** The smooth outline as the craft draws it, (half width, height). */
  curve: [number, number][];
}) {
  const [line, setLine] = useState<Line>("front");
  const [focused, setFocused] = useState<number | null>(null);
  const [past, setPast] = useState<Traced[]>([]);
  const [length, setLength] = useState<[Handle, Handle] | null>(null);
  const [measuring, setMeasuring] = useState(false);
  const change = (next: Traced) => {
    if (next === form) return;
    setPast((p) => [...p.slice(-60), form]);
    onForm(next);
  };
  const back = () => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    onForm(last);
  };
  const sided = form.side.length > 0;
  const shown: Line = sided ? line : "front";
  const measured = length && Math.hypot(length[0][0] - length[1][0], length[0][1] - length[1][1]);
  return (
    <div className="mt-2 flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Check
          label="own side outline"
          checked={sided}
          onChecked={(on) => change({ ...form, side: on ? form.front : [] })}
        />
        {sided && (
          <span role="group" aria-label="Outline" className="flex gap-1">
            {(["front", "side"] as const).map((l) => (
              <Button
                key={l}
                weight="quiet"
                className="px-2 py-0.5 text-sm"
                aria-pressed={shown === l}
                onClick={() => setLine(l)}
              >
                {l}
              </Button>
            ))}
          </span>
        )}
      </div>
      <Board
        design={design}
        form={form}
        line={shown}
        curve={shown === "front" ? curve : []}
        focused={focused}
        onFocus={setFocused}
        onForm={change}
        onBack={back}
        measuring={measuring}
        length={length}
        onLength={setLength}
      />
      <div className="flex flex-wrap gap-1">
        <IconButton label="Undo the last handle" disabled={!past.length} onClick={back}>
          <Undo2 size={16} />
        </IconButton>
        <IconButton label="Add a handle" onClick={() => change(added(form, shown, focused ?? 1))}>
          <Plus size={16} />
        </IconButton>
        <IconButton
          label="Remove the handle"
          disabled={focused === null}
          onClick={() => focused !== null && change(without(form, shown, focused))}
        >
          <Minus size={16} />
        </IconButton>
        <Button
          weight="quiet"
          className="px-2 py-0.5 text-sm"
          aria-pressed={measuring}
          onClick={() => {
            setMeasuring(!measuring);
            setLength(null);
          }}
        >
          <Ruler size={16} aria-hidden /> Set the scale
        </Button>
      </div>
      {measuring && (
        <p className="text-sm text-soft" role="status">
          {measured ? "How long is that, really?" : "Drag along a length that you know."}
        </p>
      )}
      <div className="grid grid-cols-2 gap-2">
        {measuring && measured ? (
          <NumberField
            label="That length is"
            unit="mm"
            least={1}
            most={1500}
            value={Math.round(measured)}
            onValue={(mm) => {
              if (!mm || mm === Math.round(measured)) return;
              change(scaled(form, mm / measured));
              setLength(null);
              setMeasuring(false);
            }}
          />
        ) : (
          <NumberField
            label="Height"
            unit="mm"
            least={10}
            most={1500}
            value={Math.round(tallOf(form.front))}
            onValue={(mm) => mm && change(scaled(form, mm / tallOf(form.front)))}
          />
        )}
        <NumberField
          label="Leans forward by"
          unit="mm"
          least={-500}
          most={500}
          value={form.axis.at(-1)?.[0] ?? 0}
          onValue={(mm) => change({ ...form, axis: leaning(form, mm ?? 0) })}
          hint="at its end; backwards is negative"
        />
      </div>
      <Check label="Open at the end" checked={form.open} onChecked={(open) => change(opened(form, open))} />
      <TracePicture design={design} form={form} onForm={change} />
    </div>
  );
}

/** The axis as an even arc up to the end. */
function leaning(form: Traced, by: number): Handle[] {
  const tall = tallOf(form.front);
  return by
    ? [
        [0, 0],
        [Math.round(by * 0.3 * 10) / 10, Math.round(tall / 2)],
        [by, Math.round(tall)],
      ]
    : [];
}

/** With its end opened to a third of its width, or put on the axis again. */
function opened(form: Traced, open: boolean): Traced {
  const end = (handles: Handle[]): Handle[] => {
    const widest = Math.max(...handles.map((h) => h[0]), 3);
    return handles.map((h, i) => (i === handles.length - 1 ? [open ? Math.round(widest / 3) : 0, h[1]] : h));
  };
  return { ...form, open, front: end(form.front), side: form.side.length ? end(form.side) : [] };
}

function Board({
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
