/** Coming from elsewhere to one round of a part: its line is gone to and its rung lit, once the part has been read. */
import { useEffect, useRef } from "react";
import type { Preview } from "./ask";

/** Whether a label such as "R6", "R5-R8" or "Row 3" holds a round's number. */
export function holds(label: string, round: number): boolean {
  const [first, last] = (label.match(/\d+/g) ?? []).map(Number);
  return first !== undefined && first <= round && round <= (last ?? first);
}

/** The line of a round in what was read: of the round, or of a problem that names it; null when neither is there. */
export function lineOf(preview: Preview, round: number): number | null {
  const worked = preview.part.rounds.find((r) => holds(r.label, round));
  return (
    worked?.line ?? preview.problems.find((p) => p.round !== null && holds(p.round, round))?.line ?? null
  );
}

export function useArrival(round: number | null, preview: Preview | null, go: (line: number) => void): void {
  const arrived = useRef<number | null>(null);
  const gone = useRef(go);
  gone.current = go;
  useEffect(() => {
    if (round === null || preview === null || arrived.current === round) return;
    arrived.current = round;
    const line = lineOf(preview, round);
    if (line !== null) gone.current(line);
  }, [round, preview]);
}
