/** Which base a shape has: a solid, a traced outline, a stack, a mesh. */
import type { Base, Recipe } from "./recipe";
import { KINDS, type Kind, OTHER_BASES } from "./silhouettes";

export function BaseChoice({
  recipe,
  choosing,
  onBase,
}: {
  recipe: Recipe;
  choosing: boolean;
  onBase: (base: Base, kind?: Kind) => void;
}) {
  const now = choosing ? "mesh" : recipe.form.base;
  const all = [
    ...KINDS.map((k) => ({
      ...k,
      base: "solid" as const,
      chosen: now === "solid" && recipe.form.base === "solid" && k.kind === recipe.form.kind,
    })),
    ...OTHER_BASES.map((b) => ({ ...b, kind: undefined, chosen: now === b.base })),
  ];
  return (
    <div role="radiogroup" aria-label="Shape" className="grid grid-cols-4 gap-1">
      {all.map((k) => (
        <label
          key={k.name}
          title={`${k.name}: ${k.use}`}
          className={`flex cursor-pointer flex-col items-center rounded-md border p-1 text-sm has-focus-visible:outline-2 has-focus-visible:outline-woad ${k.chosen ? "border-woad bg-woad-ground" : "border-line hover:bg-sunk"}`}
        >
          <input
            type="radio"
            name="base"
            className="sr-only"
            checked={k.chosen}
            onChange={() => onBase(k.base, k.kind)}
          />
          <svg viewBox="0 0 40 40" className="size-8" aria-hidden="true">
            <path d={k.path} fill="var(--weld-ground)" stroke="var(--ink)" strokeWidth="1.6" />
          </svg>
          {k.name}
        </label>
      ))}
    </div>
  );
}
