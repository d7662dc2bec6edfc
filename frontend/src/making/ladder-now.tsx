/** The ladder of the piece in hand filling up, a rung a round, the first at the foot. */
import type { PartSheet } from "./types";

const WIDE = 100;
/** The tallest that a rung is drawn, in pixels: a short part is no wall. */
const MOST_RUNG = 26;

export function LadderNow({ part, done, at }: { part: PartSheet; done: number; at: number }) {
  const most = Math.max(...part.rungs.map((r) => r.count), 1);
  const many = part.rungs.length;
  const tall = 100 / many;
  return (
    <svg
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      className="h-full w-full self-end"
      style={{ maxHeight: many * MOST_RUNG }}
      role="img"
      aria-label={`Ladder of ${part.name}: ${done} of ${many} rounds are done`}
    >
      {part.rungs.map((rung, i) => {
        const width = Math.max((WIDE * rung.count) / most, 2);
        const filled = i < done;
        return (
          <rect
            key={i}
            x={(WIDE - width) / 2}
            y={100 - (i + 1) * tall + tall * 0.1}
            width={width}
            height={tall * 0.8}
            fill={filled ? part.fill || "var(--moss)" : "transparent"}
            stroke={i === at ? "var(--woad)" : "var(--rung-line)"}
            strokeWidth={i === at ? 3 : 1}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}
