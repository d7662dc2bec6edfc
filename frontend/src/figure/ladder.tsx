/** The ladder: one rung a round, as wide as its stitches, so that the rungs are the silhouette. */
import { type KeyboardEvent, type PointerEvent, useEffect, useId, useMemo, useRef } from "react";
import { rungPath } from "./rung";
import { type Fault, type Measure, Rung, SECTION_ROOM, Written } from "./rungs";
import type { FigurePart, Round } from "./types";
import { useDrag } from "./use-drag";

export type Range = { from: number; to: number };
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
  /** Rounds run from right to left, as a left-hander's do. */
  mirrored?: boolean;
  ghost?: number[];
  compact?: boolean;
  className?: string;
};

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
  mirrored = false,
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
  // Moves of the pointer light a round; scrolling rungs past a resting pointer does not.
  const point = (e: PointerEvent) => {
    const i = rungAt(e);
    if (i !== null && i !== lit) onLit?.(i);
  };
  const chosen = (i: number) =>
    range !== null && i >= Math.min(range.from, range.to) && i <= Math.max(range.from, range.to);
  const measure = useMemo<Measure>(
    () => ({ unit, tall, step, width, compact, mirrored }),
    [unit, tall, step, width, compact, mirrored],
  );
  const inside = rounds.map((r, i) => (
    <Rung
      key={`${r.label}-${i}`}
      id={`${id}-${i}`}
      at={i}
      round={r}
      colours={part.colours}
      path={paths[i] ?? ""}
      y={y(i)}
      measure={measure}
      lit={i === lit}
      chosen={chosen(i)}
      pull={onWiden && i === lit && r.plain ? drag.by(i) : null}
      grab={drag.begin}
      option={onLit !== undefined}
      fault={faults?.get(i)}
    />
  ));
  const written = rounds.map((r, i) => (
    <Written
      key={`${r.label}-${i}`}
      round={r}
      y={y(i)}
      measure={measure}
      footUp={footUp}
      flag={flags.has(i + 1)}
      heading={r.section !== rounds[i - 1]?.section ? r.section : ""}
      pull={drag.by(i)}
      fault={faults?.get(i)}
    />
  ));
  const drawing = (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={compact ? "max-h-full w-full" : "mx-auto block w-full max-w-[26rem]"}
      aria-hidden={onLit ? undefined : true}
      preserveAspectRatio="xMidYMax meet"
      onPointerMove={onLit ? (e) => point(e) : undefined}
      onPointerDown={(e) => {
        const i = rungAt(e);
        if (i !== null) choose(i, e.shiftKey);
      }}
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

/** The rung that a pointer is on. */
function rungAt(e: PointerEvent): number | null {
  const rung = (e.target as Element).closest("[data-rung]")?.getAttribute("data-rung");
  return rung ? Number(rung) : null;
}

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
