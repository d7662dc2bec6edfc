/** Testers: who makes it from the draft, how far she is, and what she says. */
import { X } from "lucide-react";
import { Button, Field, IconButton, inputClass, Panel, SelectField, TextField } from "../ui/controls";
import type { Change, Tester } from "./use-rows";

const STATES = [
  ["asked", "asked"],
  ["making", "making"],
  ["done", "done"],
] as const;

function Row({
  tester,
  number,
  onChange,
}: {
  tester: Tester;
  number: number;
  onChange: (value: Omit<Tester, "id"> | null) => void;
}) {
  const { id: _, ...now } = tester;
  const set = (part: Partial<Tester>) => onChange({ ...now, ...part });
  return (
    <li className="grid items-start gap-2 md:grid-cols-[1fr_1fr_9rem_2fr_auto]">
      <TextField
        label={`Tester ${number}`}
        maxLength={120}
        value={now.name}
        onChange={(e) => set({ name: e.target.value })}
      />
      <TextField
        label="Yarn used"
        maxLength={120}
        value={now.yarn}
        onChange={(e) => set({ yarn: e.target.value })}
      />
      <SelectField label="State" value={now.state} onValue={(state) => set({ state })} options={STATES} />
      <Field label="Remarks">
        {(ids) => (
          <textarea
            {...ids}
            className={inputClass}
            rows={1}
            maxLength={5000}
            value={now.remarks}
            onChange={(e) => set({ remarks: e.target.value })}
          />
        )}
      </Field>
      <IconButton label={`Remove tester ${number}`} className="mt-6" onClick={() => onChange(null)}>
        <X size={16} />
      </IconButton>
    </li>
  );
}

export function Testers({ testers, onChange }: { testers: Tester[]; onChange: (change: Change) => void }) {
  return (
    <Panel
      className="lg:col-span-2"
      title="Testers"
      aside={
        <Button
          onClick={() =>
            onChange({
              row: "testers",
              id: crypto.randomUUID(),
              value: { name: "", yarn: "", state: "asked", remarks: "" },
            })
          }
        >
          Add a tester
        </Button>
      }
    >
      {!testers.length && (
        <p className="text-soft">
          Testers make it from the draft, each in her own yarn, and tell what was unclear. About a month is
          usual.
        </p>
      )}
      <ul className="flex flex-col gap-3">
        {testers.map((tester, i) => (
          <Row
            key={tester.id}
            tester={tester}
            number={i + 1}
            onChange={(value) => onChange({ row: "testers", id: tester.id, value })}
          />
        ))}
      </ul>
    </Panel>
  );
}
