/** Did against says: each becomes the pattern's text, stays a remark, or is dropped. */
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { Refused } from "../ui/refused";
import { type Summary, useMakingActs } from "./use-proving";

const VERDICTS = [
  ["text", "Into the text"],
  ["remark", "Stays a remark"],
  ["dropped", "Drop it"],
] as const;

const TOLD = { text: "in the text", remark: "a remark", dropped: "dropped" } as const;

export function Deviations({ design, one }: { design: Design; one: Summary }) {
  const { decide } = useMakingActs(design.id);
  if (one.deviations.length === 0) return null;
  const open = one.deviations.filter((d) => d.verdict === null).length;
  return (
    <section aria-label={`Done otherwise in ${one.title}`} className="border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">
        Done otherwise than it says ({open ? `${open} to decide` : "all decided"})
      </h3>
      <Refused error={decide.error} />
      <ul className="flex flex-col gap-1.5">
        {one.deviations.map((d) => (
          <li
            key={d.key}
            className={`flex flex-wrap items-center gap-2 border-l-4 px-2 py-1 ${d.verdict ? "border-line" : "border-weld bg-weld-ground"}`}
          >
            <span className="min-w-60 flex-1">
              {d.part_name}: {d.told}
              {d.verdict && <span className="text-soft"> ({TOLD[d.verdict]})</span>}
            </span>
            {d.verdict !== "text" &&
              VERDICTS.map(([verdict, name]) => (
                <Button
                  key={verdict}
                  aria-pressed={d.verdict === verdict}
                  disabled={decide.isPending}
                  onClick={() =>
                    decide.mutate({
                      id: one.id,
                      key: d.key,
                      verdict: d.verdict === verdict ? null : verdict,
                    })
                  }
                >
                  {name}
                  <span className="sr-only">: {d.told}</span>
                </Button>
              ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
