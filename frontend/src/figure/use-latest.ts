/** One question in flight; while it runs only the newest of the later ones waits. The latest answer wins. */
import { useCallback, useEffect, useRef, useState } from "react";

type Heard<Q, A> = { question: Q; answer: A | null; error: unknown };

/** answer: the last there was; current: whether it, or the error, is that of the question as it stands. */
export function useLatest<Q, A>(
  question: Q,
  ask: (question: Q) => Promise<A>,
  same: (a: Q, b: Q) => boolean = Object.is,
) {
  const [heard, setHeard] = useState<Heard<Q, A> | null>(null);
  const running = useRef(false);
  const waiting = useRef<{ question: Q } | null>(null);
  const asked = useRef<{ question: Q } | null>(null);
  const alive = useRef(true);
  const how = useRef(ask);
  how.current = ask;
  const run = useCallback(async (first: Q) => {
    running.current = true;
    let next: { question: Q } | null = { question: first };
    while (next !== null && alive.current) {
      waiting.current = null;
      const { question } = next;
      const hear = (now: (before: Heard<Q, A> | null) => Heard<Q, A>) => {
        if (alive.current && waiting.current === null) setHeard(now);
      };
      try {
        const answer = await how.current(question);
        hear(() => ({ question, answer, error: null }));
      } catch (error) {
        hear((before) => ({ question, answer: before?.answer ?? null, error }));
      }
      next = waiting.current;
    }
    running.current = false;
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
  return {
    answer: heard?.answer ?? null,
    error: heard?.error ?? null,
    current: heard !== null && same(heard.question, question),
  };
}
