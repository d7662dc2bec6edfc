/** Points and lines to embroider: nose, mouth, brows. */
import { Crosshair, X } from "lucide-react";
import { type Design, newKey } from "../design/design";
import {
  Button,
  Check,
  Field,
  FoldedPanel,
  IconButton,
  NumberField,
  SelectField,
  TextField,
} from "../ui/controls";

type Page = Design["assembly"];
type Mark = NonNullable<Page["marks"]>[number];

export function Face({
  design,
  value,
  change,
  aimed,
  onAim,
}: {
  design: Design;
  value: Page;
  change: (page: Page) => void;
  aimed: string | null;
  onAim: (key: string) => void;
}) {
  const marks = value.marks ?? [];
  const put = (next: Mark[]) => change({ ...value, marks: next });
  const first = value.eyes?.part ?? design.parts[0]?.key;
  return (
    <FoldedPanel
      className="mb-3"
      title="Face"
      said={marks.map((m) => m.name).join(", ") || "nothing embroidered yet"}
      folded={marks.length > 0}
    >
      {marks.map((mark, i) => (
        <Point
          key={mark.key}
          design={design}
          mark={mark}
          number={i + 1}
          set={(part) => put(marks.map((m) => (m.key === mark.key ? { ...m, ...part } : m)))}
          aimed={aimed === mark.key}
          onAim={() => onAim(mark.key)}
          onRemove={() => put(marks.filter((m) => m !== mark))}
        />
      ))}
      <div className="flex flex-wrap gap-2">
        {FRESH.map(({ words, ...mark }) => (
          <Button
            key={words}
            disabled={!first}
            onClick={() => first && put([...marks, { ...BLANK, ...mark, key: newKey(), part: first }])}
          >
            {words}
          </Button>
        ))}
      </div>
    </FoldedPanel>
  );
}

const BLANK = { round: 5, stitch: 0, paired: false, to_round: null, to_stitch: 0 } as const;

/** What a face is made of, as it is added. */
const FRESH = [
  { words: "Add a point to embroider", name: "nose" },
  { words: "Add satin stitch", name: "muzzle", wide_mm: 8, tall_mm: 5 },
  { words: "Add felt", name: "patch", made_of: "felt", wide_mm: 20, tall_mm: 14 },
  { words: "Add cheeks", name: "cheeks", made_of: "blush", wide_mm: 9, tall_mm: 7, paired: true, stitch: 5 },
] as const satisfies readonly (Partial<Mark> & { words: string; name: string })[];

/** One point, and where its line ends if it is one. */
function Point({
  design,
  mark,
  number,
  set,
  aimed,
  onAim,
  onRemove,
}: {
  design: Design;
  mark: Mark;
  number: number;
  set: (part: Partial<Mark>) => void;
  aimed: boolean;
  onAim: () => void;
  onRemove: () => void;
}) {
  return (
    <div className="mb-2 flex flex-wrap items-end gap-2 border-b border-line pb-2">
      <TextField
        label={`Point ${number}`}
        value={mark.name}
        maxLength={60}
        onChange={(e) => set({ name: e.target.value })}
      />
      <SelectField
        label="on the part"
        value={mark.part}
        onValue={(part) => set({ part })}
        options={design.parts.map((p) => [p.key, p.name] as const)}
      />
      <NumberField
        label="at round"
        className="w-24"
        least={1}
        most={2000}
        value={mark.round}
        onValue={(round) => round && set({ round })}
      />
      <Across label="from the front" value={mark.stitch ?? 0} onValue={(stitch) => set({ stitch })} />
      <Oval mark={mark} set={set} />
      {!mark.wide_mm && (
        <NumberField
          label="line to round"
          className="w-28"
          least={1}
          most={2000}
          optional
          value={mark.to_round ?? null}
          onValue={(to_round) => set({ to_round })}
        />
      )}
      {mark.to_round != null && (
        <Across
          label="and from the front"
          value={mark.to_stitch ?? 0}
          onValue={(to_stitch) => set({ to_stitch })}
        />
      )}
      <Check label="both sides" checked={mark.paired ?? false} onChecked={(paired) => set({ paired })} />
      <Button aria-pressed={aimed} onClick={onAim}>
        <Crosshair size={16} aria-hidden /> Point
      </Button>
      <IconButton label={`Remove point ${number}`} onClick={onRemove}>
        <X size={16} />
      </IconButton>
    </div>
  );
}

const MADE_OF = [
  ["thread", "thread"],
  ["felt", "felt"],
  ["blush", "brushed on"],
] as const;

/** What it is made of, and the oval that it covers, measured over the fabric. */
function Oval({ mark, set }: { mark: Mark; set: (part: Partial<Mark>) => void }) {
  const made = mark.made_of ?? "thread";
  const wide = mark.wide_mm ?? 0;
  const tall = mark.tall_mm ?? 0;
  const sized = wide > 0;
  return (
    <>
      <SelectField
        label="made of"
        value={made}
        onValue={(next) =>
          set({
            made_of: next as Mark["made_of"],
            ...(next !== "thread" && !sized ? { wide_mm: 10, tall_mm: 8, to_round: null } : {}),
          })
        }
        options={MADE_OF}
      />
      {sized && (
        <>
          <NumberField
            label="wide"
            className="w-24"
            unit="mm"
            least={1}
            most={300}
            step={0.5}
            value={wide}
            onValue={(wide_mm) => wide_mm && set({ wide_mm })}
          />
          <NumberField
            label="tall"
            className="w-24"
            unit="mm"
            least={1}
            most={300}
            step={0.5}
            value={tall}
            onValue={(tall_mm) => tall_mm && set({ tall_mm })}
          />
        </>
      )}
      <Field label="colour">
        {(ids) => (
          <input
            {...ids}
            type="color"
            className="h-9 w-14 rounded-md border border-strong bg-panel"
            value={mark.colour ?? USUAL[made]}
            onChange={(e) => set({ colour: e.target.value })}
          />
        )}
      </Field>
    </>
  );
}

/** Colours of what has none of its own, as the pictures have them. */
const USUAL = { thread: "#2d2621", felt: "#7a4a3a", blush: "#d9776b" } as const;

function Across({
  label,
  value,
  onValue,
}: {
  label: string;
  value: number;
  onValue: (stitch: number) => void;
}) {
  return (
    <NumberField
      label={label}
      className="w-32"
      unit="sts"
      least={-2000}
      most={2000}
      step={0.5}
      value={value}
      onValue={(stitch) => onValue(stitch ?? 0)}
    />
  );
}
