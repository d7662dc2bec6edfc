/** What the drafted rounds settle to, how far that is from the shape, and having the shape redrawn to come nearer. */

import { useState } from "react";
import { type Schemas, sentence } from "../api/client";
import type { ShapeError } from "../figure/settled";
import type { Settling } from "../figure/use-settled";
import { Button } from "../ui/controls";
import { JobBar, placeInLine } from "../ui/job-bar";
import { rounded } from "../ui/units";
import { Flat } from "./flat";
import type { Surface, Thread } from "./recipe";
import { useWorked } from "./work";

/** Stitch widths off from which a shape is told to be rounded out. */
const ROUNDED_OUT = 0.6;

/** Stitch widths off from which it is worth asking what would hold the shape flat. */
const BULGES = 0.3;

export function Fit({
  settling,
  question,
  compensated,
  onRedrawn,
  threads,
  onThreads,
  disc = null,
}: {
  settling: Settling;
  question: Schemas["ShapeIn"];
  compensated: boolean;
  onRedrawn: (surface: Surface | null) => void;
  /** Sewn through, so that a flat shape stays flat. */
  threads: Thread[];
  onThreads: (threads: Thread[]) => void;
  /** Across the disc that keeps a flat end flat, in mm; null where there is none. */
  disc?: number | null;
}) {
  const { redraw, said, takeBack } = useRedrawing(onRedrawn);
  const error = settling.settled?.error ?? null;
  const resting = !redraw.way;
  const { empty = false, one_layer = false } = question.recipe;
  const flattens = !empty && (threads.length > 0 || (error !== null && error.rms_w > BULGES));
  return (
    <div className="border-t border-line pt-2" data-testid="fit">
      <HowNear settling={settling} error={error} filled={!empty} />
      {error && !settling.way && !empty && <Advice error={error} disc={disc} />}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {one_layer ? null : !redraw.way ? (
          <Button
            onClick={() => redraw.start({ ...question, recipe: { ...question.recipe, redrawn: null } })}
            disabled={!error}
          >
            Compensate
          </Button>
        ) : (
          <JobBar name="Compensating" way={redraw.way} className="min-w-40">
            <Button weight="quiet" onClick={redraw.stop}>
              Stop
            </Button>
          </JobBar>
        )}
        {flattens && resting && <Flat question={question} threads={threads} onThreads={onThreads} />}
        {compensated && resting && (
          <Button weight="quiet" onClick={takeBack}>
            Take it back
          </Button>
        )}
        {compensated && !said && (
          <span className="text-sm text-soft">Redrawn so that it settles to the shape.</span>
        )}
        {said && (
          <span className="text-sm" role="status">
            {said}
          </span>
        )}
        {redraw.error && (
          <span role="alert" className="text-sm">
            {sentence(redraw.error)}
          </span>
        )}
      </div>
    </div>
  );
}

/** Having the shape redrawn, and what came of it. */
function useRedrawing(onRedrawn: (surface: Surface | null) => void) {
  const [said, setSaid] = useState<string | null>(null);
  const redraw = useWorked("compensate", (got) => {
    const better = got.after.rms_w < got.before.rms_w - 0.005;
    setSaid(
      better
        ? `From ${mm(got.before)} off to ${mm(got.after)}.`
        : `Nothing came nearer than ${mm(got.before)}.`,
    );
    if (better && got.recipe.redrawn) onRedrawn(got.recipe.redrawn);
  });
  const takeBack = () => {
    setSaid(null);
    onRedrawn(null);
  };
  return { redraw, said, takeBack };
}

function HowNear({
  settling,
  error,
  filled,
}: {
  settling: Settling;
  error: ShapeError | null;
  filled: boolean;
}) {
  if (settling.problem)
    return (
      <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">
        {settling.problem}
      </p>
    );
  return (
    <p aria-live="polite">
      {settling.way && (
        <span className="text-soft" role="status">
          Settling … {placeInLine(settling.way.ahead)}{" "}
        </span>
      )}
      {error && (
        <>
          Settles <strong className="font-semibold">{mm(error)}</strong> off the shape (
          {rounded(error.rms_w, 2)} of a stitch){filled && `, volume ${percentOff(error.volume_ratio)}`}.
        </>
      )}
    </p>
  );
}

function percentOff(ratio: number) {
  return `${ratio >= 1 ? "+" : "−"}${Math.round(Math.abs(ratio - 1) * 100)} %`;
}

/** What is done by hand about a shape that filling rounds out. */
function Advice({ error, disc }: { error: ShapeError; disc: number | null }) {
  return (
    <>
      {error.rms_w > ROUNDED_OUT && (
        <p className="text-sm">
          Stuffing rounds this shape out by that much. Sew threads through it, fill it less, put a base disc
          in, work short rows, or sew it from flat panels.
        </p>
      )}
      {disc !== null && (
        <p className="text-sm">
          Filling makes its flat end bulge. A stiff disc of {rounded(disc, 0)} mm inside keeps it flat: a
          stitch smaller than the end; round its edge, sew it in, and use nothing that small children could
          get out.
        </p>
      )}
    </>
  );
}

function mm(error: ShapeError): string {
  return `${rounded(error.rms_mm, 1)} mm`;
}
