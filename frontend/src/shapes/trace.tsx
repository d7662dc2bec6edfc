/** A silhouette traced with a few handles, over a picture where there is one. By mouse, and by keys alone. */
import { Minus, Plus, Ruler, Undo2 } from "lucide-react";
import { useState } from "react";
import type { Design } from "../design/design";
import { Button, Check, IconButton, NumberField } from "../ui/controls";
import type { Handle, Traced } from "./recipe";
import { Section } from "./section";
import { Board } from "./trace-board";
import { TracePicture } from "./trace-picture";
import { added, type Line, scaled, tallOf, without } from "./trace-points";

type TraceProps = { form: Traced; onForm: (form: Traced) => void };

export function Trace({
  design,
  form,
  onForm,
  curve,
}: TraceProps & {
  design: Design;
  /** The smooth outline as the craft draws it, (half width, height). */
  curve: [number, number][];
}) {
  const [line, setLine] = useState<Line>("front");
  const [focused, setFocused] = useState<number | null>(null);
  const { change, back, any } = usePast(form, onForm);
  const ruler = useRuler();
  const shown: Line = form.side.length ? line : "front";
  return (
    <div className="mt-2 flex flex-col gap-2">
      <Lines form={form} onForm={change} shown={shown} onShown={setLine} />
      <Section form={form} onForm={change} />
      <Board
        design={design}
        form={form}
        line={shown}
        curve={shown === "front" ? curve : []}
        focused={focused}
        onFocus={setFocused}
        onForm={change}
        onBack={back}
        measuring={ruler.measuring}
        length={ruler.length}
        onLength={ruler.setLength}
      />
      <div className="flex flex-wrap gap-1">
        <IconButton label="Undo the last handle" disabled={!any} onClick={back}>
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
          aria-pressed={ruler.measuring}
          onClick={ruler.toggle}
        >
          <Ruler size={16} aria-hidden /> Set the scale
        </Button>
      </div>
      <TraceSizes form={form} onForm={change} ruler={ruler} />
      <Check label="Open at the end" checked={form.open} onChecked={(open) => change(opened(form, open))} />
      <TracePicture design={design} form={form} onForm={change} />
    </div>
  );
}

/** Changes of the outline that can be taken back one by one. */
function usePast(form: Traced, onForm: (form: Traced) => void) {
  const [past, setPast] = useState<Traced[]>([]);
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
  return { change, back, any: past.length > 0 };
}

/** A length drawn on the board, to say how long it really is. */
function useRuler() {
  const [length, setLength] = useState<[Handle, Handle] | null>(null);
  const [measuring, setMeasuring] = useState(false);
  const measured = length && Math.hypot(length[0][0] - length[1][0], length[0][1] - length[1][1]);
  const toggle = () => {
    setMeasuring(!measuring);
    setLength(null);
  };
  return { length, setLength, measuring, measured, toggle };
}

/** Whether the outline has a side of its own, and which of the two is drawn. */
function Lines({
  form,
  onForm,
  shown,
  onShown,
}: TraceProps & { shown: Line; onShown: (line: Line) => void }) {
  const sided = form.side.length > 0;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <Check
        label="own side outline"
        checked={sided}
        onChecked={(on) => onForm({ ...form, side: on ? form.front : [] })}
      />
      {sided && (
        <span role="group" aria-label="Outline" className="flex gap-1">
          {(["front", "side"] as const).map((l) => (
            <Button
              key={l}
              weight="quiet"
              className="px-2 py-0.5 text-sm"
              aria-pressed={shown === l}
              onClick={() => onShown(l)}
            >
              {l}
            </Button>
          ))}
        </span>
      )}
    </div>
  );
}

function TraceSizes({ form, onForm, ruler }: TraceProps & { ruler: ReturnType<typeof useRuler> }) {
  const { measuring, measured } = ruler;
  return (
    <>
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
            heard="leaving"
            onValue={(mm) => {
              if (!mm) return;
              onForm(scaled(form, mm / measured));
              ruler.toggle();
            }}
          />
        ) : (
          <NumberField
            label="Height"
            unit="mm"
            least={10}
            most={1500}
            value={Math.round(tallOf(form.front))}
            heard="leaving"
            onValue={(mm) => mm && onForm(scaled(form, mm / tallOf(form.front)))}
          />
        )}
        <NumberField
          label="Leans forward by"
          unit="mm"
          least={-500}
          most={500}
          value={form.axis.at(-1)?.[0] ?? 0}
          onValue={(mm) => onForm({ ...form, axis: leaning(form, mm ?? 0) })}
          hint="at its end; backwards is negative"
        />
      </div>
    </>
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
