/** What a figure is drawn by: for every slot a number, or the piece that is held there; a line of them can be shared. */
import type { Slot } from "./pieces";

export const DRAWN: readonly Slot[] = ["body", "head", "limb", "on-top", "held"];
const MOST_SEED = 9999;

export type Pick = { seed: number } | { piece: number };
export type Picks = Partial<Record<Slot, Pick>>;

export const fresh = (): Pick => ({ seed: Math.floor(Math.random() * (MOST_SEED + 1)) });

/** All slots as one line, x for one that stays empty, =7 for the piece 7 that is held: "17-402-=7-x-88". */
export function codeOf(picks: Picks): string {
  return DRAWN.map((slot) => {
    const pick = picks[slot];
    if (!pick) return "x";
    return "seed" in pick ? String(pick.seed) : `=${pick.piece}`;
  }).join("-");
}

/** The slots of a line; null when it is none. */
export function picksOf(code: string): Picks | null {
  const said = code.trim().split("-");
  if (said.length !== DRAWN.length || !said.every((n) => /^(x|\d{1,4}|=\d{1,9})$/.test(n))) return null;
  return Object.fromEntries(
    DRAWN.flatMap((slot, i) => {
      const word = said[i] ?? "x";
      if (word === "x") return [];
      return [[slot, word.startsWith("=") ? { piece: Number(word.slice(1)) } : { seed: Number(word) }]];
    }),
  );
}

/** Other numbers for every slot that is not held; those that are empty stay so. */
export function drawnAgain(now: Picks): Picks {
  return Object.fromEntries(
    DRAWN.flatMap((slot) => {
      const pick = now[slot];
      return pick ? [[slot, "piece" in pick ? pick : fresh()]] : [];
    }),
  );
}

/** Numbers for every slot. */
export const drawnFirst = (): Picks => Object.fromEntries(DRAWN.map((slot) => [slot, fresh()]));

/** As the studio is asked. */
export function asked(picks: Picks) {
  const seeds: Partial<Record<Slot, number>> = {};
  const held: Partial<Record<Slot, number>> = {};
  for (const slot of DRAWN) {
    const pick = picks[slot];
    if (pick && "seed" in pick) seeds[slot] = pick.seed;
    else if (pick) held[slot] = pick.piece;
  }
  return { seeds, held, name: "Drawn by lot" };
}
