/** The rungs of a ladder: one round's bar, and what is written on it. Each is drawn again only when it changes. */
import { memo, type PointerEvent } from "react";
import { Ends, Handle } from "./ends";
import type { Round } from "./types";

export type Fault = { severity: "fault" | "warning" | "hint"; message: string };

/** Sizes in units of the drawing that all rungs of a ladder share. */
export type Measure = {
  unit: number;
  tall: number;
  step: number;
  width: number;
  compact: boolean;
  mirrored: boolean;
};

/** Room that a heading inside a part takes. */
export const SECTION_ROOM = 22;

const SIGNS = { fault: "✕", warning: "!", hint: "i" };
const UNNAMED = "#b99c6b";

/** Bands of one round's colours along its rung, as shares of the width. */
export function bands(round: Pick<Round, "colours">): { colour: number; from: number; to: number }[] {
  const { colours } = round;
  if (colours.length <= 1) return [{ colour: colours[0] ?? 0, from: 0, to: 1 }];
  const found: { colour: number; from: number; to: number }[] = [];
  colours.forEach((colour, i) => {
    const last = found.at(-1);
    if (last?.colour === colour) last.to = (i + 1) / colours.length;
    else found.push({ colour, from: i / colours.length, to: (i + 1) / colours.length });
  });
  return found;
}

type RungProps = {
  id: string;
  at: number;
  round: Round;
  colours: string[];
  path: string;
  y: number;
  measure: Measure;
  lit: boolean;
  chosen: boolean;
  /** Stitches that a pull at its end would add; null while it can't be pulled. */
  pull: number | null;
  grab: (e: PointerEvent<SVGElement>, round: number, unit: number) => void;
  option: boolean;
  fault: Fault | undefined;
};

export const Rung = memo(function Rung({
  id,
  at,
  round,
  colours,
  path,
  y,
  measure: { unit, tall, step, width, compact, mirrored },
  lit,
  chosen,
  pull,
  grab,
  option,
  fault,
}: RungProps) {
  return (
    <g
      id={id}
      data-rung={at}
      role={option ? "option" : undefined}
      aria-selected={option ? lit || chosen : undefined}
      aria-label={option ? `${round.sentence}${fault ? `; ${fault.message}` : ""}` : undefined}
      transform={`translate(${width / 2} ${y})`}
    >
      <rect
        x={-width / 2}
        y={-step}
        width={width}
        height={step}
        fill={lit || chosen ? "var(--woad-ground)" : "transparent"}
      />
      <g transform={mirrored ? "scale(-1 1)" : undefined}>
        {bands(round).map((b) => (
          <rect
            key={b.from}
            x={(b.from - 0.5) * round.live * unit}
            y={-tall}
            width={(b.to - b.from) * round.live * unit}
            height={tall}
            fill={colours[b.colour] ?? UNNAMED}
          />
        ))}
        <path
          d={path}
          fill={colours[round.colours[0] ?? 0] ?? UNNAMED}
          fillOpacity={round.colours.length > 1 ? 0 : 1}
          stroke="var(--rung-line)"
          strokeWidth={compact ? 0.5 : lit ? 2 : 1}
          strokeLinejoin="round"
        />
        {!compact && round.shift > 0 && round.shift < round.live && (
          <circle
            cx={(round.shift / round.live - 0.5) * round.live * unit}
            cy={-tall / 2}
            r={1.6}
            className="fill-woad stroke-panel"
            strokeWidth={0.6}
          >
            <title>{`Here lies what began straight above R1's start: the start has wandered ${round.shift} stitches`}</title>
          </circle>
        )}
        <Ends round={round} unit={unit} tall={tall} compact={compact} />
      </g>
      {pull !== null && (
        <Handle x={((round.live + pull) * unit) / 2} tall={tall} grab={(e) => grab(e, at, unit)} />
      )}
    </g>
  );
});

type WrittenProps = {
  round: Round;
  y: number;
  measure: Measure;
  footUp: boolean;
  flag: boolean;
  /** A heading that begins at this round. */
  heading: string;
  pull: number;
  fault: Fault | undefined;
};

/** Label, count and signs of one round. */
export const Written = memo(function Written({
  round,
  y,
  measure: { unit, tall, step, width, compact },
  footUp,
  flag,
  heading,
  pull,
  fault,
}: WrittenProps) {
  const half = (round.live * unit) / 2;
  const line = { y: -tall / 2, dominantBaseline: "central" as const, fontSize: "11", fill: "var(--ink)" };
  return (
    <g transform={`translate(${width / 2} ${y})`}>
      {!compact && (
        <>
          <text {...line} x={-width / 2 + 4} fill="var(--soft-ink)">
            {round.label}
          </text>
          <text {...line} x={width / 2 - 4} textAnchor="end" fontSize="12" fontWeight="700">
            {round.live}
          </text>
          {flag && (
            <text {...line} x={-width / 2 + 34} textAnchor="end">
              ⚑
            </text>
          )}
          {heading && <Heading text={heading} width={width} y={footUp ? -step - 5 : 14} />}
          {pull !== 0 && (
            <text {...line} x={((round.live + pull) * unit) / 2 + 14} fontSize="13" fontWeight="700">
              {round.live + pull}
            </text>
          )}
          {round.lie === "ruffle" && (
            <text {...line} x={half + 4}>
              ∿
            </text>
          )}
        </>
      )}
      {fault && (
        <g transform={`translate(${-half - 9} ${-tall / 2})`}>
          <circle r="7" fill={fault.severity === "fault" ? "var(--madder)" : "var(--weld)"} />
          <text
            textAnchor="middle"
            dominantBaseline="central"
            fontSize="9"
            fontWeight="700"
            fill="var(--panel)"
          >
            {SIGNS[fault.severity]}
          </text>
        </g>
      )}
    </g>
  );
});

function Heading({ text, width, y }: { text: string; width: number; y: number }) {
  const rule = y < 0 ? y - 11 : y + 5;
  return (
    <>
      <text x={0} y={y} textAnchor="middle" fontSize="11" fontStyle="italic" fill="var(--soft-ink)">
        {text}
      </text>
      <line
        x1={-width / 2 + 6}
        x2={width / 2 - 6}
        y1={rule}
        y2={rule}
        stroke="var(--line)"
        strokeDasharray="2 4"
      />
    </>
  );
}
