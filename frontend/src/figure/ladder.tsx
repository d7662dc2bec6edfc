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

export function Ladder(props: Props) {
  const { part, label, lit = null, onLit, range, onRange, footUp = false, className = "" } = props;
  const id = useId().replaceAll(":", "");
  const laid = useLaidRungs(part, props.ghost, props.compact ?? false, footUp, props.mirrored ?? false);
  const scroller = useShownRung(lit, footUp, laid);
  const press = useLadderKeys(props, part.rounds.length);
  const choose = (i: number, extend: boolean) => {
    onLit?.(i);
    onRange?.({ from: extend && range ? range.from : i, to: i });
  };
  const drawing = <Drawing {...props} id={id} laid={laid} choose={choose} />;
  if (!onLit)
    return (
      <div
        className={className}
        role="img"
        aria-label={`${label}: ${part.rounds.length} rounds, at most ${laid.widest} stitches`}
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
      onKeyDown={press}
    >
      {part.rounds.length ? drawing : <p className="p-4 text-soft">The ladder grows with the first round.</p>}
    </div>
  );
}

/** Where every rung lies, and how large it is: in the units of the drawing. */
function useLaidRungs(
  { rounds }: FigurePart,
  ghost: number[] | undefined,
  compact: boolean,
  footUp: boolean,
  mirrored: boolean,
) {
  return useMemo(() => {
    const widest = Math.max(6, ...rounds.map((r) => r.live + 2 * r.held), ...(ghost ?? []));
    const unit = (compact ? 120 : 300) / widest;
    const each = (compact ? 130 : 400) / Math.max(rounds.length, 1);
    const tall = compact ? Math.max(2.5, Math.min(8, each)) : Math.max(9, Math.min(17, each));
    const step = tall + (compact ? 0.5 : 5);
    const width = widest * unit + (compact ? 4 : 48) * 2;
    const above = sectionsUpTo(rounds);
    const room = compact ? 1 : SECTION_ROOM;
    const height = rounds.length * step + (above.at(-1) ?? 0) * room + 14;
    const y = (i: number) => {
      const along = i * step + (above[i] ?? 0) * room;
      return footUp ? along + step + 6 : height - 6 - along;
    };
    const paths = rounds.map((r) => rungPath(r.live, r.made, r.marks as [number, number][], unit, tall));
    const measure: Measure = { unit, tall, step, width, compact, mirrored };
    return { widest, height, y, paths, measure };
  }, [rounds, ghost, compact, footUp, mirrored]);
}

type Laid = ReturnType<typeof useLaidRungs>;

/** The ladder scrolls to the round that is lit elsewhere. */
function useShownRung(lit: number | null, footUp: boolean, { height, measure }: Laid) {
  const scroller = useRef<HTMLDivElement>(null);
  const { step } = measure;
  useEffect(() => {
    const box = scroller.current;
    if (lit === null || !box || box.scrollHeight <= box.clientHeight) return;
    const at = ((footUp ? lit * step : height - lit * step) / height) * box.scrollHeight;
    if (at < box.scrollTop + 20 || at > box.scrollTop + box.clientHeight - 20)
      box.scrollTop = at - box.clientHeight / 2;
  }, [lit, footUp, step, height]);
  return scroller;
}

/** Up and down choose a round, with Shift a run of them; left and right widen it, with Alt they move its shaping. */
function useLadderKeys({ lit = null, onLit, range, onRange, onWiden, onMove, footUp }: Props, many: number) {
  const press = (e: KeyboardEvent) => {
    const by = { ArrowUp: footUp ? -1 : 1, ArrowDown: footUp ? 1 : -1 }[e.key];
    const next = by ? Math.min(many - 1, Math.max(0, (lit ?? -by) + by)) : { Home: 0, End: many - 1 }[e.key];
    if (next === undefined) return;
    e.preventDefault();
    onLit?.(next);
    onRange?.({ from: e.shiftKey && range ? range.from : next, to: next });
  };
  return (e: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
    if (!by || lit === null || !onWiden) return press(e);
    e.preventDefault();
    if (e.altKey) onMove?.(by);
    else onWiden(lit, by);
  };
}

function Drawing({
  id,
  laid,
  choose,
  part,
  lit = null,
  onLit,
  range = null,
  onWiden,
  steps = NO_STEPS,
  faults,
  footUp = false,
  ghost,
  compact = false,
}: Props & { id: string; laid: Laid; choose: (i: number, extend: boolean) => void }) {
  const { rounds, colours } = part;
  const { y, paths, measure, height } = laid;
  const drag = useDrag(onWiden);
  const flags = useMemo(() => flagged(steps), [steps]);
  const chosen = (i: number) =>
    range !== null && i >= Math.min(range.from, range.to) && i <= Math.max(range.from, range.to);
  // Moves of the pointer light a round; scrolling rungs past a resting pointer does not.
  const point = (e: PointerEvent) => {
    const i = rungAt(e);
    if (i !== null && i !== lit) onLit?.(i);
  };
  return (
    <svg
      viewBox={`0 0 ${measure.width} ${height}`}
      className={compact ? "max-h-full w-full" : "mx-auto block w-full max-w-[26rem]"}
      aria-hidden={onLit ? undefined : true}
      preserveAspectRatio="xMidYMax meet"
      onPointerMove={onLit ? (e) => point(e) : undefined}
      onPointerDown={(e) => {
        const i = rungAt(e);
        if (i !== null) choose(i, e.shiftKey);
      }}
    >
      {ghost && <Ghost counts={ghost} laid={laid} many={rounds.length} />}
      {rounds.map((r, i) => (
        <Rung
          key={`${r.label}-${i}`}
          id={`${id}-${i}`}
          at={i}
          round={r}
          colours={colours}
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
      ))}
      {/* What is written on the rungs stands in the options' names already. */}
      {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: a group of text is never focused */}
      <g aria-hidden="true" pointerEvents="none">
        {rounds.map((r, i) => (
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
        ))}
      </g>
    </svg>
  );
}

const NO_STEPS: NonNullable<Props["steps"]> = [];

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

/** Another ladder's outline behind this one, as tall. */
function Ghost({ counts, laid: { y, measure }, many }: { counts: number[]; laid: Laid; many: number }) {
  const { unit, step, width } = measure;
  const high = (i: number) => y(i * (many / Math.max(counts.length, 1))) - step / 2;
  const right = counts.map((n, i) => `${(width + n * unit) / 2} ${high(i)}`);
  const left = counts.map((n, i) => `${(width - n * unit) / 2} ${high(i)}`).reverse();
  return (
    <path
      d={`M${[...right, ...left].join("L")}Z`}
      fill="none"
      stroke="var(--strong-line)"
      strokeDasharray="4 3"
    />
  );
}
