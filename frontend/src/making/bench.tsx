/** Making: the round in hand, what comes before it, the ladder and the figure as they are, one large control. */
import { lazy, Suspense, useState } from "react";
import { LadderNow } from "./ladder-now";
import { Menu, type Opened, Sheets } from "./menu";
import { NetMark } from "./net-mark";
import { buttonClass, mainClass } from "./parts";
import { type Preferences, usePreferences } from "./preferences";
import { nameOf, type Piece, piecesOf, stitchesOf } from "./progress";
import { RoundCard } from "./round-card";
import { useAwake } from "./senses";
import type { Way } from "./server";
import type { Kept } from "./store";
import { type MakingState, useMaking } from "./use-making";
import { type LookedAt, useClicker, useLookedAt, useWork, type Work } from "./use-work";

const FigureNow = lazy(() => import("./figure-now").then((m) => ({ default: m.FigureNow })));
const AssemblySteps = lazy(() => import("./assembly-steps").then((m) => ({ default: m.AssemblySteps })));

export function Bench({ way, opened }: { way: Way; opened: Kept }) {
  const state = useMaking(way, opened);
  if (!state.ready) return <main className="m-auto p-6 text-soft">Opening …</main>;
  return <Working way={way} state={state} />;
}

function Working({ way, state }: { way: Way; state: MakingState }) {
  const looked = useLookedAt(state);
  const likes = usePreferences();
  const asleep = useAwake(likes.awake);
  const [sheet, setSheet] = useState<Opened>(null);
  const work = useWork(state, looked, likes);
  useClicker(work.on, () => void work.takeBack());
  const { piece, round } = looked;
  const closed = state.net.outcome?.state === "closed" ? state.net.outcome.why : null;
  return (
    <div className="flex h-dvh flex-col">
      <header className="flex items-center gap-2 border-b border-line px-3 py-1.5">
        <button
          type="button"
          className={`${buttonClass} min-w-0 flex-1 justify-start`}
          onClick={() => setSheet("overview")}
        >
          <span className="truncate">{piece ? nameOf(piece) : "Putting together"}</span>{" "}
          <span className="ml-auto text-sm text-soft">{share(state)}</span>
        </button>
        <NetMark net={state.net} refused={state.refused} onTry={() => void state.bring()} />
      </header>
      {state.problem && <Told text={state.problem} />}
      {closed && (
        <Told text={`${closed} What you noted stays on this device; save it as a file under More.`} />
      )}
      {asleep && <p className="px-3 py-1 text-sm text-soft">{asleep}</p>}
      <main className="flex min-h-0 flex-1 flex-col overflow-y-auto md:grid md:grid-cols-2">
        {piece ? (
          <InHand state={state} looked={looked} piece={piece} clicks={likes.clicks} work={work} />
        ) : (
          <Suspense fallback={null}>
            <AssemblySteps state={state} />
          </Suspense>
        )}
      </main>
      <footer className="border-t border-line px-3 pt-2 pb-[max(0.5rem,env(safe-area-inset-bottom))]">
        <Menu onOpen={setSheet} tester={state.row.token !== null} />
        {piece && <Thumb looked={looked} likes={likes} work={work} />}
      </footer>
      <Sheets
        way={way}
        state={state}
        piece={piece}
        round={round}
        opened={sheet}
        onClose={() => setSheet(null)}
        onPiece={(to) => {
          looked.turn(to);
          setSheet(null);
        }}
        pieces={piecesOf(state.row.making.sheet)}
      />
    </div>
  );
}

type InHandProps = { state: MakingState; looked: LookedAt; piece: Piece; clicks: boolean; work: Work };

/** The round with its ladder and its figure. */
function InHand({ state, looked, piece, clicks, work }: InHandProps) {
  const { place, round } = looked;
  const rung = piece.part.rungs[round];
  const last = piece.part.rungs.length - 1;
  if (!rung || !place) return null;
  return (
    <>
      <RoundCard
        rung={rung}
        place={place}
        number={round}
        elsewhere={looked.elsewhere}
        clicks={clicks}
        onStitches={(stitches) => void work.stitched(stitches)}
        onTurn={(by) => looked.turn(piece, Math.max(0, Math.min(last, round + by)))}
        onBack={() => looked.turn(piece)}
        last={last}
      />
      <div className="grid min-h-44 flex-1 grid-cols-[1fr_1.4fr] gap-2 px-3 pb-2">
        <LadderNow part={piece.part} done={place.done} at={round} />
        <Drawn state={state} piece={piece} done={place.done} />
      </div>
    </>
  );
}

/** What a thumb reaches: the last one taken back, a stitch, the round done. */
function Thumb({ looked, likes, work }: { looked: LookedAt; likes: Preferences; work: Work }) {
  const rung = looked.piece?.part.rungs[looked.round];
  return (
    <div className={`mt-2 flex gap-2 ${likes.left ? "flex-row-reverse" : ""}`}>
      <button type="button" className={`${buttonClass} min-h-16`} onClick={() => void work.takeBack()}>
        Take back
      </button>
      {likes.clicks && (
        <button type="button" className={`${buttonClass} min-h-16 flex-1`} onClick={() => void work.stitch()}>
          Stitch {(looked.place?.stitches ?? 0) + 1}
        </button>
      )}
      <button
        type="button"
        className={`${mainClass} min-h-16 flex-[2] text-xl`}
        onClick={() => (looked.elsewhere ? work.on() : void work.finishRound())}
      >
        {rung && !looked.elsewhere ? `${rung.label} done` : "To the round in hand"}
      </button>
    </div>
  );
}

function Drawn({ state, piece, done }: { state: MakingState; piece: Piece; done: number }) {
  const stages = state.row.figure?.parts[piece.part.key];
  const all = piece.part.rungs.length;
  const label = done
    ? `${nameOf(piece)} as it is after ${done} of ${all} rounds`
    : `${nameOf(piece)}, not begun`;
  if (!stages)
    return (
      <p className="self-center text-center text-sm text-soft">
        The figure is drawn here once it has settled.
      </p>
    );
  return (
    <Suspense fallback={null}>
      <FigureNow
        stages={stages}
        open={state.row.figure?.open?.[piece.part.key]}
        done={done}
        all={all}
        label={label}
      />
    </Suspense>
  );
}

function Told({ text }: { text: string }) {
  return (
    <p role="alert" className="border-l-4 border-madder bg-madder-ground px-3 py-1.5 text-sm">
      {text}
    </p>
  );
}

function share(state: MakingState): string {
  const [done, all] = stitchesOf(state.row.making.sheet, state.progress);
  return all ? `${Math.floor((100 * done) / all)} %` : "";
}
