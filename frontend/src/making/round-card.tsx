/** The round in large letters: what comes before it, its stitches, pieces to tick off, and its count. */
import { buttonClass } from "./parts";
import type { Place } from "./progress";
import type { Rung } from "./types";

export function RoundCard({
  rung,
  place,
  number,
  elsewhere,
  clicks,
  onStitches,
  onTurn,
  onBack,
  last,
}: {
  rung: Rung;
  place: Place;
  number: number;
  elsewhere: boolean;
  clicks: boolean;
  onStitches: (stitches: number) => void;
  onTurn: (by: number) => void;
  onBack: () => void;
  last: number;
}) {
  return (
    <section aria-label="The round in hand" className="flex flex-col gap-2 p-3">
      {(rung.before ?? []).length > 0 && (
        <ul aria-label="Before this round" className="border-l-4 border-weld bg-weld-ground px-3 py-1.5">
          {rung.before?.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <div className="flex items-center justify-between gap-2">
        <button
          type="button"
          className={buttonClass}
          disabled={number === 0}
          aria-label="The round before"
          onClick={() => onTurn(-1)}
        >
          ‹
        </button>
        <h1 className="text-center text-2xl">
          {rung.label}
          {rung.colour && <span className="ml-2 text-base text-soft">{rung.colour}</span>}
        </h1>
        <button
          type="button"
          className={buttonClass}
          disabled={number >= last}
          aria-label="The round after"
          onClick={() => onTurn(1)}
        >
          ›
        </button>
      </div>
      <p
        className="text-center text-[clamp(1.4rem,7vw,2.4rem)] font-semibold leading-tight"
        aria-live="polite"
      >
        {rung.work} <span className="whitespace-nowrap text-soft">[{rung.count}]</span>
      </p>
      {elsewhere ? (
        <button type="button" className={buttonClass} onClick={onBack}>
          {number < place.done ? "Done already. " : "Still to come. "}Back to the round in hand
        </button>
      ) : (
        <Ticks rung={rung} stitches={place.stitches} onStitches={onStitches} />
      )}
      {clicks && !elsewhere && (
        <p className="text-center text-lg">
          {place.stitches} of {rung.made} stitches
        </p>
      )}
    </section>
  );
}

type Box = { text: string; until: number };

/** Every piece of a round with the stitches after which it is done. */
export function boxesOf(rung: Rung): Box[] {
  const boxes: Box[] = [];
  let until = 0;
  for (const tick of rung.ticks ?? [])
    for (let i = 0; i < tick.times; i++) {
      until += tick.stitches;
      boxes.push({ text: tick.text, until });
    }
  return boxes;
}

const MOST_BOXES = 40;

function Ticks({
  rung,
  stitches,
  onStitches,
}: {
  rung: Rung;
  stitches: number;
  onStitches: (n: number) => void;
}) {
  const boxes = boxesOf(rung);
  if (boxes.length < 2 || boxes.length > MOST_BOXES) return null;
  const same = new Set(boxes.map((b) => b.text)).size === 1;
  return (
    <ul aria-label="Pieces of the round" className="flex flex-wrap justify-center gap-1.5">
      {boxes.map((box, i) => {
        const done = stitches >= box.until;
        return (
          <li key={box.until}>
            <button
              type="button"
              aria-pressed={done}
              className={`${buttonClass} min-w-11 ${done ? "line-through" : ""}`}
              aria-label={same ? `${i + 1}: ${box.text}` : `${box.text}, piece ${i + 1}`}
              onClick={() => onStitches(done ? (boxes[i - 1]?.until ?? 0) : box.until)}
            >
              {same ? i + 1 : box.text}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
