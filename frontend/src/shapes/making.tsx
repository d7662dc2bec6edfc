/** A solid's sizes, and how a shape is worked. */
import { Check, NumberField, SelectField } from "../ui/controls";
import type { Recipe } from "./recipe";

export function SolidSizes({ recipe, onRecipe }: { recipe: Recipe; onRecipe: (r: Recipe) => void }) {
  const set = (part: Partial<Recipe>) => onRecipe({ ...recipe, ...part });
  const ball = recipe.kind === "sphere";
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <NumberField
        label="Width"
        unit="mm"
        least={5}
        most={600}
        value={recipe.width_mm}
        onValue={(n) => n && set({ width_mm: n, ...(ball ? { height_mm: n } : {}) })}
      />
      {!ball && (
        <NumberField
          label="Height"
          unit="mm"
          least={5}
          most={600}
          value={recipe.height_mm}
          onValue={(n) => n && set({ height_mm: n })}
        />
      )}
      {recipe.kind === "egg" && (
        <NumberField
          label="Pointed"
          unit="%"
          least={0}
          most={50}
          value={recipe.point * 100}
          onValue={(n) => set({ point: (n ?? 20) / 100 })}
        />
      )}
      <div className="col-span-2">
        <Check label="Open at the end" checked={recipe.open} onChecked={(open) => set({ open })} />
      </div>
      {recipe.open && ["sphere", "ellipsoid", "egg", "drop"].includes(recipe.kind) && (
        <NumberField
          className="col-span-2"
          label="Opening"
          unit="mm"
          optional
          least={5}
          most={600}
          value={recipe.opening_mm}
          onValue={(opening_mm) => set({ opening_mm })}
          hint="Empty leaves 40 % of the width, which carries a head."
        />
      )}
    </div>
  );
}

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
        value={recipe.start_kind}
        onValue={(start_kind) => set({ start_kind })}
        options={[
          ["ring", "a ring"],
          ["chain2", "chain 2"],
        ]}
      />
      <SelectField
        label="Decrease with"
        value={recipe.decrease}
        onValue={(decrease) => set({ decrease })}
        options={[
          ["dec", "dec"],
          ["invdec", "inv dec"],
        ]}
      />
      <div className="flex flex-col gap-1 self-end">
        <Check label="Stacked increases" checked={recipe.stacked} onChecked={(stacked) => set({ stacked })} />
        <Check label="Increase first" checked={recipe.first} onChecked={(first) => set({ first })} />
      </div>
    </div>
  );
}
