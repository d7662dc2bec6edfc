/** What she says of a text that is brought in: what its lines are, where they part and join, what its words mean. */
import type { Schemas } from "../api/client";

export type Taken = Schemas["BoardLineOut"]["taken"];
export type Terms = Schemas["BoardOut"]["terms"];
export type Correction = { line: number; column: number; taken: Taken | null; joined: boolean };
export type Word = { word: string; means: string };
export type Said = { terms: Terms | null; corrections: readonly Correction[]; words: readonly Word[] };
export type Place = { line: number; column: number };

export const NOTHING_SAID: Said = { terms: null, corrections: [], words: [] };

const isAt = (a: Place, b: Place) => a.line === b.line && a.column === b.column;

/** Whether a correction says anything: one in the middle of a line parts it, whatever else it says. */
const says = (c: Correction) => c.column > 0 || c.taken !== null || c.joined;

function changed(said: Said, at: Place, change: Partial<Correction>): Said {
  const { line, column } = at;
  const before = said.corrections.find((c) => isAt(c, at)) ?? { line, column, taken: null, joined: false };
  const others = said.corrections.filter((c) => !isAt(c, at));
  const next = { ...before, ...change };
  return { ...said, corrections: says(next) ? [...others, next] : others };
}

/** A row taken for something else; null lets it be read as it is. */
export function takenFor(said: Said, at: Place, taken: Taken | null): Said {
  return changed(said, at, { taken });
}

/** A row that goes on in the next one, or no longer does. */
export function joined(said: Said, at: Place, on: boolean): Said {
  return changed(said, at, { joined: on });
}

/** A line parted: from `column` on it is a row of its own. */
export function partedAt(said: Said, at: Place): Said {
  return changed(said, at, {});
}

/** A row in the middle of a line put back to what stands before it. */
export function wholeAgain(said: Said, at: Place): Said {
  return { ...said, corrections: said.corrections.filter((c) => !isAt(c, at)) };
}

/** A word with its meaning, instead of any that it had; no meaning lets it go. */
export function explained(said: Said, word: string, means: string): Said {
  const others = said.words.filter((w) => w.word.toLowerCase() !== word.toLowerCase());
  return { ...said, words: means.trim() ? [...others, { word, means: means.trim() }] : others };
}

/** Steps back and forth. at: the step that is shown. */
export type Steps = { all: readonly Said[]; at: number };

export const FIRST_STEP: Steps = { all: [NOTHING_SAID], at: 0 };

export const now = ({ all, at }: Steps): Said => all[at] ?? NOTHING_SAID;

export type Move = { to: Said } | "undo" | "redo" | "anew";

export function stepped(steps: Steps, move: Move): Steps {
  if (move === "anew") return FIRST_STEP;
  if (move === "undo") return { ...steps, at: Math.max(0, steps.at - 1) };
  if (move === "redo") return { ...steps, at: Math.min(steps.all.length - 1, steps.at + 1) };
  return { all: [...steps.all.slice(0, steps.at + 1), move.to], at: steps.at + 1 };
}

/** Where words of a row begin behind its first, in code points of its line: places where it may be parted. */
export function gaps(raw: string, column: number): { at: number; before: string; after: string }[] {
  const row = [...raw].slice(column);
  const found: { at: number; before: string; after: string }[] = [];
  for (let i = 1; i < row.length; i++) {
    if (/\s/.test(row[i - 1] ?? "") && /\S/.test(row[i] ?? "") && row.slice(0, i).some((c) => /\S/.test(c)))
      found.push({ at: column + i, before: row.slice(0, i).join(""), after: row.slice(i).join("") });
  }
  return found;
}

/** The lines of a text, as the studio numbers them. */
export function linesOf(text: string): string[] {
  return text.split(/\r\n|\n|\r/);
}
