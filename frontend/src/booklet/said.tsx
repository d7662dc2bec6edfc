/** What the booklet says beside the rounds. */
import type { Design } from "../design/design";
import { Check, Field, FoldedPanel, inputClass, TextField } from "../ui/controls";

export type Page = Design["booklet"];

const PROSE = [
  ["notes", "Notes for the maker"],
  ["permissions", "Permissions"],
  ["credits", "Credits"],
  ["changes", "Changes since the first version"],
] as const;

export function Said({ value, set }: { value: Page; set: (part: Partial<Page>) => void }) {
  return (
    <FoldedPanel title="What it says" said="version, notes, permissions, credits" folded={false}>
      <div className="flex flex-col gap-3">
        <TextField
          label="Version"
          maxLength={120}
          value={value.version ?? ""}
          onChange={(e) => set({ version: e.target.value })}
        />
        <Check
          label="Count table after each part"
          checked={value.count_table ?? false}
          onChecked={(count_table) => set({ count_table })}
        />
        <Check
          label="Chart of each part"
          checked={value.charts ?? false}
          onChecked={(charts) => set({ charts })}
        />
        <TextField
          label="Also needed"
          maxLength={500}
          value={value.notions ?? ""}
          onChange={(e) => set({ notions: e.target.value })}
          hint="Separated by commas."
        />
        {PROSE.map(([name, label]) => (
          <Field key={name} label={label}>
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-16`}
                maxLength={5000}
                value={value[name] ?? ""}
                onChange={(e) => set({ [name]: e.target.value })}
              />
            )}
          </Field>
        ))}
      </div>
    </FoldedPanel>
  );
}
