/** A page of notes with quiet autosave: typed at once, written after a pause, never lost on the way out. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Problem, Refused } from "../api/client";
import { type Design, type FilledPage, type PageName, useAct } from "./design";
import { inTurn } from "./in-turn";
import { beforeActing } from "./pending";
import { dropUnsent, holdUnsent, keepUnsent, unsentPage } from "./unsent";
import { useLeaving } from "./use-leaving";

export type SaveState = "saved" | "saving" | "unsaved" | "offline" | "stale";
const PAUSE_MS = 700;
const RETRY_MS = 4000;

/** A page as the studio takes it: the name and the notes belong together. */
function filled<N extends PageName>(page: N, base: number, data: Design[N]): FilledPage {
  return { page, base, data } as FilledPage;
}

export function usePage<N extends PageName>(design: Design, page: N) {
  type Value = Design[N];
  const kept = useRef(unsentPage(design.id, page));
  const [value, setValue] = useState<Value>((kept.current?.data as Value | undefined) ?? design[page]);
  const [state, setState] = useState<SaveState>(kept.current ? "unsaved" : "saved");
  const [problem, setProblem] = useState<Problem | null>(null);
  const base = useRef(kept.current?.base ?? design.revision);
  const pending = useRef<Value | null>((kept.current?.data as Value | undefined) ?? null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const act = useAct(design.id, () => true);
  const send = useRef(act.mutateAsync);
  send.current = act.mutateAsync;

  const open = useRef(true);

  const flush = useMemo(() => {
    const again = inTurn(async () => {
      clearTimeout(timer.current);
      const data = pending.current;
      if (data === null) return;
      setState("saving");
      try {
        const saved = await send.current({ do: "page", filled: filled(page, base.current, data) });
        base.current = saved.revision;
        setProblem(null);
        // What was typed meanwhile stands on what has just been saved, and waits for its own turn.
        const waits = pending.current;
        if (waits !== null && waits !== data) {
          keepUnsent(design.id, { kind: "page", ...filled(page, base.current, waits) });
          setState("unsaved");
          return;
        }
        pending.current = null;
        dropUnsent(design.id, { kind: "page", page });
        setValue(saved[page]);
        setState("saved");
      } catch (error) {
        const refused = error instanceof Refused ? error.problem : null;
        setProblem(refused);
        if (refused?.status === 0 || refused === null) {
          setState("offline");
          // Once it is left, the stop that is shown then sends what waits.
          if (open.current) timer.current = setTimeout(again, RETRY_MS);
        } else {
          setState(refused.status === 409 ? "stale" : "unsaved");
        }
      }
    });
    return again;
  }, [page, design.id]);

  useEffect(() => beforeActing(design.id, flush), [design.id, flush]);

  const change = useCallback(
    (next: Value) => {
      setValue(next);
      pending.current = next;
      keepUnsent(design.id, { kind: "page", ...filled(page, base.current, next) });
      setState("unsaved");
      clearTimeout(timer.current);
      timer.current = setTimeout(flush, PAUSE_MS);
    },
    [flush, page, design.id],
  );

  // Another window, an undo or a redo changed the page: show it unless something is being typed here.
  useEffect(() => {
    if (pending.current === null) {
      base.current = design.revision;
      setValue(design[page]);
    }
  }, [design, page]);

  // While it is open this screen sends its page itself; afterwards any stop does.
  useEffect(() => holdUnsent(design.id, `page-${page}`), [design.id, page]);

  useLeaving(
    useMemo(
      () => ({
        enter: () => {
          open.current = true;
          if (pending.current !== null) void flush();
        },
        flush,
        leave: () => {
          open.current = false;
          void flush();
        },
      }),
      [flush],
    ),
  );

  /** After a refusal: take what the other window wrote, or write over it. */
  const settle = useCallback(
    (keep: "mine" | "theirs") => {
      if (problem?.revision !== undefined) base.current = problem.revision;
      if (keep === "theirs") {
        pending.current = null;
        dropUnsent(design.id, { kind: "page", page });
        setValue(problem?.theirs as Value);
        setState("saved");
        setProblem(null);
      } else void flush();
    },
    [flush, problem, page, design.id],
  );

  return { value, change, state, problem, settle, flush };
}
