/** The making log and the testers: rows of their own, kept in this browser until the studio has them. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { answer, api, Refused, type Schemas, sentence } from "../api/client";
import { inTurn } from "../design/in-turn";
import type { SaveState } from "../design/use-page";

export type Entry = Schemas["LogEntryOut"];
export type Tester = Schemas["TesterOut"];
type Proving = Schemas["Proving"];

const PAUSE_MS = 700;
const RETRY_MS = 4000;

/** One change of one row. Sent twice it is the same row: its id was made here. */
export type Change =
  | { row: "log"; id: string; value: Omit<Entry, "id"> | null }
  | { row: "testers"; id: string; value: Omit<Tester, "id"> | null };

function send(design: number, change: Change): Promise<Proving> {
  const path = { design_id: design };
  if (change.row === "log") {
    const params = { path: { ...path, entry_id: change.id } };
    return change.value
      ? answer(api.PUT("/api/designs/{design_id}/proving/log/{entry_id}", { params, body: change.value }))
      : answer(api.DELETE("/api/designs/{design_id}/proving/log/{entry_id}", { params }));
  }
  const params = { path: { ...path, tester_id: change.id } };
  return change.value
    ? answer(api.PUT("/api/designs/{design_id}/proving/testers/{tester_id}", { params, body: change.value }))
    : answer(api.DELETE("/api/designs/{design_id}/proving/testers/{tester_id}", { params }));
}

const keyOf = (design: number) => `spirrel-proving-${design}`;

function readWaiting(design: number): Map<string, Change> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(design)) ?? "[]");
    if (Array.isArray(kept)) return new Map(kept as [string, Change][]);
  } catch {
    localStorage.removeItem(keyOf(design));
  }
  return new Map();
}

/** Whether a row says enough to be kept: a note has words, a tester a name. */
function whole(change: Change): boolean {
  if (!change.value) return true;
  return "text" in change.value ? change.value.text.trim() !== "" : change.value.name.trim() !== "";
}

/** What the studio has, with what waits here laid over it. */
export function laidOver(stored: Proving, waiting: ReadonlyMap<string, Change>): Proving {
  const log = new Map(stored.log.map((e) => [e.id, e]));
  const testers = new Map(stored.testers.map((t) => [t.id, t]));
  for (const change of waiting.values()) {
    if (change.row === "log") {
      if (change.value) log.set(change.id, { id: change.id, ...change.value });
      else log.delete(change.id);
    } else if (change.value) testers.set(change.id, { id: change.id, ...change.value });
    else testers.delete(change.id);
  }
  return { log: [...log.values()], testers: [...testers.values()] };
}

export function useProvingRows(design: number) {
  const queries = useQueryClient();
  const stored = useQuery({
    queryKey: ["proving", design],
    queryFn: () =>
      answer<Proving>(
        api.GET("/api/designs/{design_id}/proving", { params: { path: { design_id: design } } }),
      ),
  });
  const waiting = useRef(readWaiting(design));
  const [shown, setShown] = useState<ReadonlyMap<string, Change>>(waiting.current);
  const [state, setState] = useState<SaveState>("saved");
  const [problem, setProblem] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const { mutateAsync } = useMutation({ mutationFn: (change: Change) => send(design, change) });

  const keep = useCallback(() => {
    const rows = [...waiting.current];
    if (rows.length) localStorage.setItem(keyOf(design), JSON.stringify(rows));
    else localStorage.removeItem(keyOf(design));
    setShown(new Map(waiting.current));
  }, [design]);

  const flush = useMemo(() => {
    const again = inTurn(async () => {
      clearTimeout(timer.current);
      for (const [key, change] of waiting.current) {
        if (!whole(change)) continue;
        setState("saving");
        try {
          const now = await mutateAsync(change);
          queries.setQueryData(["proving", design], now);
          // What was typed meanwhile waits on.
          if (waiting.current.get(key) === change) waiting.current.delete(key);
          keep();
          setProblem(null);
        } catch (error) {
          const lost =
            !(error instanceof Refused) || error.problem.status === 0 || error.problem.status >= 500;
          setState(lost ? "offline" : "unsaved");
          setProblem(lost ? null : sentence(error));
          if (lost) timer.current = setTimeout(() => void again(), RETRY_MS);
          return;
        }
      }
      setState([...waiting.current.values()].some(whole) ? "unsaved" : "saved");
    });
    return again;
  }, [design, keep, mutateAsync, queries]);

  const change = useCallback(
    (next: Change) => {
      waiting.current.set(`${next.row}:${next.id}`, next);
      keep();
      setState("unsaved");
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), PAUSE_MS);
    },
    [flush, keep],
  );

  useEffect(() => {
    void flush();
    const leave = () => void flush();
    window.addEventListener("pagehide", leave);
    window.addEventListener("online", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("online", leave);
      leave();
    };
  }, [flush]);

  const rows = laidOver(stored.data ?? { log: [], testers: [] }, shown);
  return { rows, change, state, problem: problem ?? (stored.error ? sentence(stored.error) : null) };
}
