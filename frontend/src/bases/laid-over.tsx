/** The settled shapes of two designs over each other, part by part, in colours of their distance. */
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Refused } from "../ui/refused";
import { type Against, useLaidOver } from "./ask";

const mm = (value: number) => `${value < 10 ? value.toFixed(1) : Math.round(value)} mm`;

function Shape({ part }: { part: Schemas["LaidOverOut"] }) {
  return (
    <figure className="flex w-56 flex-col gap-1">
      <img
        alt={`${part.name} here, in colours of its distance from the other`}
        className="h-44 w-full object-contain"
        src={`data:image/svg+xml;utf8,${encodeURIComponent(part.picture)}`}
      />
      <figcaption className="text-sm">
        <b>{part.name}</b>: at most {mm(part.out_mm)} outside and {mm(part.in_mm)} inside, {mm(part.usual_mm)}{" "}
        in the mean. Colours end at {mm(part.reach_mm)}.
      </figcaption>
    </figure>
  );
}

export function LaidOver({ design, against }: { design: Design; against: Against | null }) {
  const found = useLaidOver(design, against);
  const { under_way: waits = 0, parts = [] } = found.data ?? {};
  const waiting = found.isPending || waits > 0;
  return (
    <section aria-label="Settled shapes" aria-busy={waiting}>
      <h2 className="text-lg">Settled shapes</h2>
      <Refused error={found.error} />
      <p role="status" className="text-sm text-soft">
        {waiting && "Settling the parts of both …"}
        {!waiting && !parts.length && "No part that both have settles otherwise."}
        {parts.length > 0 &&
          "As they are here, both standing on their first round: blue lies inside that one, ochre outside, pale where they agree."}
      </p>
      <div className="flex flex-wrap gap-4 pt-2">
        {parts.map((part) => (
          <Shape key={part.key} part={part} />
        ))}
      </div>
    </section>
  );
}
