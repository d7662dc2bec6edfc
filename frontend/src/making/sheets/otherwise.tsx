/** What was done otherwise than the round says: one tap for the usual, words for the rest. */
import { useState } from "react";
import type { SheetProps } from "../menu";
import { boxClass, buttonClass, Labelled, mainClass, numberIn, Sheet } from "../parts";
import { doneOf, type Piece } from "../progress";
import type { Rung, What } from "../types";
import type { MakingState } from "../use-making";

type Said = Extract<What, { kind: "otherwise" }>;
type Say = (what: Pick<Said, "what"> & Partial<Said>) => void;

export function Otherwise({ state, piece, round, onClose }: SheetProps) {
  if (!piece)
    return (
      <Sheet title="Did otherwise" onClose={onClose}>
        <p>All rounds are worked. What was put together otherwise goes into a note.</p>
      </Sheet>
    );
  return (
    <Sheet title="Did otherwise" onClose={onClose}>
      <InRound state={state} piece={piece} first={round + 1} onClose={onClose} />
    </Sheet>
  );
}

/** The round that it is said of is the one looked at, unless she chooses another. */
function InRound({
  state,
  piece,
  first,
  onClose,
}: {
  state: MakingState;
  piece: Piece;
  first: number;
  onClose: () => void;
}) {
  const [at, setAt] = useState(first);
  const { rungs } = piece.part;
  const rung = rungs[at - 1];
  const where = { part: piece.part.key, piece: piece.piece };
  const say: Say = (what) => {
    void state.say({ kind: "otherwise", ...where, round: at, many: 0, colour: "", text: "", ...what });
    onClose();
  };
  const rip = (to: number, text: string) => {
    void state.say({ kind: "ripped", ...where, round: to, text });
    onClose();
  };
  const left = Math.min(at, doneOf(state.progress, piece.part.key, piece.piece).done) - 1;
  return (
    <div className="flex flex-col gap-3">
      <Labelled label="In which round">
        {(id) => (
          <select id={id} className={boxClass} value={at} onChange={(e) => setAt(Number(e.target.value))}>
            {rungs.map((r, i) => (
              <option key={i} value={i + 1}>
                {r.label}: {r.work} [{r.count}]
              </option>
            ))}
          </select>
        )}
      </Labelled>
      {rung && <Usual rung={rung} say={say} />}
      <Colour yarns={state.row.making.sheet.yarns.map((y) => y.name)} say={say} />
      <InWords
        say={say}
        stands={left < 0 ? null : (rungs[left - 1]?.label ?? "")}
        onRip={(text) => rip(Math.max(left, 0), text)}
      />
    </div>
  );
}

/** One tap each: a stitch more or fewer, a round more, left out; and any count. */
function Usual({ rung, say }: { rung: Rung; say: Say }) {
  const [count, setCount] = useState("");
  const typed = numberIn(count, 1, 100_000);
  const near = [rung.count + 1, rung.count - 1].filter((n) => n > 0);
  return (
    <>
      <div className="flex flex-wrap gap-2">
        {near.map((n) => (
          <button
            key={n}
            type="button"
            className={buttonClass}
            onClick={() => say({ what: "count", many: n })}
          >
            {n} instead of {rung.count}
          </button>
        ))}
        <button type="button" className={buttonClass} onClick={() => say({ what: "more", many: 1 })}>
          One more round after it
        </button>
        <button type="button" className={buttonClass} onClick={() => say({ what: "left-out" })}>
          Left it out
        </button>
      </div>
      <div className="flex items-end gap-2">
        <Labelled label="It came to">
          {(id) => (
            <input
              id={id}
              className={boxClass}
              inputMode="numeric"
              value={count}
              onChange={(e) => setCount(e.target.value)}
            />
          )}
        </Labelled>
        <button
          type="button"
          className={mainClass}
          disabled={typed === null || !Number.isInteger(typed)}
          onClick={() => typed !== null && say({ what: "count", many: typed })}
        >
          stitches
        </button>
      </div>
    </>
  );
}

function Colour({ yarns, say }: { yarns: string[]; say: Say }) {
  const [colour, setColour] = useState("");
  return (
    <div className="flex items-end gap-2">
      <Labelled label="Another colour">
        {(id) => (
          <input
            id={id}
            className={boxClass}
            maxLength={40}
            value={colour}
            onChange={(e) => setColour(e.target.value)}
            list="making-yarns"
          />
        )}
      </Labelled>
      <datalist id="making-yarns">
        {yarns.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <button
        type="button"
        className={mainClass}
        disabled={!colour.trim()}
        onClick={() => say({ what: "colour", colour: colour.trim() })}
      >
        this round
      </button>
    </div>
  );
}

/** stands: label of the last round that stands after ripping back, '' for none, null where there is nothing to rip. */
function InWords({ say, stands, onRip }: { say: Say; stands: string | null; onRip: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <>
      <Labelled label="In words">
        {(id) => (
          <textarea
            id={id}
            className={boxClass}
            maxLength={2000}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        )}
      </Labelled>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className={mainClass}
          disabled={!text.trim()}
          onClick={() => say({ what: "other", text: text.trim() })}
        >
          Say it so
        </button>
        {stands !== null && (
          <button type="button" className={buttonClass} onClick={() => onRip(text.trim())}>
            Ripped back: {stands ? `${stands} is the last that stands` : "nothing stands"}
          </button>
        )}
      </div>
    </>
  );
}
