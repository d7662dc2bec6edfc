/** What is looked for on the shelf of pieces. */
import { NumberField, SelectField, TextField } from "../ui/controls";
import { SLOTS, type Wanted } from "./pieces";

const MAY = [
  ["", "Any terms"],
  ["change", "May be changed"],
  ["sell", "Makes may be sold"],
  ["rounds", "Rounds may be published"],
] as const;

export function FindPiece({ wanted, onWanted }: { wanted: Wanted; onWanted: (wanted: Wanted) => void }) {
  const set = (more: Partial<Wanted>) => onWanted({ ...wanted, ...more });
  return (
    <search className="mb-4 grid grid-cols-2 items-start gap-3 md:grid-cols-5" aria-label="Find a piece">
      <TextField label="Words" value={wanted.words} onChange={(e) => set({ words: e.target.value })} />
      <SelectField
        label="Where it belongs"
        value={wanted.slot}
        onValue={(slot) => set({ slot })}
        options={[["", "Anywhere"], ...SLOTS]}
      />
      <NumberField
        label="Stitches of an open end"
        value={wanted.count}
        onValue={(count) => set({ count })}
        least={1}
        most={2000}
        optional
      />
      <NumberField
        label="Around an open end"
        unit="mm"
        value={wanted.girth}
        onValue={(girth) => set({ girth })}
        least={1}
        most={10000}
        optional
      />
      <SelectField label="Terms" value={wanted.may} onValue={(may) => set({ may })} options={MAY} />
    </search>
  );
}
