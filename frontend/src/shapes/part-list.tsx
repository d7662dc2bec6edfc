/** The parts of the design, and the place of a new one. */
import type { Design } from "../design/design";

export function PartList({
  design,
  chosen,
  onChosen,
}: {
  design: Design;
  chosen: string | null;
  onChosen: (key: string | null) => void;
}) {
  return (
    <nav aria-label="Parts" className="flex flex-col gap-1">
      {design.parts.map((p) => (
        <button
          key={p.key}
          type="button"
          aria-current={p.key === chosen}
          onClick={() => onChosen(p.key)}
          className={`rounded-md border px-2.5 py-1.5 text-left ${p.key === chosen ? "border-woad bg-woad-ground font-semibold" : "border-line bg-panel hover:bg-sunk"}`}
        >
          {p.name}
          {p.make > 1 && ` × ${p.make}`}
          <span className="block text-sm font-normal text-soft">
            {p.counts.length} rounds
            {p.authoritative ? ", from its shape" : p.recipe ? ", edited by hand" : ", written by hand"}
          </span>
        </button>
      ))}
      <button
        type="button"
        aria-current={chosen === null}
        onClick={() => onChosen(null)}
        className={`rounded-md border border-dashed px-2.5 py-1.5 text-left ${chosen === null ? "border-woad bg-woad-ground font-semibold" : "border-strong hover:bg-sunk"}`}
      >
        + A new part
      </button>
    </nav>
  );
}
