/** Both ladders of a part, the first size's left of the other's: rounds that stand for each other are joined by a line,
 * and what the report says of a round stands on it. */
import { useId } from "react";
import type { Schemas } from "../api/client";

type SizedPart = Schemas["SizedPart"];
type Mark = SizedPart["marks"][number];

const WIDE = 320;
const TALL = 260;
const HALF = 110;

const FILLS: Record<Mark["state"], string> = {
  lost: "var(--madder)",
  changed: "var(--weld)",
  moved: "var(--woad)",
  kept: "var(--moss)",
};

type Side = { counts: readonly number[]; middle: number; unit: number };

const heightOf = ({ counts }: Side, at: number) => TALL - ((at + 0.5) * TALL) / Math.max(counts.length, 1);

function Rungs({ side, filled }: { side: Side; filled: boolean }) {
  const tall = TALL / Math.max(side.counts.length, 1);
  return side.counts.map((count, at) => (
    <rect
      key={at}
      x={side.middle - (count * side.unit) / 2}
      y={heightOf(side, at) - tall / 2}
      width={Math.max(2, count * side.unit)}
      height={Math.max(0.6, tall - Math.min(1, tall / 4))}
      fill={filled ? "var(--sunk)" : "none"}
      stroke="var(--strong-line)"
      strokeWidth="0.5"
    />
  ));
}

/** What the marks say, each once, under the ladders: a colour alone says nothing to some. */
function Said({ marks }: { marks: readonly Mark[] }) {
  const words = [...new Map(marks.map((m) => [m.words, m])).values()];
  return (
    <ul className="flex flex-col gap-1 text-sm">
      {words.map((m) => (
        <li key={m.words} className="flex gap-2">
          <svg viewBox="0 0 8 8" className="mt-1 h-2.5 w-2.5 shrink-0" aria-hidden="true">
            <circle cx="4" cy="4" r="4" fill={FILLS[m.state]} />
          </svg>
          <span>{m.words}</span>
        </li>
      ))}
    </ul>
  );
}

export function PhaseLadders({ part }: { part: SizedPart }) {
  const id = useId();
  const widest = Math.max(6, ...part.before, ...part.counts);
  const unit = HALF / widest;
  const first: Side = { counts: part.before, middle: HALF / 2 + 2, unit };
  const size: Side = { counts: part.counts, middle: WIDE - HALF / 2 - 2, unit };
  if (!part.before.length || !part.counts.length) return null;
  return (
    <div className="flex flex-col gap-2">
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        className="max-h-72 w-full max-w-md"
        role="img"
        aria-labelledby={id}
      >
        <title id={id}>
          {`${part.name}: ${part.before.length} rounds up to ${Math.max(...part.before)} stitches at first, ${part.counts.length} rounds up to ${Math.max(...part.counts)} at this size`}
        </title>
        <Rungs side={first} filled={false} />
        <Rungs side={size} filled />
        {part.links.map(([before, after]) => (
          <line
            key={`${before} ${after}`}
            x1={first.middle + ((part.before[before] ?? 0) * unit) / 2 + 3}
            y1={heightOf(first, before)}
            x2={size.middle - ((part.counts[after] ?? 0) * unit) / 2 - 3}
            y2={heightOf(size, after)}
            stroke="var(--line)"
            strokeWidth="0.8"
          />
        ))}
        {part.marks.map((m, i) => {
          const side = m.first ? first : size;
          return (
            <circle
              key={i}
              cx={side.middle + (((side.counts[m.at] ?? 0) * unit) / 2 + 7) * (m.first ? -1 : 1)}
              cy={heightOf(side, m.at)}
              r="3.5"
              fill={FILLS[m.state]}
            >
              <title>{m.words}</title>
            </circle>
          );
        })}
      </svg>
      {part.marks.length > 0 && <Said marks={part.marks} />}
    </div>
  );
}
