/** A note, or a photograph, with where it was made. */
import { useState } from "react";
import type { SheetProps } from "../menu";
import { boxClass, Labelled, mainClass, Sheet } from "../parts";
import { nameOf } from "../progress";

const MOST_MB = 10;

export function Note({ state, piece, round, onClose }: SheetProps) {
  const [text, setText] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const rung = piece?.part.rungs[round];
  const place = { part: piece?.part.key ?? "", round: piece ? round + 1 : 0 };
  const keep = async () => {
    if (await state.say({ kind: "note", text: text.trim(), ...place })) onClose();
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_MB * 2 ** 20) {
      setWhy(`A picture is at most ${MOST_MB} MB; this one has ${Math.round(file.size / 2 ** 20)}.`);
      return;
    }
    if (await state.photograph(file, { text: text.trim().slice(0, 200), ...place })) onClose();
  };
  return (
    <Sheet title="Note, photo" onClose={onClose}>
      <div className="flex flex-col gap-3">
        <p className="text-soft">
          {piece && rung ? `At ${nameOf(piece)}, ${rung.label}` : "Of the whole figure"}
        </p>
        <Labelled label="What is to be remembered">
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
        <button type="button" className={mainClass} disabled={!text.trim()} onClick={() => void keep()}>
          Keep the note
        </button>
        <Labelled label="Take a photograph, or choose one">
          {(id) => (
            <input
              id={id}
              type="file"
              accept="image/png,image/jpeg,image/webp"
              capture="environment"
              className={boxClass}
              onChange={(e) => void take(e.target.files?.[0])}
            />
          )}
        </Labelled>
        {why && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-3 py-1.5">
            {why}
          </p>
        )}
        {state.photos.size > 0 && (
          <ul aria-label="Photographs" className="flex flex-wrap gap-2">
            {[...state.photos].map(([id, url]) => (
              <li key={id}>
                <img src={url} alt="A photograph of this making" className="h-24 rounded-md" />
              </li>
            ))}
          </ul>
        )}
      </div>
    </Sheet>
  );
}
