/** A placed part moved by keys or buttons: a stitch, a round, five degrees; snapped to the middle. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from "lucide-react";
import type { KeyboardEvent } from "react";
import { Button, IconButton } from "../ui/controls";

export type Move = { stitch?: number; round?: number; tilt?: number; turn?: number; middle?: boolean };

/** What a key does; Shift tilts and turns. Left is the viewer's left. */
export function moveOf(key: string, shift: boolean): Move | null {
  if (key === "Home") return { middle: true };
  const way = {
    ArrowLeft: [1, 0],
    ArrowRight: [-1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  }[key];
  if (!way) return null;
  const [along, up] = way as [number, number];
  if (shift) return along ? { turn: 5 * along } : { tilt: 5 * up };
  return along ? { stitch: along } : { round: up };
}

export function Nudge({ mirrored, onMove }: { mirrored: boolean; onMove: (move: Move) => void }) {
  const move = (key: string, shift = false) => {
    const found = moveOf(key, shift);
    if (!found) return false;
    onMove(mirrored && found.stitch ? { stitch: -found.stitch } : found);
    return true;
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (!e.altKey && !e.ctrlKey && !e.metaKey && move(e.key, e.shiftKey)) e.preventDefault();
  };
  return (
    <fieldset className="flex flex-wrap items-center gap-1" onKeyDown={onKeyDown}>
      <legend className="sr-only">
        Move it: arrow keys a stitch or a round, with Shift five degrees, Home to the middle
      </legend>
      <IconButton label="A stitch to the left" onClick={() => move("ArrowLeft")}>
        <ArrowLeft size={16} />
      </IconButton>
      <IconButton label="A stitch to the right" onClick={() => move("ArrowRight")}>
        <ArrowRight size={16} />
      </IconButton>
      <IconButton label="A round up" onClick={() => move("ArrowUp")}>
        <ArrowUp size={16} />
      </IconButton>
      <IconButton label="A round down" onClick={() => move("ArrowDown")}>
        <ArrowDown size={16} />
      </IconButton>
      <Button weight="quiet" className="px-2" onClick={() => move("Home")}>
        To the middle
      </Button>
    </fieldset>
  );
}
