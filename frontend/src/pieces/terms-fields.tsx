/** What a designer allows, as plain choices. */
import type { Schemas } from "../api/client";
import { Check, SelectField, TextField } from "../ui/controls";

export type Permissions = Required<Schemas["PermissionsEntry"]>;

export const USUAL: Permissions = {
  change: true,
  selling: "credited",
  rounds: false,
  difference: true,
  alike: false,
  credit: "",
  words: "",
};

const SELLING = [
  ["yes", "may be sold"],
  ["credited", "may be sold with credit"],
  ["ask", "may be sold when the designer is asked"],
  ["no", "may not be sold"],
] as const;

export function TermsFields({
  value,
  onValue,
}: {
  value: Permissions;
  onValue: (value: Permissions) => void;
}) {
  const set = (more: Partial<Permissions>) => onValue({ ...value, ...more });
  return (
    <fieldset className="flex flex-col gap-2 rounded border border-line p-3">
      <legend className="px-1">Terms</legend>
      <Check label="May be changed" checked={value.change} onChecked={(change) => set({ change })} />
      <Check
        label="Its rounds may be published again"
        checked={value.rounds}
        onChecked={(rounds) => set({ rounds })}
      />
      <Check
        label="Changes to it may be published without its rounds"
        checked={value.difference}
        onChecked={(difference) => set({ difference })}
      />
      <Check
        label="What is made of it is passed on under the same terms"
        checked={value.alike}
        onChecked={(alike) => set({ alike })}
      />
      <SelectField
        label="What is made from it"
        value={value.selling}
        onValue={(selling) => set({ selling })}
        options={SELLING}
      />
      <TextField
        label="Line of credit"
        value={value.credit}
        maxLength={500}
        onChange={(e) => set({ credit: e.target.value })}
      />
      <TextField
        label="In your own words"
        value={value.words}
        maxLength={500}
        onChange={(e) => set({ words: e.target.value })}
      />
      <p className="text-sm text-soft">Plain choices, not legal advice.</p>
    </fieldset>
  );
}
