/** The ladder: one rung a round, as wide as its stitches, so that the rungs are the silhouette. */
import { type KeyboardEvent, useEffect, useId, useMemo, useRef } from "react";
import { Ends, Handle } from "./ends";
import { rungPath } from "./rung";
import type { FigurePart, Round } from "./types";
import { useDrag } from "./use-drag";

export type Range = { from: number; to: number };
type Fault = { severity: "fault" | "warning" | "hint"; message: string };

type Props = {
  part: FigurePart;
  label: string;
  lit?: number | null;
  onLit?: (round: number | null) => void;
  /** The chosen run of rounds, from where it was begun to where it reaches. */
  range?: Range | null;
  onRange?: (range: Range | null) => void;
  /** Give a round some stitches more or fewer. */
  onWiden?: (round: number, by: number) => void;
  /** Move the shaping of the chosen rounds along. */
  onMove?: (by: number) => void;
  steps?: { text: string; after: number }[];
  faults?: Map<number, Fault>;
  footUp?: boolean;
  ghost?: number[];
  compact?: boolean;
  className?: string;
};

const SIGNS = { fault: "✕", warning: "!", hint: "i" };

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

export function Ladder({
  part,
  label,
  lit = null,
  onLit,
  range = null,
  onRange,
  onWiden,
  onMove,
  steps = [],
  faults,
  footUp = false,
  ghost,
  compact = false,
  className = "",
}: Props) {
  const id = useId().replaceAll(":", "");
  const scroller = useRef<HTMLDivElement>(null);
  const { rounds } = part;
  const drag = useDrag(onWiden);
  const flags = useMemo(() => flagged(steps), [steps]);
  const widest = Math.max(6, ...rounds.map((r) => r.live + 2 * r.held), ...(ghost ?? []));
  const unit = (compact ? 120 : 300) / widest;
  const tall = compact
    ? Math.max(2.5, Math.min(8, 130 / Math.max(rounds.length, 1)))
    : Math.max(9, Math.min(17, 400 / Math.max(rounds.length, 1)));
  const gap = compact ? 0.5 : 5;
  const step = tall + gap;
  const side = compact ? 4 : 48;
  const width = widest * unit + side * 2;
  const above = useMemo(() => sectionsUpTo(rounds), [rounds]);
  const room = compact ? 1 : SECTION_ROOM;
  const height = rounds.length * step + (above.at(-1) ?? 0) * room + 14;
  const y = (i: number) => {
    const along = i * step + (above[i] ?? 0) * room;
    return footUp ? along + step + 6 : height - 6 - along;
  };
  const paths = useMemo(
    () => rounds.map((r) => rungPath(r.live, r.made, r.marks as [number, number][], unit, tall)),
    [rounds, unit, tall],
  );
  useEffect(() => {
    const box = scroller.current;
    if (lit === null || !box || box.scrollHeight <= box.clientHeight) return;
    const at = ((footUp ? lit * step : height - lit * step) / height) * box.scrollHeight;
    if (at < box.scrollTop + 20 || at > box.scrollTop + box.clientHeight - 20)
      box.scrollTop = at - box.clientHeight / 2;
  }, [lit, footUp, step, height]);
  const press = (e: KeyboardEvent) => {
    const by = { ArrowUp: footUp ? -1 : 1, ArrowDown: footUp ? 1 : -1 }[e.key];
    const next = by
      ? Math.min(rounds.length - 1, Math.max(0, (lit ?? -by) + by))
      : { Home: 0, End: rounds.length - 1 }[e.key];
    if (next === undefined) return;
    e.preventDefault();
    onLit?.(next);
    onRange?.({ from: e.shiftKey && range ? range.from : next, to: next });
  };
  const across = (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
    if (!by || lit === null || !onWiden) return press(e);
    e.preventDefault();
    if (e.altKey) onMove?.(by);
    else onWiden(lit, by);
  };
  const choose = (i: number, extend: boolean) => {
    onLit?.(i);
    onRange?.({ from: extend && range ? range.from : i, to: i });
  };
  const chosen = (i: number) =>
    range !== null && i >= Math.min(range.from, range.to) && i <= Math.max(range.from, range.to);
  const inside = rounds.map((r, i) => (
    <g
      key={`${r.label}-${i}`}
      id={`${id}-${i}`}
      role={onLit ? "option" : undefined}
      aria-selected={onLit ? i === lit || chosen(i) : undefined}
      aria-label={onLit ? `${r.sentence}${faults?.has(i) ? `; ${faults.get(i)?.message}` : ""}` : undefined}
      transform={`translate(${width / 2} ${y(i)})`}
      onPointerEnter={() => onLit?.(i)}
      onPointerDown={(e) => choose(i, e.shiftKey)}
    >
      <rect
        x={-width / 2}
        y={-step}
        width={width}
        height={step}
        fill={i === lit || chosen(i) ? "var(--woad-ground)" : "transparent"}
      />
      {bands(r).map((b) => (
        <rect
          key={b.from}
          x={(b.from - 0.5) * r.live * unit}
          y={-tall}
          width={(b.to - b.from) * r.live * unit}
          height={tall}
          fill={part.colours[b.colour] ?? "#b99c6b"}
        />
      ))}
      <path
        d={paths[i]}
        fill={part.colours[r.colours[0] ?? 0] ?? "#b99c6b"}
        fillOpacity={r.colours.length > 1 ? 0 : 1}
        stroke="var(--rung-line)"
        strokeWidth={compact ? 0.5 : i === lit ? 2 : 1}
        strokeLinejoin="round"
      />
      {!compact && r.shift > 0 && r.shift < r.live && (
        <circle
          cx={(r.shift / r.live - 0.5) * r.live * unit}
          cy={-tall / 2}
          r={1.6}
          className="fill-woad stroke-panel"
          strokeWidth={0.6}
        >
          <title>{`Here lies what began straight above R1's start: the start has wandered ${r.shift} stitches`}</title>
        </circle>
      )}
      <Ends round={r} unit={unit} tall={tall} compact={compact} />
      {onWiden && i === lit && r.plain && (
        <Handle x={((r.live + drag.by(i)) * unit) / 2} tall={tall} grab={(e) => drag.begin(e, i, unit)} />
      )}
    </g>
  ));
  const written = rounds.map((r, i) => (
    <g key={`${r.label}-${i}`} transform={`translate(${width / 2} ${y(i)})`}>
      {!compact && (
        <>
          <text
            x={-width / 2 + 4}
            y={-tall / 2}
            dominantBaseline="central"
            fontSize="11"
            fill="var(--soft-ink)"
          >
            {r.label}
          </text>
          <text
            x={width / 2 - 4}
            y={-tall / 2}
            dominantBaseline="central"
            textAnchor="end"
            fontSize="12"
            fontWeight="700"
            fill="var(--ink)"
          >
            {r.live}
          </text>
          {flags.has(i + 1) && (
            <text
              x={-width / 2 + 34}
              y={-tall / 2}
              dominantBaseline="central"
              textAnchor="end"
              fontSize="11"
              fill="var(--ink)"
            >
              ⚑
            </text>
          )}
          {r.section && r.section !== rounds[i - 1]?.section && (
            <>
              <text
                x={0}
                y={footUp ? -step - 5 : 14}
                textAnchor="middle"
                fontSize="11"
                fontStyle="italic"
                fill="var(--soft-ink)"
              >
                {r.section}
              </text>
              <line
                x1={-width / 2 + 6}
                x2={width / 2 - 6}
                y1={footUp ? -step - 16 : 19}
                y2={footUp ? -step - 16 : 19}
                stroke="var(--line)"
                strokeDasharray="2 4"
              />
            </>
          )}
          {drag.by(i) !== 0 && (
            <text
              x={((r.live + drag.by(i)) * unit) / 2 + 14}
              y={-tall / 2}
              dominantBaseline="central"
              fontSize="13"
              fontWeight="700"
              fill="var(--ink)"
            >
              {r.live + drag.by(i)}
            </text>
          )}
          {r.lie === "ruffle" && (
            <text
              x={(r.live * unit) / 2 + 4}
              y={-tall / 2}
              dominantBaseline="central"
              fontSize="11"
              fill="var(--ink)"
            >
              ∿
            </text>
          )}
        </>
      )}
      {faults?.has(i) && (
        <g transform={`translate(${-(r.live * unit) / 2 - 9} ${-tall / 2})`}>
          <circle r="7" fill={faults.get(i)?.severity === "fault" ? "var(--madder)" : "var(--weld)"} />
          <text
            textAnchor="middle"
            dominantBaseline="central"
            fontSize="9"
            fontWeight="700"
            fill="var(--panel)"
          >
            {SIGNS[faults.get(i)?.severity ?? "hint"]}
          </text>
        </g>
      )}
    </g>
  ));
  const drawing = (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={compact ? "max-h-full w-full" : "mx-auto block w-full max-w-[26rem]"}
      aria-hidden={onLit ? undefined : true}
      preserveAspectRatio="xMidYMax meet"
    >
      {ghost && (
        <Ghost
          counts={ghost}
          unit={unit}
          x={width / 2}
          y={(i) => y(i * (rounds.length / Math.max(ghost.length, 1)))}
          step={step}
        />
      )}
      {inside}
      {/* What is written on the rungs stands in the options' names already. */}
      {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: a group of text is never focused */}
      <g aria-hidden="true" pointerEvents="none">
        {written}
      </g>
    </svg>
  );
  if (!onLit)
    return (
      <div
        className={className}
        role="img"
        aria-label={`${label}: ${rounds.length} rounds, at most ${widest} stitches`}
      >
        {drawing}
      </div>
    );
  return (
    <div
      ref={scroller}
      className={`overflow-auto ${className}`}
      role="listbox"
      tabIndex={0}
      aria-label={label}
      aria-multiselectable={onRange ? true : undefined}
      aria-activedescendant={lit === null ? undefined : `${id}-${lit}`}
      onKeyDown={across}
    >
      {rounds.length ? drawing : <p className="p-4 text-soft">The ladder grows with the first round.</p>}
    </div>
  );
}

/** Room that a heading inside a part takes. */
const SECTION_ROOM = 22;

/** How many headings stand below each round. */
function sectionsUpTo(rounds: Pick<Round, "section">[]): number[] {
  let many = 0;
  return rounds.map((r, i) => {
    if (i > 0 && r.section !== rounds[i - 1]?.section) many++;
    return many;
  });
}

/** Rounds that a stage direction follows. */
function flagged(steps: { after: number }[]): Set<number> {
  return new Set(steps.map((s) => s.after));
}

function Ghost({
  counts,
  unit,
  x,
  y,
  step,
}: {
  counts: number[];
  unit: number;
  x: number;
  y: (i: number) => number;
  step: number;
}) {
  const right = counts.map((n, i) => `${x + (n * unit) / 2} ${y(i) - step / 2}`);
  const left = counts.map((n, i) => `${x - (n * unit) / 2} ${y(i) - step / 2}`).reverse();
  return (
    <path
      d={`M${[...right, ...left].join("L")}Z`}
      fill="none"
      stroke="var(--strong-line)"
      strokeDasharray="4 3"
    />
  );
}
