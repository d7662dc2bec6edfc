/** All pieces with how far they are; she may turn to any of them. */
import type { SheetProps } from "../menu";
import { buttonClass, Sheet } from "../parts";
import { doneOf, nameOf, type Piece } from "../progress";

export function Overview({
  state,
  piece,
  onClose,
  pieces,
  onPiece,
}: SheetProps & { pieces: Piece[]; onPiece: (piece: Piece) => void }) {
  const { making } = state.row;
  return (
    <Sheet title={making.sheet.title} onClose={onClose}>
      <p className="mb-2 text-sm text-soft">
        {making.title}, {making.edition}
      </p>
      {making.asks && (
        <p className="mb-2 border-l-4 border-woad bg-woad-ground px-3 py-1.5">
          {state.row.designer} asks: {making.asks}
          {making.until && ` Until ${making.until}.`}
        </p>
      )}
      <ul className="flex flex-col gap-2">
        {pieces.map((one) => {
          const { done } = doneOf(state.progress, one.part.key, one.piece);
          const all = one.part.rungs.length;
          const here = piece?.part.key === one.part.key && piece.piece === one.piece;
          return (
            <li key={`${one.part.key}${one.piece}`}>
              <button
                type="button"
                aria-current={here ? "true" : undefined}
                className={`${buttonClass} w-full justify-between ${here ? "border-woad bg-woad-ground" : ""}`}
                disabled={done >= all}
                onClick={() => onPiece(one)}
              >
                <span>{nameOf(one)}</span>{" "}
                <span className="text-soft">{done >= all ? "done" : `${done} of ${all} rounds`}</span>
              </button>
            </li>
          );
        })}
      </ul>
      {state.progress.note && <p className="mt-3 text-sm">Last note: {state.progress.note}</p>}
    </Sheet>
  );
}
