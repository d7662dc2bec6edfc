/** What is wrong, where, and what would mend it. */
import { Button } from "../ui/controls";
import type { Preview, Problem } from "./ask";

const SIGNS = { fault: "✕", warning: "!", hint: "i" };
const NAMES = { fault: "Fault", warning: "Warning", hint: "Hint" };
const GROUNDS = {
  fault: "border-madder bg-madder-ground",
  warning: "border-weld bg-weld-ground",
  hint: "border-woad bg-woad-ground",
};
const ORDER = { fault: 0, warning: 1, hint: 2 };

/** The worst problem of each worked round, by its place on the ladder. */
export function roundFaults(preview: Preview): Map<number, Problem> {
  const found = new Map<number, Problem>();
  for (const p of preview.problems) {
    const at = preview.part.rounds.findIndex((r) => r.line === p.line);
    const before = found.get(at);
    if (at >= 0 && (!before || ORDER[p.severity] < ORDER[before.severity])) found.set(at, p);
  }
  return found;
}

export function ProblemList({
  preview,
  onGo,
  onMend,
}: {
  preview: Preview;
  onGo: (p: Problem) => void;
  onMend: (fix: NonNullable<Problem["fix"]>) => void;
}) {
  if (!preview.problems.length)
    return preview.part.rounds.length ? (
      <p className="rounded-md border-l-4 border-moss bg-moss-ground px-2 py-1" role="status">
        Every count adds up.
      </p>
    ) : null;
  return (
    <ul className="flex max-h-40 flex-col gap-1 overflow-auto" aria-label="Problems">
      {preview.problems.map((p, i) => (
        <li
          key={`${p.code}-${p.start}-${i}`}
          className={`flex items-start gap-2 rounded-md border-l-4 px-2 py-1 ${GROUNDS[p.severity]}`}
        >
          <span aria-hidden="true" className="font-bold">
            {SIGNS[p.severity]}
          </span>
          <button type="button" className="flex-1 text-left hover:underline" onClick={() => onGo(p)}>
            <span className="sr-only">{NAMES[p.severity]}: </span>
            {p.message} <span className="whitespace-nowrap">(line {p.line})</span>
          </button>
          {p.fix && (
            <Button className="shrink-0 py-0.5" onClick={() => p.fix && onMend(p.fix)}>
              {p.fix.label}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
