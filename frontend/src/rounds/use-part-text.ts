/** A part's text with autosave: typed at once, saved as a draft after a breath, cut into a version when she rests. */
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { answer, api, type Problem, Refused, type Schemas } from "../api/client";
import { type Design, type Part, useAct } from "../design/design";
import { beforeActing, whenShownAnew } from "../design/pending";
import { dropUnsent, holdUnsent, keepUnsent, unsentText } from "../design/unsent";
import type { SaveState } from "../design/use-page";

const BREATH_MS = 500;
const REST_MS = 5000;
const RETRY_MS = 3000;

export type Conflict = { mine: string; theirs: string; etag: string };

export function usePartText(design: Design, part: Part, onOutside: (text: string) => void) {
  const item = useMemo(() => ({ kind: "text" as const, part: part.key }), [part.key]);
  const waiting = useRef(unsentText(design.id, part.key));
  const [text, setText] = useState(waiting.current?.text ?? part.text);
  const [state, setState] = useState<SaveState>(waiting.current ? "unsaved" : "saved");
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const etag = useRef(waiting.current?.etag ?? part.etag);
  const seen = useRef(new Set([etag.current, part.etag]));
  const pending = useRef<string | null>(waiting.current?.text ?? null);
  // A draft that was there already, before a reload, still waits to become a version.
  const uncut = useRef(!part.etag.startsWith("v"));
  const saving = useRef<Promise<void> | null>(null);
  const open = useRef(true);
  const breath = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const rest = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const act = useAct(design.id);
  const cutNow = useRef(act.mutate);
  cutNow.current = act.mutate;
  const outside = useRef(onOutside);
  outside.current = onOutside;

  const put = useCallback(async () => {
    const sent = pending.current;
    if (sent === null) return;
    setState("saving");
    try {
      const saved = await answer<Schemas["DraftOut"]>(
        api.PUT("/api/designs/{design_id}/parts/{key}/draft", {
          params: { path: { design_id: design.id, key: part.key } },
          body: { text: sent, etag: etag.current },
          keepalive: sent.length < 30_000,
        }),
      );
      etag.current = saved.etag;
      seen.current.add(saved.etag);
      uncut.current = true;
      setProblem(null);
      if (pending.current === sent) {
        pending.current = null;
        dropUnsent(design.id, item);
        setState("saved");
      }
    } catch (error) {
      const refused = error instanceof Refused ? error.problem : null;
      if (refused?.status === 409) {
        setConflict({
          mine: pending.current ?? sent,
          theirs: String(refused.theirs),
          etag: refused.etag ?? "",
        });
        setState("stale");
      } else if (!refused || refused.status === 0 || refused.status >= 500) {
        setState("offline");
        // Once it is left, the stop that is shown then sends what waits: two senders would hide it from each other.
        if (open.current) breath.current = setTimeout(() => void flush.current(), RETRY_MS);
      } else {
        setProblem(refused);
        setState("unsaved");
      }
    }
  }, [design.id, part.key, item]);

  /** Save what is pending; one save runs at a time. */
  const flush = useRef(async () => {});
  flush.current = async () => {
    clearTimeout(breath.current);
    while (saving.current) await saving.current;
    if (pending.current === null) return;
    saving.current = put().finally(() => {
      saving.current = null;
    });
    await saving.current;
  };

  const cut = useCallback(async () => {
    clearTimeout(rest.current);
    await flush.current();
    if (uncut.current && pending.current === null) {
      uncut.current = false;
      cutNow.current({ do: "cut", key: part.key });
    }
  }, [part.key]);

  const type = useCallback(
    (next: string) => {
      const first = pending.current === null;
      pending.current = next;
      keepUnsent(design.id, { ...item, text: next, etag: etag.current });
      // "Not saved yet" is told at once. The editor has the text already, so the rest of the screen may
      // follow when it can, however fast she types.
      if (first) setState("unsaved");
      startTransition(() => setText(next));
      clearTimeout(breath.current);
      clearTimeout(rest.current);
      breath.current = setTimeout(() => void flush.current(), BREATH_MS);
      rest.current = setTimeout(() => void cut(), REST_MS);
    },
    [design.id, item, cut],
  );

  const adopt = useCallback((now: Part) => {
    etag.current = now.etag;
    seen.current.add(now.etag);
    uncut.current = !now.etag.startsWith("v");
    setText(now.text);
    setState("saved");
    outside.current(now.text);
  }, []);

  // An undo or another shape: what it shows goes, since everything typed was sent before.
  useEffect(
    () =>
      whenShownAnew(design.id, (now) => {
        const mine = now.parts.find((p) => p.key === part.key);
        if (mine && mine.etag !== etag.current && pending.current === null) adopt(mine);
      }),
    [design.id, part.key, adopt],
  );

  // Another window changed the part. An answer with a tag that was passed already is only late.
  useEffect(() => {
    const busy = pending.current !== null || saving.current !== null;
    if (!busy && !seen.current.has(part.etag)) adopt(part);
  }, [part, adopt]);

  useEffect(() => beforeActing(design.id, () => flush.current()), [design.id]);

  // While it is open this screen sends its text itself; afterwards any stop does.
  useEffect(() => holdUnsent(design.id, `text-${part.key}`), [design.id, part.key]);

  useEffect(() => {
    open.current = true;
    if (pending.current !== null) void flush.current();
    const leave = () => void flush.current();
    window.addEventListener("pagehide", leave);
    return () => {
      open.current = false;
      window.removeEventListener("pagehide", leave);
      clearTimeout(breath.current);
      clearTimeout(rest.current);
      void cut();
    };
  }, [cut]);

  const settle = useCallback(
    (keep: "mine" | "theirs") => {
      if (!conflict) return;
      etag.current = conflict.etag;
      seen.current.add(conflict.etag);
      setConflict(null);
      if (keep === "theirs") {
        pending.current = null;
        dropUnsent(design.id, item);
        setText(conflict.theirs);
        setState("saved");
        outside.current(conflict.theirs);
      } else void flush.current();
    },
    [conflict, design.id, item],
  );

  return { text, type, state, conflict, problem, settle, cut };
}
