/** Sketching for the brief: a sheet, a pen in a few inks, a rubber, a mirror; what is drawn becomes a reference picture. */
import { Eraser, Pencil, Redo2, Trash2, Undo2 } from "lucide-react";
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import { type Schemas, sentence } from "../api/client";
import { Button, Check, IconButton, SelectField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import {
  asPicture,
  changed,
  EMPTY,
  keep,
  kept,
  laidUnder,
  mirrored,
  outline,
  redone,
  rubbed,
  SHEET,
  type Sketch,
  type Stroke,
  undone,
} from "./strokes";
import { usePen } from "./use-pen";

type Picture = Schemas["PictureOut"];

const GRAPHITE = ["Graphite", "#3d3a36"] as const;
const NIBS = [
  ["4", "fine"],
  ["9", "middle"],
  ["24", "broad"],
] as const;
type Nib = (typeof NIBS)[number][0];
/** Units of the sheet around the rubber that it takes strokes in. */
const RUBBER = 10;

export function SketchDialog({
  design,
  yarns,
  pictures,
  onPicture,
  onClose,
}: {
  design: number;
  /** Names and colours of the figure's yarns, beside graphite. */
  yarns: readonly (readonly [name: string, colour: string])[];
  /** What may lie under the sheet. */
  pictures: readonly Picture[];
  /** Keeps the sketch; the dialog closes once it is kept. */
  onPicture: (file: File) => Promise<unknown>;
  onClose: () => void;
}) {
  const [sketch, setSketch] = useState<Sketch>(() => ({ ...EMPTY, strokes: kept(design) }));
  const [under, setUnder] = useState("");
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  const image = useRef<HTMLImageElement | null>(null);
  useEffect(() => keep(design, sketch.strokes), [design, sketch.strokes]);
  const below = pictures.find((p) => String(p.id) === under);
  const save = async () => {
    setBusy(true);
    try {
      await onPicture(await asPicture(sketch.strokes, below ? image.current : null));
      keep(design, []);
      onClose();
    } catch (e) {
      setRefused(sentence(e));
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      wide
      onOpen={(open) => !open && onClose()}
      title="Sketch"
      about="Draw with a pen, a mouse or a finger. It waits here on this device until it is kept as a picture."
    >
      <Sheet
        sketch={sketch}
        onSketch={setSketch}
        inks={[GRAPHITE, ...yarns]}
        under={below}
        onImage={(found) => {
          image.current = found;
        }}
      />
      {refused && (
        <p role="alert" className="mt-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
          {refused}
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-end justify-between gap-3">
        <SelectField
          label="Under the sheet"
          value={under}
          onValue={setUnder}
          options={[
            ["", "nothing"],
            ...pictures.map((p, i) => [String(p.id), `reference ${i + 1}`] as const),
          ]}
        />
        <span className="flex gap-2">
          <Button onClick={onClose}>Later</Button>
          <Button weight="main" disabled={busy || !sketch.strokes.length} onClick={save}>
            {busy ? "Keeping it …" : "Keep it as a picture"}
          </Button>
        </span>
      </div>
    </Dialog>
  );
}

function Sheet({
  sketch,
  onSketch,
  inks,
  under,
  onImage,
}: {
  sketch: Sketch;
  onSketch: (next: Sketch | ((now: Sketch) => Sketch)) => void;
  inks: readonly (readonly [string, string])[];
  under: Picture | undefined;
  onImage: (found: HTMLImageElement | null) => void;
}) {
  const [hand, setHand] = useState<Hand>({ tool: "pen", ink: GRAPHITE[1], nib: "9", mirror: false });
  const { ink, mirror } = hand;
  const draws = hand.tool === "pen";
  const size = Number(hand.nib);
  const pen = usePen(
    (at) => {
      if (!draws) onSketch((now) => changed(now, rubbed(now.strokes, at, RUBBER)));
    },
    (points, pressed) => {
      if (!draws) return;
      const stroke: Stroke = { ink, size, points, pressed };
      const more = mirror ? [stroke, mirrored(stroke)] : [stroke];
      onSketch((now) => changed(now, [...now.strokes, ...more]));
    },
  );
  const now: Stroke = { ink, size, points: pen.points, pressed: pen.pressed };
  const drawing = draws && pen.points.length > 0;
  const keys = (e: KeyboardEvent) => {
    if (!(e.ctrlKey || e.metaKey) || !["z", "y"].includes(e.key.toLowerCase())) return;
    e.preventDefault();
    e.stopPropagation();
    onSketch(e.shiftKey || e.key.toLowerCase() === "y" ? redone : undone);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: undo's keys are the whole sheet's
    <div onKeyDown={keys}>
      <Tools hand={hand} onHand={setHand} inks={inks} sketch={sketch} onSketch={onSketch} />
      <div
        className="relative mx-auto rounded-md border border-line bg-white"
        style={{ width: "min(100%, 74dvh)", aspectRatio: `${SHEET.wide} / ${SHEET.tall}` }}
      >
        {under && <Under picture={under} onImage={onImage} />}
        <svg
          viewBox={`0 0 ${SHEET.wide} ${SHEET.tall}`}
          className={`relative block size-full touch-none select-none ${draws ? "cursor-crosshair" : "cursor-cell"}`}
          role="application"
          aria-label="Sheet: the arrow keys move the pen, Space puts it down and lifts it"
          tabIndex={0}
          {...pen.on}
        >
          <title>{`${sketch.strokes.length} strokes`}</title>
          {mirror && (
            <line
              x1={SHEET.wide / 2}
              x2={SHEET.wide / 2}
              y1={0}
              y2={SHEET.tall}
              stroke="#b9ab95"
              strokeDasharray="8 8"
            />
          )}
          <Strokes strokes={sketch.strokes} />
          {drawing && <path d={outline(now)} fill={ink} />}
          {drawing && mirror && <path d={outline(mirrored(now))} fill={ink} />}
          {pen.cursor && (
            <circle
              cx={pen.cursor.x}
              cy={pen.cursor.y}
              r={12}
              fill={pen.cursor.down ? ink : "none"}
              fillOpacity={0.5}
              stroke="#2b5f82"
              strokeWidth={3}
            />
          )}
        </svg>
      </div>
    </div>
  );
}

/** What she draws with. */
interface Hand {
  tool: "pen" | "rubber";
  ink: string;
  nib: Nib;
  /** Everything on both sides of the middle. */
  mirror: boolean;
}

function Tools({
  hand,
  onHand,
  inks,
  sketch,
  onSketch,
}: {
  hand: Hand;
  onHand: (next: Hand) => void;
  inks: readonly (readonly [string, string])[];
  sketch: Sketch;
  onSketch: (next: (now: Sketch) => Sketch) => void;
}) {
  const set = (more: Partial<Hand>) => onHand({ ...hand, ...more });
  const draws = hand.tool === "pen";
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2" role="toolbar" aria-label="Pen">
      <IconButton label="Pen" aria-pressed={draws} onClick={() => set({ tool: "pen" })}>
        <Pencil size={18} />
      </IconButton>
      <IconButton
        label="Rubber: takes whole strokes"
        aria-pressed={!draws}
        onClick={() => set({ tool: "rubber" })}
      >
        <Eraser size={18} />
      </IconButton>
      {inks.map(([name, colour]) => (
        <button
          key={`${name} ${colour}`}
          type="button"
          aria-label={`Ink ${name}`}
          title={name}
          aria-pressed={hand.ink === colour}
          onClick={() => set({ ink: colour, tool: "pen" })}
          className="size-7 rounded-full border-2 border-line aria-pressed:border-woad aria-pressed:outline-2 aria-pressed:outline-woad"
          style={{ background: colour }}
        />
      ))}
      {NIBS.map(([nib, name]) => (
        <Button key={nib} aria-pressed={hand.nib === nib} onClick={() => set({ nib })}>
          {name}
        </Button>
      ))}
      <Check label="both sides alike" checked={hand.mirror} onChecked={(mirror) => set({ mirror })} />
      <span className="ml-auto flex">
        <IconButton label="Take back" disabled={!sketch.before.length} onClick={() => onSketch(undone)}>
          <Undo2 size={18} />
        </IconButton>
        <IconButton label="Again" disabled={!sketch.after.length} onClick={() => onSketch(redone)}>
          <Redo2 size={18} />
        </IconButton>
        <IconButton
          label="Wipe the sheet"
          disabled={!sketch.strokes.length}
          onClick={() => onSketch((s) => changed(s, []))}
        >
          <Trash2 size={18} />
        </IconButton>
      </span>
    </div>
  );
}

function Strokes({ strokes }: { strokes: readonly Stroke[] }) {
  const drawn = useMemo(() => strokes.map((s) => [outline(s), s.ink] as const), [strokes]);
  return drawn.map(([d, ink], at) => <path key={at} d={d} fill={ink} />);
}

function Under({
  picture,
  onImage,
}: {
  picture: Picture;
  onImage: (found: HTMLImageElement | null) => void;
}) {
  const { x, y, wide, tall } = laidUnder(picture.width, picture.height);
  const percent = (v: number, of: number) => `${(v / of) * 100}%`;
  return (
    <img
      ref={onImage}
      src={picture.url}
      alt=""
      draggable={false}
      className="absolute opacity-60"
      style={{
        left: percent(x, SHEET.wide),
        top: percent(y, SHEET.tall),
        width: percent(wide, SHEET.wide),
        height: percent(tall, SHEET.tall),
      }}
    />
  );
}
