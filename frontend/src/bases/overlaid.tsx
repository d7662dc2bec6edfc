/** Two ladders over each other: the first as an outline, the second filled; what is said of them stands beside it. */
import type { Comparison } from "./ask";

type Beside = Comparison["parts"][number]["rounds"][number];

const WIDE = 220;
const TALL = 7;

function colour(pair: Beside): string {
  if (pair.same) return "var(--sunk)";
  if (!pair.a) return "var(--moss)";
  if (!pair.b) return "none";
  if (pair.b.count === pair.a.count) return "var(--strong-line)";
  return pair.b.count > pair.a.count ? "var(--woad)" : "var(--weld)";
}

function Rung({ pair, y, unit }: { pair: Beside; y: number; unit: number }) {
  const wide = (n: number) => Math.max(2, n * unit);
  const b = pair.b ? wide(pair.b.count) : 0;
  const a = pair.a ? wide(pair.a.count) : 0;
  return (
    <g transform={`translate(${WIDE / 2} ${y})`}>
      {pair.b && (
        <rect
          x={-b / 2}
          width={b}
          height={TALL - 1.5}
          fill={colour(pair)}
          stroke="var(--strong-line)"
          strokeWidth="0.5"
        />
      )}
      {pair.a && !pair.same && (
        <rect
          x={-a / 2}
          width={a}
          height={TALL - 1.5}
          fill="none"
          stroke="var(--madder)"
          strokeDasharray={pair.b ? undefined : "3 2"}
        />
      )}
    </g>
  );
}

export function Overlaid({ rounds, label }: { rounds: readonly Beside[]; label: string }) {
  const widest = Math.max(6, ...rounds.map((r) => Math.max(r.a?.count ?? 0, r.b?.count ?? 0)));
  const unit = (WIDE - 4) / widest;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${rounds.length * TALL + 2}`}
      className="max-h-72 w-56 shrink-0"
      role="img"
      aria-label={label}
    >
      {rounds.map((pair, i) => (
        <Rung
          key={`${pair.a?.label ?? "-"} ${pair.b?.label ?? "-"} ${i}`}
          pair={pair}
          y={(rounds.length - 1 - i) * TALL}
          unit={unit}
        />
      ))}
    </svg>
  );
}
