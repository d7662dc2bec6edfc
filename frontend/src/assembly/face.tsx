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
  const set = (key: string, part: Partial<Mark>) =>
    change({ ...value, marks: marks.map((m) => (m.key === key ? { ...m, ...part } : m)) });
  const first = value.eyes?.part ?? design.parts[0]?.key;
  return (
    <Panel className="mb-3" title="Face">
      {marks.map((mark, i) => (
        <div key={mark.key} className="mb-2 flex flex-wrap items-end gap-2 border-b border-line pb-2">
          <TextField
            label={`Point ${i + 1}`}
            value={mark.name}
            maxLength={60}
            onChange={(e) => set(mark.key, { name: e.target.value })}
          />
          <SelectField
            label="on the part"
            value={mark.part}
            onValue={(part) => set(mark.key, { part })}
            options={design.parts.map((p) => [p.key, p.name] as const)}
          />
          <NumberField
            label="at round"
            className="w-24"
            least={1}
            most={2000}
            value={mark.round}
            onValue={(round) => round && set(mark.key, { round })}
          />
          <NumberField
            label="from the front"
            className="w-28"
            unit="sts"
            least={-2000}
            most={2000}
            step={0.5}
            value={mark.stitch ?? 0}
            onValue={(stitch) => set(mark.key, { stitch: stitch ?? 0 })}
          />
          <NumberField
            label="line to round"
            className="w-28"
            least={1}
            most={2000}
            optional
            value={mark.to_round ?? null}
            onValue={(to_round) => set(mark.key, { to_round })}
          />
          {mark.to_round != null && (
            <NumberField
              label="and from the front"
              className="w-32"
              unit="sts"
              least={-2000}
              most={2000}
              step={0.5}
              value={mark.to_stitch ?? 0}
              onValue={(to_stitch) => set(mark.key, { to_stitch: to_stitch ?? 0 })}
            />
          )}
          <Check
            label="both sides"
            checked={mark.paired ?? false}
            onChecked={(paired) => set(mark.key, { paired })}
          />
          <Button aria-pressed={aimed === mark.key} onClick={() => onAim(mark.key)}>
            <Crosshair size={16} aria-hidden /> Point
          </Button>
          <IconButton
            label={`Remove point ${i + 1}`}
            onClick={() => change({ ...value, marks: marks.filter((m) => m !== mark) })}
          >
            <X size={16} />
          </IconButton>
        </div>
      ))}
      <Button
        disabled={!first}
        onClick={() =>
          first &&
          change({
            ...value,
            marks: [
              ...marks,
              {
                key: newKey(),
                name: "nose",
                part: first,
                round: 5,
                stitch: 0,
                paired: false,
                to_round: null,
                to_stitch: 0,
              },
            ],
          })
        }
      >
        Add a point to embroider
      </Button>
    </Panel>
  );
}
