/** A piece as it stands on its shelf: how it looks, where it is open, whose it is and on what terms. */
import type { ReactNode } from "react";
import { type Piece, portWords, SLOT_NAMES, usePiecePicture } from "./pieces";

/** What is dragged when a piece is: its number. */
export const PIECE_DRAG = "application/x-spirrel-piece";

/** draggable: onto a figure. */
export function PieceCard({
  piece,
  draggable = false,
  children,
}: {
  piece: Piece;
  draggable?: boolean;
  children?: ReactNode;
}) {
  const { url, settling } = usePiecePicture(piece.id);
  return (
    <li
      className={`flex flex-col rounded-lg border border-line bg-panel ${draggable ? "cursor-grab" : ""}`}
      draggable={draggable}
      onDragStart={(e) => {
        e.dataTransfer.setData(PIECE_DRAG, String(piece.id));
        e.dataTransfer.effectAllowed = "copy";
      }}
    >
      <div className="grid h-36 place-items-center p-3 *:min-h-0" aria-busy={settling}>
        <img src={url} alt="" loading="lazy" draggable={false} className="size-full object-contain" />
      </div>
      <div className="flex flex-1 flex-col gap-1 px-3 pb-3 text-sm">
        <h2 className="text-lg leading-tight">{piece.title}</h2>
        <p className="text-soft">
          {SLOT_NAMES[piece.slot]}, {piece.own ? "your own" : `by ${piece.designer || "somebody else"}`}
          {piece.version && `, version ${piece.version}`}
        </p>
        {piece.made_from.length > 0 && <p>Made from {piece.made_from.join("; ")}.</p>}
        <p>
          {piece.parts.join(", ")}: {piece.rounds} rounds, {piece.stitches.toLocaleString("en")} stitches;{" "}
          {portWords(piece)}.
        </p>
        {piece.faults > 0 && (
          <p className="border-l-4 border-madder bg-madder-ground px-2">
            {piece.faults} {piece.faults === 1 ? "fault" : "faults"} in its rounds
          </p>
        )}
        <details>
          <summary className="cursor-pointer">Terms</summary>
          <ul className="list-disc pl-5">
            {piece.terms.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </details>
        {piece.tags.length > 0 && (
          <ul className="flex flex-wrap gap-1" aria-label="Tags">
            {piece.tags.map((t) => (
              <li key={t} className="rounded bg-sunk px-1.5">
                {t}
              </li>
            ))}
          </ul>
        )}
        <span className="mt-auto flex flex-wrap items-center gap-1 pt-1">{children}</span>
      </div>
    </li>
  );
}
