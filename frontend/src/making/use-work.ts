/** The work itself: which round is looked at, a round done, a stitch, the last one taken back. */
import { useEffect, useState } from "react";
import type { Preferences } from "./preferences";
import { doneOf, inOrder, nextPiece, type Piece } from "./progress";
import { felt, readAloud, said } from "./senses";
import type { MakingState } from "./use-making";

/** The piece and the round that are looked at: where the work is, unless she turned to another. */
export function useLookedAt(state: MakingState) {
  const { sheet } = state.row.making;
  const [turned, setTurned] = useState<{ piece: Piece; round: number | null } | null>(null);
  const piece = turned?.piece ?? nextPiece(sheet, state.progress);
  const place = piece ? doneOf(state.progress, piece.part.key, piece.piece) : null;
  const round = turned?.round ?? place?.done ?? 0;
  return {
    piece,
    place,
    round: piece ? Math.min(round, piece.part.rungs.length - 1) : 0,
    elsewhere: turned?.round !== null && turned?.round !== undefined && turned.round !== place?.done,
    turn: (to: Piece, at: number | null = null) => setTurned({ piece: to, round: at }),
    back: () => setTurned(null),
  };
}

export type LookedAt = ReturnType<typeof useLookedAt>;

/** What she does at the round in hand. on: what one press of the large control, or of a clicker, means now. */
export function useWork(state: MakingState, looked: LookedAt, likes: Preferences) {
  const { piece, place } = looked;
  const rungs = piece?.part.rungs ?? [];
  const where = { part: piece?.part.key ?? "", piece: piece?.piece ?? 1, round: (place?.done ?? 0) + 1 };

  const stitched = (stitches: number) => state.say({ kind: "stitched", ...where, stitches });
  const finishRound = async () => {
    if (!piece || !place || place.done >= rungs.length) return;
    felt(true);
    if (!(await state.say({ kind: "done", ...where }))) return;
    const next = rungs[where.round];
    if (next) looked.turn(piece);
    else looked.back();
    if (likes.aloud && next) readAloud(said(next));
  };
  const stitch = async () => {
    if (!piece || !place) return;
    felt(false);
    await stitched(place.stitches + 1);
  };
  const takeBack = async () => {
    const last = inOrder(state.events)
      .filter((e) => (e.kind === "done" || e.kind === "stitched") && !state.progress.gone.has(e.id))
      .at(-1);
    if (last) await state.say({ kind: "withdrawn", event: last.id });
  };
  const on = () => {
    if (looked.elsewhere && piece) return looked.turn(piece);
    const inHand = rungs[place?.done ?? 0];
    const more = likes.clicks && place && inHand && place.stitches + 1 < inHand.made;
    void (more ? stitch() : finishRound());
  };
  return { on, finishRound, stitch, stitched, takeBack };
}

export type Work = ReturnType<typeof useWork>;

/** Keys of a keyboard, and of a clicker, which sends them: on, and back. */
export function useClicker(on: () => void, back: () => void): void {
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.closest("input, textarea, select, button, a, dialog");
      if (typing || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      if ([" ", "Enter", "PageDown", "ArrowRight"].includes(e.key)) {
        e.preventDefault();
        on();
      } else if (["Backspace", "PageUp", "ArrowLeft"].includes(e.key)) {
        e.preventDefault();
        back();
      }
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [on, back]);
}
