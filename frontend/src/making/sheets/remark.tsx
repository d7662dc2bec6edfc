/** What a tester says of the round in hand, by pointing; and what was answered to her. */
import { useState } from "react";
import type { SheetProps } from "../menu";
import { boxClass, buttonClass, Labelled, Sheet } from "../parts";
import { nameOf } from "../progress";
import type { Answer } from "../types";

const KINDS = [
  ["unclear", "Unclear"],
  ["wrong-count", "The count is wrong"],
  ["liked", "I liked this"],
] as const;

const SAID: Record<Answer["state"], string> = {
  changed: "changed",
  stays: "stays as it is",
  open: "still open",
};

export function RemarkSheet({ state, piece, round, onClose }: SheetProps) {
  const [text, setText] = useState("");
  const [whole, setWhole] = useState(piece === null);
  const rung = piece?.part.rungs[round];
  const answers = new Map((state.row.making.answers ?? []).map((a) => [a.event, a]));
  const say = async (what: (typeof KINDS)[number][0]) => {
    const place = whole || !piece ? { part: "", round: 0 } : { part: piece.part.key, round: round + 1 };
    if (await state.say({ kind: "remark", what, text: text.trim(), ...place })) onClose();
  };
  const mine = state.events.filter((e) => e.kind === "remark" && !state.progress.gone.has(e.id));
  return (
    <Sheet title="Remark" onClose={onClose}>
      <div className="flex flex-col gap-3">
        {piece && rung && (
          <div className="flex gap-2">
            <button
              type="button"
              aria-pressed={!whole}
              className={buttonClass}
              onClick={() => setWhole(false)}
            >
              {nameOf(piece)}, {rung.label}
            </button>
            <button type="button" aria-pressed={whole} className={buttonClass} onClick={() => setWhole(true)}>
              The whole pattern
            </button>
          </div>
        )}
        <Labelled label="In words, if you like">
          {(id) => (
            <textarea
              id={id}
              className={boxClass}
              rows={3}
              maxLength={2000}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          )}
        </Labelled>
        <div className="flex flex-wrap gap-2">
          {KINDS.map(([what, label]) => (
            <button key={what} type="button" className={buttonClass} onClick={() => void say(what)}>
              {label}
            </button>
          ))}
        </div>
        {mine.length > 0 && (
          <ul aria-label="What you said" className="flex flex-col gap-2 border-t border-line pt-3 text-sm">
            {mine.map((e) => {
              if (e.kind !== "remark") return null;
              const answer = answers.get(e.id);
              return (
                <li key={e.id}>
                  {e.what.replace("-", " ")}
                  {e.text && `: “${e.text}”`}
                  {answer && (
                    <span className="block border-l-4 border-moss bg-moss-ground px-2">
                      {SAID[answer.state]}
                      {answer.version && ` in version ${answer.version}`}
                      {answer.text && `: ${answer.text}`}
                    </span>
                  )}
                  <button
                    type="button"
                    className={`${buttonClass} mt-1`}
                    onClick={() => void state.say({ kind: "withdrawn", event: e.id })}
                  >
                    Take back<span className="sr-only"> {e.what.replace("-", " ")}</span>
                  </button>
                </li>
              );
            })}
          </ul>
        )}
      </div>
    </Sheet>
  );
}
