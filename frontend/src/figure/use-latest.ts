/** One question in flight; while it runs only the newest of the later ones waits. The latest answer wins. */
import { startTransition, useCallback, useEffect, useRef, useState } from "react";

export function useLatest<Q, A>(
  question: Q,
  ask: (question: Q) => Promise<A>,
  same: (a: Q, b: Q) => boolean = Object.is,
) {
  const [answer, setAnswer] = useState<A | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const running = useRef(false);
  const waiting = useRef<{ question: Q } | null>(null);
  const asked = useRef<{ question: Q } | null>(null);
  const alive = useRef(true);
  const how = useRef(ask);
  how.current = ask;
  const run = useCallback(async (first: Q) => {
    running.current = true;
    startTransition(() => setBusy(true));
    let next: { question: Q } | null = { question: first };
    while (next !== null && alive.current) {
      waiting.current = null;
      try {
        const got = await how.current(next.question);
        if (alive.current && waiting.current === null) {
          setAnswer(got);
          setError(null);
        }
      } catch (e) {
        if (alive.current && waiting.current === null) setError(e);
      }
      next = waiting.current;
    }
    running.current = false;
    if (alive.current) setBusy(false);
  }, []);
  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
    };
  }, []);
  useEffect(() => {
    if (asked.current && same(asked.current.question, question)) return;
    asked.current = { question };
    if (running.current) waiting.current = { question };
    else void run(question);
  });
  return { answer, error, busy };
}
