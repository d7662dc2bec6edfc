/** The rounds of a size beside those of the first one, part by part. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import { Button } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { PhaseLadders } from "./phases";

type Column = Schemas["SizeColumn"];

function Written({ name, text, other }: { name: string; text: string; other: string }) {
  const known = new Set(other.split("\n"));
  return (
    <section aria-label={name} className="min-w-0 rounded border border-line p-2">
      <h4 className="font-semibold">{name}</h4>
      <ol className="text-sm">
        {text
          .trimEnd()
          .split("\n")
          .map((line, i) => (
            <li key={i} className={known.has(line) ? "text-soft" : ""}>
              {line || "\u00a0"}
            </li>
          ))}
      </ol>
    </section>
  );
}

export function SizeRounds({ column, base }: { column: Column; base: Column | undefined }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Show the rounds</Button>
      <Dialog
        open={open}
        onOpen={setOpen}
        wide
        title={`Rounds of ${column.name}`}
        about="The first size on the left. Lines join rounds that stand for each other; dots are what the report says of a round. Written rounds that are the same in both are grey."
      >
        <div
          className="max-h-[65vh] overflow-auto"
          tabIndex={0}
          role="region"
          aria-label="Rounds of both sizes"
        >
          {column.parts.map((part) => {
            const before = base?.parts.find((p) => p.key === part.key)?.text ?? "";
            return (
              <div key={part.key} className="mb-3">
                <h3 className="font-title text-lg">
                  {part.name}
                  {part.make > 1 && ` × ${part.make}`}
                </h3>
                <PhaseLadders part={part} />
                <div className="mt-2 grid gap-2 sm:grid-cols-2">
                  <Written name={base?.name ?? "As it is"} text={before} other={part.text} />
                  <Written name={column.name} text={part.text} other={before} />
                </div>
              </div>
            );
          })}
        </div>
      </Dialog>
    </>
  );
}
