/** The board of a text: what it was read as, with every correction a step that can be undone. */
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer, useState } from "react";
import { askBoard, type Written } from "./ask";
import { FIRST_STEP, now, type Said, type Steps, stepped, type Terms } from "./said";

const MOST_KEPT = 1_000_000;

type Kept = { written: Written; steps: Steps };

/** What was under way here before a reload. */
function kept(place: string): Kept | null {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? "null") as Kept | null;
  } catch {
    return null;
  }
}

function keep(place: string, value: Kept | null): void {
  try {
    if (value && value.written.text.length <= MOST_KEPT) sessionStorage.setItem(place, JSON.stringify(value));
    else sessionStorage.removeItem(place);
  } catch {
    // A full store keeps nothing; the text is still in its file.
  }
}

/** place: whose text it is, so that a reload finds it again. into: the terms that parts are put into. */
export function useBoard(place: string, into: Terms | null) {
  const key = `bring-in ${place}`;
  const [written, setWritten] = useState<Written | null>(() => kept(key)?.written ?? null);
  const [steps, step] = useReducer(stepped, null, () => kept(key)?.steps ?? FIRST_STEP);
  const said = now(steps);
  const queries = useQueryClient();
  useEffect(() => keep(key, written && { written, steps }), [key, written, steps]);
  const question = useCallback(
    (asked: Said) => ({
      queryKey: ["board", written, asked, into],
      queryFn: () => askBoard(written as Written, asked, into),
      staleTime: Infinity,
      gcTime: 60_000,
      retry: false,
    }),
    [written, into],
  );
  const { data, error, isFetching } = useQuery({
    ...question(said),
    enabled: written !== null,
    placeholderData: keepPreviousData,
  });
  const say = useCallback((to: Said) => step({ to }), []);
  return {
    written,
    start: useCallback((next: Written | null) => {
      step("anew");
      setWritten(next);
    }, []),
    board: written ? (data ?? null) : null,
    error,
    reading: isFetching,
    said,
    say,
    /** Say it only if the studio understands it; throws what it refuses. */
    trySaying: async (to: Said) => {
      await queries.fetchQuery(question(to));
      say(to);
    },
    undo: steps.at > 0 ? () => step("undo") : null,
    redo: steps.at < steps.all.length - 1 ? () => step("redo") : null,
  };
}

export type BoardState = ReturnType<typeof useBoard>;
