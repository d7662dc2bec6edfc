/** What the proof-reader found, each with the way to where it is mended. */
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Panel } from "../ui/controls";
import { Refused } from "../ui/refused";
import { useProof } from "./use-book";

type Finding = Schemas["FindingOut"];

const STOPS: Record<Finding["stop"], string> = {
  brief: "Brief",
  gauge: "Gauge",
  rounds: "Rounds",
  assembly: "Assembly",
  sizes: "Sizes",
  booklet: "Booklet",
  bases: "Bases",
  proving: "Proving",
};

/** The address at which a finding is mended: the round of the part, the step, or else the stop. */
export function wayTo(design: Design, found: Finding): string {
  const at = new URLSearchParams();
  if (found.stop === "rounds" && found.part) {
    at.set("part", found.part);
    if (found.round !== null) at.set("round", String(found.round));
  }
  if (found.stop === "assembly" && found.step) at.set("step", found.step);
  return `/designs/${design.id}/${found.stop}${at.size ? `?${at}` : ""}`;
}

export function Proof({ design }: { design: Design }) {
  const proof = useProof(design);
  const found = proof.data ?? [];
  const blocking = found.filter((f) => f.blocks);
  const others = found.filter((f) => !f.blocks);
  return (
    <Panel title="Proof-reading">
      <Refused error={proof.error} />
      {proof.data && found.length === 0 && (
        <p className="border-l-4 border-moss bg-moss-ground px-2 py-1">Nothing to mend was found.</p>
      )}
      {!proof.data && !proof.error && (
        <p role="status" className="text-soft">
          Reading …
        </p>
      )}
      <Findings design={design} title="Blocks the release" found={blocking} bad />
      <Findings design={design} title="To look at" found={others} />
    </Panel>
  );
}

export function Findings({
  design,
  title,
  found,
  bad = false,
}: {
  design: Design;
  title: string;
  found: readonly Finding[];
  bad?: boolean;
}) {
  if (found.length === 0) return null;
  return (
    <section aria-label={title} className="mb-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">
        {title} ({found.length})
      </h3>
      <ul className="flex flex-col gap-1">
        {found.map((f) => (
          <li
            key={`${f.code} ${f.text}`}
            className={`border-l-4 px-2 py-0.5 text-sm ${bad ? "border-madder bg-madder-ground" : "border-weld bg-weld-ground"}`}
          >
            {f.text}{" "}
            {f.stop !== "booklet" && (
              <Link to={wayTo(design, f)} className="whitespace-nowrap underline">
                {STOPS[f.stop]}
              </Link>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
