/** The settled figure of a part as it is written and as it was made, side by side. */
import { useState } from "react";
import { FigureNow } from "../making/figure-now";
import { Button } from "../ui/controls";
import { Refused } from "../ui/refused";
import { type Summary, useAsMade } from "./use-proving";

export function BothFigures({ design, one }: { design: number; one: Summary }) {
  const [open, setOpen] = useState(false);
  const both = useAsMade(design, one.id, open);
  const parts = [...new Map(one.parts.filter((p) => p.did.length > 0).map((p) => [p.part, p])).values()];
  if (parts.length === 0) return null;
  const settling = !both.data?.says.whole || !both.data.did.whole;
  return (
    <section aria-label={`Figures of ${one.title}`} className="mt-2">
      <Button aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Without the figures" : "The figures, as written and as made"}
      </Button>
      {open && (
        <>
          <Refused error={both.error} />
          <p role="status" className="text-sm text-soft">
            {settling && !both.error ? "Settling …" : ""}
          </p>
          <ul className="flex flex-wrap gap-6">
            {parts.map((p) => (
              <li key={p.part} className="flex gap-3 text-center text-sm">
                {(["says", "did"] as const).map((which) => {
                  const stages = both.data?.[which].parts[p.part];
                  const name = which === "says" ? `${p.name} as written` : `${p.name} as made`;
                  return (
                    <figure key={which} className="w-36">
                      {stages && (
                        <div className="h-52">
                          <FigureNow stages={stages} done={ALL} all={ALL} label={name} />
                        </div>
                      )}
                      <figcaption>{name}</figcaption>
                    </figure>
                  );
                })}
              </li>
            ))}
          </ul>
          {both.data?.left.map((line) => (
            <p key={line} className="border-l-4 border-weld bg-weld-ground px-2 text-sm">
              Not in the figure: {line}
            </p>
          ))}
        </>
      )}
    </section>
  );
}

/** All rounds of it. */
const ALL = 1_000_000;
