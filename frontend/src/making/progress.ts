/**
 * How far a making is, by its log: the little of the studio's own reading (`craft.making.fold`) that a phone needs while
 * it has no net. `tests/golden/makings.json` holds both to the same answers.
 */
import type { LogEvent, PartSheet, Sheet } from "./types";

export type Place = { part: string; piece: number; done: number; stitches: number };

export type Progress = {
  pieces: Place[];
  /** The piece worked on last. */
  at: Place | null;
  steps: number[];
  hook: number | null;
  skeins: Record<string, string>;
  note: string;
  finished: boolean;
  /** Events that count no longer. */
  gone: Set<string>;
};

/** All events, each once, by time, yet never against a device's own order. */
export function inOrder(events: readonly LogEvent[]): LogEvent[] {
  const unique = [...new Map(events.map((e) => [e.id, e])).values()];
  const text = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  unique.sort((a, b) => text(a.device, b.device) || a.seq - b.seq || a.at - b.at || text(a.id, b.id));
  const latest = new Map<string, number>();
  const timed = unique.map((event) => {
    const at = Math.max(event.at, latest.get(event.device) ?? 0);
    latest.set(event.device, at);
    return { at, event };
  });
  timed.sort(
    (a, b) =>
      a.at - b.at ||
      text(a.event.device, b.event.device) ||
      a.event.seq - b.event.seq ||
      text(a.event.id, b.event.id),
  );
  return timed.map((t) => t.event);
}

export function progressOf(events: readonly LogEvent[]): Progress {
  const ordered = inOrder(events);
  const gone = new Set(ordered.flatMap((e) => (e.kind === "withdrawn" ? [e.event] : [])));
  const pieces = new Map<string, Place>();
  const steps = new Set<number>();
  const found: Progress = {
    pieces: [],
    at: null,
    steps: [],
    hook: null,
    skeins: {},
    note: "",
    finished: false,
    gone,
  };
  const move = (part: string, piece: number, done: number, stitches: number) => {
    found.at = { part, piece, done, stitches };
    pieces.set(`${part}/${piece}`, found.at);
    found.finished = false;
  };
  for (const e of ordered) {
    if (gone.has(e.id)) continue;
    if (e.kind === "done") {
      move(e.part, e.piece, Math.max(e.round, pieces.get(`${e.part}/${e.piece}`)?.done ?? 0), 0);
    } else if (e.kind === "ripped") move(e.part, e.piece, e.round, 0);
    else if (e.kind === "stitched") {
      const done = pieces.get(`${e.part}/${e.piece}`)?.done ?? 0;
      move(e.part, e.piece, done, e.round === done + 1 ? e.stitches : 0);
    } else if (e.kind === "step") {
      if (e.undone) steps.delete(e.step);
      else steps.add(e.step);
    } else if (e.kind === "hook") found.hook = e.mm;
    else if (e.kind === "skein") found.skeins[e.yarn] = e.text;
    else if (e.kind === "note") found.note = e.text;
    else if (e.kind === "finished") found.finished = true;
  }
  found.pieces = [...pieces.values()];
  found.steps = [...steps].sort((a, b) => a - b);
  return found;
}

export function doneOf(progress: Progress, part: string, piece: number): Place {
  return (
    progress.pieces.find((p) => p.part === part && p.piece === piece) ?? { part, piece, done: 0, stitches: 0 }
  );
}

export type Piece = { part: PartSheet; piece: number };

/** Every piece to be worked, in order. */
export function piecesOf(sheet: Sheet): Piece[] {
  return sheet.parts.flatMap((part) => Array.from({ length: part.make }, (_, i) => ({ part, piece: i + 1 })));
}

/** What is to be worked: the piece worked on last until it is done, then the first that is not; null when all are. */
export function nextPiece(sheet: Sheet, progress: Progress): Piece | null {
  const all = piecesOf(sheet);
  const open = (p: Piece) => doneOf(progress, p.part.key, p.piece).done < p.part.rungs.length;
  const at = progress.at;
  const last = at && all.find((p) => p.part.key === at.part && p.piece === at.piece);
  if (last && open(last)) return last;
  const after = last ? all.slice(all.indexOf(last) + 1).find(open) : undefined;
  return after ?? all.find(open) ?? null;
}

export const nameOf = ({ part, piece }: Piece) =>
  part.make > 1 ? `${part.name} ${piece} of ${part.make}` : part.name;

/** Stitches that are done, and all of them. */
export function stitchesOf(sheet: Sheet, progress: Progress): [done: number, all: number] {
  let done = 0;
  let all = 0;
  for (const { part, piece } of piecesOf(sheet)) {
    const here = doneOf(progress, part.key, piece).done;
    part.rungs.forEach((rung, i) => {
      all += rung.made;
      if (i < here) done += rung.made;
    });
  }
  return [done, all];
}
