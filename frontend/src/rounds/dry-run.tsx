/** The dry run: stitch by stitch with the live edge shown, as a careful tester would make it. */
import { ChevronLeft, ChevronRight, ChevronsLeft, ChevronsRight } from "lucide-react";
import { type KeyboardEvent, useEffect, useMemo, useState } from "react";
import { sentence } from "../api/client";
import { IconButton } from "../ui/controls";
import { askDryRun, type DryRun, type Question } from "./ask";
import { type Place, said, stepBy } from "./walk";

const SHOWN = 60;

export function DryRunView({
  asked,
  lit,
  onRound,
}: {
  asked: Question;
  lit: number | null;
  onRound: (round: number) => void;
}) {
  const [run, setRun] = useState<DryRun | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [place, setPlace] = useState<Place>({ round: 0, move: 0 });
  const { text, design, colour, part } = asked;
  useEffect(() => {
    let gone = false;
    const wait = setTimeout(() => {
      askDryRun({ text, design, colour, part })
        .then((found) => {
          if (gone) return;
          setRun(found);
          setError(null);
          setPlace((now) => ({
            round: Math.min(now.round, Math.max(found.rounds.length - 1, 0)),
            move: now.round < found.rounds.length ? now.move : 0,
          }));
        })
        .catch((e: unknown) => !gone && setError(sentence(e)));
    }, 200);
    return () => {
      gone = true;
      clearTimeout(wait);
    };
  }, [text, design, colour, part]);
  useEffect(() => {
    // Pointing at another round begins there; stepping on within a round does not move back.
    if (lit !== null) setPlace((now) => (now.round === lit ? now : { round: lit, move: 0 }));
  }, [lit]);
  const round = run?.rounds[place.round];
  const words = useMemo(() => (run && round ? said(run, place) : null), [run, round, place]);
  if (error)
    return (
      <p role="alert" className="m-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
        {error}
      </p>
    );
  if (!run) return <p className="grid h-full place-items-center text-soft">Casting on …</p>;
  if (!round || !words)
    return (
      <p className="grid h-full place-items-center p-4 text-soft">The dry run begins with the first round.</p>
    );
  const go = (by: number, unit: "move" | "round") => {
    const next = stepBy(run, place, by, unit);
    setPlace(next);
    if (next.round !== place.round) onRound(next.round);
  };
  const press = (e: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
    const leap = { PageDown: 1, PageUp: -1 }[e.key];
    if (!step && !leap) return;
    e.preventDefault();
    go(step ?? leap ?? 0, step ? "move" : "round");
  };
  const steps = run.steps.filter((s) => s.after === place.round);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys work anywhere inside, the buttons do the same
    <div className="flex h-full min-h-0 flex-col gap-2 p-3" onKeyDown={press}>
      <div className="flex items-center justify-between gap-1">
        <span className="flex gap-0.5">
          <IconButton label="Round before" onClick={() => go(-1, "round")}>
            <ChevronsLeft size={18} />
          </IconButton>
          <IconButton label="Stitch before" onClick={() => go(-1, "move")}>
            <ChevronLeft size={18} />
          </IconButton>
        </span>
        <strong className="text-lg">{round.label}</strong>
        <span className="flex gap-0.5">
          <IconButton label="Next stitch" onClick={() => go(1, "move")}>
            <ChevronRight size={18} />
          </IconButton>
          <IconButton label="Next round" onClick={() => go(1, "round")}>
            <ChevronsRight size={18} />
          </IconButton>
        </span>
      </div>
      <div aria-live="polite" className="rounded-md border border-line bg-ground p-3">
        <p className="text-lg">
          <strong>{words.stitch}</strong> {words.into}
        </p>
        <p className="text-soft">
          {words.count}
          {round.front ? "" : ", inside facing you"}
        </p>
        <p className="mt-1 text-sm">{words.how}</p>
      </div>
      <Edge title="Waiting on the edge below" numbers={words.waiting} now={words.now} run={run} />
      <Edge title="Made, newest first" numbers={words.made} now={[]} run={run} />
      {steps.length > 0 && (
        <p className="rounded-md border-l-4 border-weld bg-weld-ground px-2 py-1">
          First: {steps.map((s) => s.text).join(" ")}
        </p>
      )}
      {!run.whole && (
        <p className="text-sm text-soft">
          The part is long; the dry run goes as far as {run.rounds.at(-1)?.label}.
        </p>
      )}
    </div>
  );
}

function Edge({
  title,
  numbers,
  now,
  run,
}: {
  title: string;
  numbers: number[];
  now: number[];
  run: DryRun;
}) {
  const shown = numbers.slice(0, SHOWN);
  return (
    <section aria-label={title}>
      <h3 className="mb-1 text-sm font-semibold">
        {title}: {numbers.length}
      </h3>
      <ul className="flex flex-wrap gap-0.5">
        {shown.map((n) => (
          <li
            key={n}
            title={run.places[n]}
            className={`grid size-6 place-items-center rounded border text-xs tabular-nums ${now.includes(n) ? "border-2 border-woad bg-woad-ground font-bold" : "border-line bg-sunk"}`}
          >
            {run.places[n]?.match(/\d+$/)?.[0] ?? "·"}
          </li>
        ))}
        {numbers.length > SHOWN && (
          <li className="self-center px-1 text-sm">and {numbers.length - SHOWN} more</li>
        )}
      </ul>
    </section>
  );
}
