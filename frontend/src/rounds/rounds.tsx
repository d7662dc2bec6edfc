/** Rounds: the bench. Written rounds, ladder and figure show the same part and light each other. */
import { FileInput } from "lucide-react";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { BringIntoDesign } from "../bringing/bring-in";
import { useShownDesign } from "../design/layout";
import { Button, Empty } from "../ui/controls";
import { Bench } from "./bench";
import { SaveAs } from "./files";
import { NewPart } from "./new-part";

export function Rounds() {
  const design = useShownDesign();
  const [params, setParams] = useSearchParams();
  const part = design.parts.find((p) => p.key === params.get("part")) ?? design.parts[0];
  const [adding, setAdding] = useState(false);
  const [bringing, setBringing] = useState(false);
  const show = (key: string) => setParams({ part: key });
  // They stay where they are when the first part comes or the last goes: what is under way in them stays too.
  const dialogs = (
    <>
      <NewPart design={design} open={adding} onOpen={setAdding} onMade={show} />
      <BringIntoDesign design={design} open={bringing} onOpen={setBringing} onMade={show} />
    </>
  );
  if (!part)
    return (
      <>
        <NoRounds onWrite={() => setAdding(true)} onBringIn={() => setBringing(true)} />
        {dialogs}
      </>
    );
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col gap-2 p-3">
        <h1 className="sr-only">Rounds</h1>
        <div className="flex flex-wrap items-center gap-1">
          <nav aria-label="Parts" className="flex flex-wrap gap-1">
            {design.parts.map((p) => (
              <button
                key={p.key}
                type="button"
                aria-current={p.key === part.key}
                onClick={() => show(p.key)}
                className={`rounded-md border px-2.5 py-1 ${p.key === part.key ? "border-woad bg-woad-ground font-semibold" : "border-line bg-panel hover:bg-sunk"}`}
              >
                {p.name}
                {p.make > 1 && ` × ${p.make}`}
                {p.faults > 0 && (
                  <span className="ml-1.5 rounded-full bg-madder-ground px-1.5 text-sm">
                    {p.faults}
                    <span className="sr-only"> faults</span>
                  </span>
                )}
              </button>
            ))}
          </nav>
          <Button weight="quiet" onClick={() => setAdding(true)}>
            + Part
          </Button>
          <span className="flex-1" />
          <Button weight="quiet" onClick={() => setBringing(true)}>
            <FileInput size={16} aria-hidden="true" /> Bring in
          </Button>
          <SaveAs design={design} />
        </div>
        <Bench key={part.key} design={design} part={part} arriveAt={Number(params.get("round")) || null} />
      </div>
      {dialogs}
    </>
  );
}

function NoRounds({ onWrite, onBringIn }: { onWrite: () => void; onBringIn: () => void }) {
  return (
    <div className="p-10">
      <h1 className="sr-only">Rounds</h1>
      <Empty title="No rounds yet">
        <p>
          Draft a shape and its rounds appear here, or write the first part yourself: “R1: 6 sc in ring [6]”.
        </p>
        <div className="flex gap-2">
          <Button weight="main" asChild>
            <Link to="../shapes">Draft a shape</Link>
          </Button>
          <Button onClick={onWrite}>Write a part</Button>
          <Button onClick={onBringIn}>Bring in rounds</Button>
        </div>
      </Empty>
    </div>
  );
}
