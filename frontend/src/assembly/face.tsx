/** Points and lines to embroider: nose, mouth, brows. */
import { Crosshair, X } from "lucide-react";
import { type Design, newKey } from "../design/design";
import { Button, Check, IconButton, NumberField, Panel, SelectField, TextField } from "../ui/controls";

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
    <Panel className="mb-3" title="Face">
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
      <Button disabled={!first} onClick={() => first && put([...marks, nose(first)])}>
        Add a point to embroider
      </Button>
    </Panel>
  );
}

function nose(part: string): Mark {
  return {
    key: newKey(),
    name: "nose",
    part,
    round: 5,
    stitch: 0,
    paired: false,
    to_round: null,
    to_stitch: 0,
  };
}

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
      <NumberField
        label="line to round"
        className="w-28"
        least={1}
        most={2000}
        optional
        value={mark.to_round ?? null}
        onValue={(to_round) => set({ to_round })}
      />
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
