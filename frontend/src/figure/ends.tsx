/** What the ends of a rung tell: two ends for a row, a fork where stitches are put aside, a handle to pull. */
import type { PointerEvent } from "react";
import type { Round } from "./types";

export function Ends({
  round,
  unit,
  tall,
  compact,
}: {
  round: Pick<Round, "flat" | "held" | "live" | "rest" | "holes" | "made">;
  unit: number;
  tall: number;
  compact: boolean;
}) {
  const half = (round.live * unit) / 2;
  const line = { stroke: "var(--rung-line)", strokeWidth: compact ? 0.6 : 1.5 };
  return (
    <>
      {round.flat && [-half, half].map((x) => <line key={x} x1={x} x2={x} y1={-tall - 2} y2={2} {...line} />)}
      {round.held > 0 && (
        <>
          <path d={`M${half} ${-tall / 2}h${unit * 0.6}`} {...line} />
          <rect
            x={half + unit * 0.6}
            y={-tall}
            width={Math.max(round.held * unit - unit * 0.6, 2)}
            height={tall}
            fill="none"
            strokeDasharray="3 2"
            {...line}
          />
        </>
      )}
      {round.holes
        .filter(([, passed]) => passed > 0 && passed !== round.held)
        .map(([at, passed]) => (
          <ellipse
            key={at}
            cx={-half + (at / Math.max(round.made, 1)) * half * 2}
            cy={-tall / 2}
            rx={Math.min((passed * unit) / 2, unit * 3)}
            ry={tall / 3}
            fill="var(--panel)"
            {...line}
          />
        ))}
    </>
  );
}

/** The end of the lit rung, to be pulled wider or narrower. */
export function Handle({
  x,
  tall,
  grab,
}: {
  x: number;
  tall: number;
  grab: (e: PointerEvent<SVGElement>) => void;
}) {
  return (
    <g className="cursor-ew-resize touch-none" onPointerDown={grab} data-handle="">
      <rect x={x - 7} y={-tall - 3} width={18} height={tall + 6} fill="transparent" />
      <rect
        x={x - 1}
        y={-tall - 1}
        width={5}
        height={tall + 2}
        rx={2}
        fill="var(--woad)"
        stroke="var(--panel)"
      />
    </g>
  );
}
