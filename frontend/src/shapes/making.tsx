/** How a shape is worked: its start, its shaping. */
import { Check, NumberField, SelectField } from "../ui/controls";
import type { Recipe } from "./recipe";

/** How the shape is worked: its start, its shaping. */
export function Making({
  recipe,
  onRecipe,
  start,
}: {
  recipe: Recipe;
  onRecipe: (r: Recipe) => void;
  start: number;
}) {
  const set = (part: Partial<Recipe>) => onRecipe({ ...recipe, ...part });
  const { shaping = {} } = recipe;
  const lay = (part: typeof shaping) => set({ shaping: { ...shaping, ...part } });
  return (
    <div className="mt-3 grid grid-cols-2 gap-2 border-t border-line pt-2">
      <NumberField
        label="Start on"
        unit="sts"
        optional
        least={3}
        most={60}
        value={recipe.start || null}
        onValue={(n) => set({ start: n ?? 0 })}
        hint={recipe.start ? "Empty lets the shape choose." : `The shape chooses ${start}.`}
      />
      <SelectField
        label="Start with"
        value={recipe.start_kind ?? "ring"}
        onValue={(start_kind) => set({ start_kind })}
        options={[
          ["ring", "a ring"],
          ["chain2", "chain 2"],
        ]}
      />
      <SelectField
        label="Decrease with"
        value={shaping.decrease ?? "dec"}
        onValue={(decrease) => lay({ decrease })}
        options={[
          ["dec", "dec"],
          ["invdec", "inv dec"],
        ]}
      />
      <SelectField
        label="Filling"
        value={!recipe.empty ? "stuffed" : recipe.one_layer ? "one" : "two"}
        onValue={(filling) =>
          set({
            empty: filling !== "stuffed",
            one_layer: filling === "one",
            ...(filling === "stuffed" ? {} : { threads: [] }),
          })
        }
        options={[
          ["stuffed", "stuffed"],
          ["two", "flat, two layers"],
          ["one", "flat, one layer in rows"],
        ]}
      />
      <div className="flex flex-col gap-1 self-end">
        <Check
          label="Stacked increases"
          checked={shaping.stacked ?? false}
          onChecked={(stacked) => lay({ stacked })}
        />
        <Check
          label="Increase first"
          checked={shaping.first ?? false}
          onChecked={(first) => lay({ first })}
        />
      </div>
    </div>
  );
}
