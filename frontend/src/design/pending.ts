/** What is still on its way to the studio: saved first, before anything that depends on it. */

import type { Schemas } from "../api/client";

type Design = Schemas["DesignOut"];
type Save = () => Promise<void>;

const waiting = new Map<number, Set<Save>>();

/** Have a save done before undo, redo and the like; the answer takes it off the list again. */
export function beforeActing(design: number, save: Save): () => void {
  const saves = waiting.get(design) ?? new Set();
  waiting.set(design, saves.add(save));
  return () => {
    saves.delete(save);
  };
}

/** Wait until everything typed in a design has been sent. */
export async function allSent(design: number): Promise<void> {
  await Promise.all([...(waiting.get(design) ?? [])].map((save) => save()));
}

type Shown = (design: Design) => void;

const watching = new Map<number, Set<Shown>>();

/** Hear of states of a design that replace what is on screen: undo, redo, going back, another shape. */
export function whenShownAnew(design: number, hear: Shown): () => void {
  const ears = watching.get(design) ?? new Set();
  watching.set(design, ears.add(hear));
  return () => {
    ears.delete(hear);
  };
}

/** Tell everybody who shows a part of a design that it stands differently now. */
export function tellShownAnew(design: Design): void {
  for (const hear of watching.get(design.id) ?? []) hear(design);
}
