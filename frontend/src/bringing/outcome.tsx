/** What came of a text: its terms, its doubts first, its parts with their ladders, and what stands beside them. */
import type { Schemas } from "../api/client";
import { Silhouette } from "../figure/silhouette";
import { Button, Check, SelectField, TextField } from "../ui/controls";
import type { Board } from "./ask";
import { explained, type Place, type Terms } from "./said";
import { choiceOf } from "./taken";
import type { BoardState } from "./use-board";

const GROUNDS = {
  fault: "border-madder bg-madder-ground",
  warning: "border-weld bg-weld-ground",
  hint: "border-woad bg-woad-ground",
};
const NAMES: Record<Terms, string> = { us: "US terms", uk: "UK terms", letters: "letters" };
const SHOWN_DOUBTS = 12;

/** Whether the parts are put into other terms, so that no word changes its meaning unseen. */
function TermsSaid({ state, board }: { state: BoardState; board: Board }) {
  return (
    <section>
      <SelectField
        label="Read in"
        value={state.said.terms ?? "found"}
        onValue={(t) => state.say({ ...state.said, terms: t === "found" ? null : t })}
        options={[
          [
            "found",
            state.said.terms ? "what it says itself" : `${NAMES[board.terms]}, found: ${board.terms_how}`,
          ],
          ["us", NAMES.us],
          ["uk", NAMES.uk],
          ["letters", NAMES.letters],
        ]}
      />
      {board.unconverted ? (
        <p role="alert" className="mt-1 border-l-4 border-madder bg-madder-ground px-2 py-1">
          It is written in {NAMES[board.terms]} and could not be put into the terms of this design.{" "}
          {board.unconverted}
        </p>
      ) : (
        board.into !== board.terms && (
          <p className="mt-1 border-l-4 border-woad bg-woad-ground px-2 py-1">
            The text is written in {NAMES[board.terms]}; its rounds are put into {NAMES[board.into]}, as this
            design is. Every stitch stays what it was.
          </p>
        )
      )}
    </section>
  );
}

function Doubts({ board, onGo }: { board: Board; onGo: (place: Place) => void }) {
  const { doubts } = board;
  if (!doubts.length)
    return (
      <p className="border-l-4 border-moss bg-moss-ground px-2 py-1">
        Everything was understood, and every count adds up.
      </p>
    );
  return (
    <section aria-label="Doubts">
      <h3 className="mb-1 font-semibold">
        {doubts.length} {doubts.length === 1 ? "doubt" : "doubts"}
      </h3>
      <ul className="flex flex-col gap-1">
        {doubts.slice(0, SHOWN_DOUBTS).map((d, i) => (
          <li key={`${d.line}-${d.column}-${i}`}>
            <button
              type="button"
              onClick={() => onGo(d)}
              className={`w-full border-l-4 px-2 py-1 text-left text-sm hover:brightness-95 ${GROUNDS[d.severity]}`}
            >
              <span className="sr-only">{d.severity}: </span>
              <span className="font-semibold">Line {d.line}</span>
              {d.part && `, ${d.part}`}: {d.message}
            </button>
          </li>
        ))}
      </ul>
      {doubts.length > SHOWN_DOUBTS && (
        <p className="text-sm text-soft">and {doubts.length - SHOWN_DOUBTS} more, each at its line</p>
      )}
    </section>
  );
}

function Part({
  part,
  widest,
  chosen,
  onChosen,
}: {
  part: Schemas["FoundPartOut"];
  widest: number;
  chosen: boolean;
  onChosen: (on: boolean) => void;
}) {
  return (
    <li className="flex items-start gap-2 border-b border-line py-1.5">
      <Silhouette
        counts={part.counts}
        width={Math.max(...part.counts, 1)}
        height={part.counts.length * 1.6}
        widest={widest}
        label={`${part.name}: a ladder of ${part.counts.length} rounds`}
      />
      <div className="min-w-0">
        <Check
          checked={chosen}
          onChecked={onChosen}
          label={
            <span className="font-semibold">
              {part.name}
              {part.make > 1 && ` × ${part.make}`}
            </span>
          }
        />
        <p className="text-sm">
          {part.counts.length} rounds, {part.stitches} stitches
          {part.faults > 0 && `, ${part.faults} ${part.faults === 1 ? "fault" : "faults"}`}
        </p>
        <p className="text-sm text-soft tabular-nums">{part.counts.join(" ")}</p>
      </div>
    </li>
  );
}

export type Choice = {
  /** Numbers of the parts that stay out. */
  out: ReadonlySet<number>;
  sections: boolean;
  /** Whose pattern it is when it is not hers, empty when she does not know. */
  theirs: string | null;
};

export function Outcome({
  state,
  board,
  choice,
  onChoice,
  onGo,
}: {
  state: BoardState;
  board: Board;
  choice: Choice;
  onChoice: (choice: Choice) => void;
  onGo: (place: Place) => void;
}) {
  const widest = Math.max(30, ...board.parts.flatMap((p) => p.counts));
  return (
    <div className="flex flex-col gap-4">
      <TermsSaid state={state} board={board} />
      <Doubts board={board} onGo={onGo} />
      <section aria-label="Parts found">
        <h3 className="font-semibold">
          {board.parts.length
            ? "Parts found"
            : "No round was found. A round begins like “R1: 6 sc in ring [6]”."}
        </h3>
        <ul>
          {board.parts.map((part, i) => (
            <Part
              key={`${part.name}-${i}`}
              part={part}
              widest={widest}
              chosen={!choice.out.has(i)}
              onChosen={(on) => {
                const out = new Set(choice.out);
                if (on) out.delete(i);
                else out.add(i);
                onChoice({ ...choice, out });
              }}
            />
          ))}
        </ul>
      </section>
      {board.beside.length > 0 && (
        <Check
          checked={choice.sections}
          onChecked={(sections) => onChoice({ ...choice, sections })}
          label={`With what stands beside the rounds: ${board.beside.map((s) => choiceOf(s).name.toLowerCase()).join(", ")}`}
        />
      )}
      <Check
        checked={choice.theirs !== null}
        onChecked={(on) => onChoice({ ...choice, theirs: on ? "" : null })}
        label="It is somebody else's pattern: keep it for yourself, and credit it"
      />
      {choice.theirs !== null && (
        <TextField
          label="Whose it is"
          value={choice.theirs}
          maxLength={120}
          onChange={(e) => onChoice({ ...choice, theirs: e.target.value })}
        />
      )}
      <Words state={state} />
    </div>
  );
}

function Words({ state }: { state: BoardState }) {
  const { words } = state.said;
  if (!words.length) return null;
  return (
    <section aria-label="Explained words">
      <h3 className="font-semibold">Explained by you</h3>
      <ul className="text-sm">
        {words.map((w) => (
          <li key={w.word} className="flex items-center justify-between gap-2">
            <span>
              <b>{w.word}</b>: {w.means}
            </span>
            <Button
              weight="quiet"
              onClick={() => state.say(explained(state.said, w.word, ""))}
              aria-label={`Forget what ${w.word} means`}
            >
              Forget
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
