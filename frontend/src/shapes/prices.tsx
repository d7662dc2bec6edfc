/** How simple the rounds are to work, and what each way costs in mm. */
import { rounded } from "../ui/units";
import type { Shape } from "./question";
import type { Recipe } from "./recipe";

const PRICE_NAMES = { true: "True to the shape", balanced: "Balanced", easy: "Easy to work" };

export function Prices({
  shape,
  recipe,
  onSimplicity,
}: {
  shape: Shape;
  recipe: Recipe;
  onSimplicity: (simplicity: number) => void;
}) {
  const now = recipe.simplicity ?? shape.recipe.simplicity ?? 0;
  return (
    <div role="radiogroup" aria-label="Simplicity" className="mb-2 grid grid-cols-3 gap-1.5">
      {shape.prices.map((p) => (
        <label
          key={p.name}
          className={`flex cursor-pointer flex-col rounded-md border px-2 py-1 text-sm has-focus-visible:outline-2 has-focus-visible:outline-woad ${Math.abs(p.simplicity - now) < 0.01 ? "border-woad bg-woad-ground" : "border-line hover:bg-sunk"}`}
        >
          <input
            type="radio"
            name="simplicity"
            className="sr-only"
            checked={Math.abs(p.simplicity - now) < 0.01}
            onChange={() => onSimplicity(p.simplicity)}
          />
          <span className="font-semibold">{PRICE_NAMES[p.name as keyof typeof PRICE_NAMES]}</span>
          <span>
            {p.different} different rounds, {rounded(p.off_mm, 1)} mm off
          </span>
        </label>
      ))}
    </div>
  );
}
