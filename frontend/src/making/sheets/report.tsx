/** A tester's report on the whole: yarn, hook, gauge, size, time, and what she allows. */
import { useState } from "react";
import type { SheetProps } from "../menu";
import { boxClass, Labelled, mainClass, numberIn, Sheet } from "../parts";
import { inOrder } from "../progress";
import type { What } from "../types";

type Said = Extract<What, { kind: "report" }>;
type Typed = {
  [K in "yarn" | "size" | "text" | "named" | "weight" | "hook_mm" | "across" | "up" | "hours"]: string;
} & {
  pictures: boolean;
};

const EMPTY: Typed = {
  yarn: "",
  size: "",
  text: "",
  named: "",
  weight: "",
  hook_mm: "",
  across: "",
  up: "",
  hours: "",
  pictures: false,
};

function typedOf(last: Said | undefined): Typed {
  if (!last) return EMPTY;
  const number = (n: number | null | undefined) => (n ? String(n) : "");
  return {
    yarn: last.yarn ?? "",
    size: last.size ?? "",
    text: last.text ?? "",
    named: last.named ?? "",
    weight: last.weight === null || last.weight === undefined ? "" : String(last.weight),
    hook_mm: number(last.hook_mm),
    across: number(last.across),
    up: number(last.up),
    hours: number(last.minutes ? last.minutes / 60 : 0),
    pictures: last.pictures ?? false,
  };
}

const FIELDS = [
  ["yarn", "Yarn that you used", 120, null],
  ["weight", "Its class, 0 (lace) to 7 (jumbo)", 4, [0, 7]],
  ["hook_mm", "Hook, mm", 6, [0.4, 40]],
  ["across", "Stitches to 10 cm", 6, [1, 200]],
  ["up", "Rounds to 10 cm", 6, [1, 200]],
  ["size", "How large it became", 80, null],
  ["hours", "Hours it took", 8, [0.1, 10_000]],
  ["named", "Name to thank you by in the pattern (leave empty for none)", 120, null],
] as const;

export function Report({ state, onClose }: SheetProps) {
  const last = inOrder(state.events)
    .filter((e) => e.kind === "report")
    .at(-1);
  const [typed, setTyped] = useState<Typed>(() => typedOf(last?.kind === "report" ? last : undefined));
  const set = (change: Partial<Typed>) => setTyped((had) => ({ ...had, ...change }));
  const wrong = FIELDS.filter(
    ([key, , , range]) =>
      range && typed[key].trim() !== "" && numberIn(typed[key], range[0], range[1]) === null,
  );
  const keep = async () => {
    const n = (key: "weight" | "hook_mm" | "across" | "up" | "hours") => numberIn(typed[key], 0, 10_000);
    const weight = n("weight");
    const said = await state.say({
      kind: "report",
      yarn: typed.yarn.trim(),
      weight: weight === null ? null : Math.round(weight),
      hook_mm: n("hook_mm") ?? 0,
      across: n("across") ?? 0,
      up: n("up") ?? 0,
      size: typed.size.trim(),
      minutes: (n("hours") ?? 0) * 60,
      text: typed.text.trim(),
      pictures: typed.pictures,
      named: typed.named.trim(),
    });
    if (said) onClose();
  };
  return (
    <Sheet title="Report" onClose={onClose}>
      <div className="flex flex-col gap-3">
        {FIELDS.map(([key, label, most, range]) => (
          <div key={key}>
            <Labelled label={label}>
              {(id) => (
                <input
                  id={id}
                  className={boxClass}
                  maxLength={most}
                  inputMode={range ? "decimal" : "text"}
                  aria-invalid={wrong.some(([w]) => w === key)}
                  value={typed[key]}
                  onChange={(e) => set({ [key]: e.target.value })}
                />
              )}
            </Labelled>
            {range && wrong.some(([w]) => w === key) && (
              <p role="alert" className="text-sm">
                A number from {range[0]} to {range[1]}.
              </p>
            )}
          </div>
        ))}
        <Labelled label="What you would tell the designer">
          {(id) => (
            <textarea
              id={id}
              className={boxClass}
              rows={4}
              maxLength={2000}
              value={typed.text}
              onChange={(e) => set({ text: e.target.value })}
            />
          )}
        </Labelled>
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={typed.pictures}
            onChange={(e) => set({ pictures: e.target.checked })}
          />
          My photographs may be shown
        </label>
        <button type="button" className={mainClass} disabled={wrong.length > 0} onClick={() => void keep()}>
          Send the report
        </button>
      </div>
    </Sheet>
  );
}
