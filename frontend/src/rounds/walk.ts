/** Walking through a dry run: where the hook is, and what it does there, in words. */
import type { DryRun } from "./ask";

export type Place = { round: number; move: number };

/** The place `by` movements or rounds on; it stays within the run. */
export function stepBy(run: DryRun, place: Place, by: number, unit: "move" | "round"): Place {
  const last = run.rounds.length - 1;
  if (unit === "round") {
    const round = Math.min(last, Math.max(0, place.round + by));
    return { round, move: 0 };
  }
  const moves = run.rounds[place.round]?.moves.length ?? 0;
  const move = place.move + by;
  if (move >= moves && place.round < last) return { round: place.round + 1, move: 0 };
  if (move < 0 && place.round > 0) {
    const round = place.round - 1;
    return { round, move: Math.max((run.rounds[round]?.moves.length ?? 1) - 1, 0) };
  }
  return { round: place.round, move: Math.min(Math.max(move, 0), Math.max(moves - 1, 0)) };
}

const LOOPS: Record<string, string> = {
  front: " through the front loop",
  back: " through the back loop",
  "front-post": " around the front post",
  "back-post": " around the back post",
};

/** What the hook does at a place: the stitch, where it goes, and both edges. */
export function said(run: DryRun, place: Place) {
  const round = run.rounds[place.round];
  const move = round?.moves[place.move];
  if (!round || !move)
    return { stitch: "Nothing", into: "to work", count: "", how: "", waiting: [], now: [], made: [] };
  const done = round.moves.slice(0, place.move);
  const used = new Set(done.flatMap((m) => m.into));
  const waiting = round.edge.filter((n) => !used.has(n) || move.into.includes(n));
  const made = done.flatMap((m) => m.makes).reverse();
  const names = move.into.map((n) => run.places[n] ?? "");
  const into = names.length
    ? `into ${names.join(" and ")}${LOOPS[move.loops] ?? ""}`
    : "into nothing: it begins here";
  const makes = move.makes.length;
  const after = made.length + makes;
  const count = `Movement ${place.move + 1} of ${round.moves.length}; ${after} made after it`;
  return { stitch: move.stitch, into, count, how: move.how, waiting, now: move.into, made };
}
