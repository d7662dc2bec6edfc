/** Having a part settled: asked for as a job, watched until it is done, the last answer kept meanwhile. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Schemas, sentence } from "../api/client";
import { callOff, jobAnswer, watchJob } from "../api/jobs";
import { type Settled, unpack, unpackFitted } from "./settled";

const PAUSE = 250;
const LOOK = 120;

export type Settling = {
  settled: Settled | null;
  /** The figure before the last change. */
  before: Settled | null;
  /** Percent of the way while it settles, null when it rests. */
  progress: number | null;
  problem: string | null;
  cancel: () => void;
};

const ANSWERS = new Map<number, Settled>();

export async function answerOf(job: number): Promise<Settled> {
  const known = ANSWERS.get(job);
  if (known) return known;
  const answered = await jobAnswer(job, "settle", "fit");
  const got = answered.job === "fit" ? unpackFitted(answered.fitted) : unpack(answered.settled);
  ANSWERS.set(job, got);
  const oldest = ANSWERS.size > 40 ? ANSWERS.keys().next().value : undefined;
  if (oldest !== undefined) ANSWERS.delete(oldest);
  return got;
}

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Watch a job until it ends; the settled part, or the reason why there is none. */
export async function watched(
  first: Schemas["JobOut"],
  going: () => boolean,
  tell: (percent: number) => void,
): Promise<Settled | string | null> {
  const job = await watchJob(first, going, tell, LOOK);
  if (!going()) return null;
  if (job.state === "done") return answerOf(job.id);
  return job.state === "failed" ? job.error : null;
}

/** How often the same figure is asked for when others call it off. */
const MOST_ASKED = 3;

/** `key` tells one question from the next; null while there is nothing to settle. */
export function useSettled(key: string | null, ask: () => Promise<Schemas["JobOut"]>): Settling {
  const [settled, setSettled] = useState<Settled | null>(null);
  const [before, setBefore] = useState<Settled | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // What is shown answers this question; until it is the present one, it is still settling.
  const [ended, setEnded] = useState<string | null>(null);
  const how = useRef(ask);
  how.current = ask;
  const stop = useRef<() => void>(() => {});
  const shown = useRef<Settled | null>(null);
  useEffect(() => {
    if (key === null) return;
    let going = true;
    let job: number | null = null;
    const begin = async () => {
      await wait(shown.current ? PAUSE : 0);
      if (!going) return;
      setProgress(0);
      try {
        let got: Settled | string | null = null;
        // Another window may have called off the work that both wait for: then it is asked for anew.
        for (let asked = 0; asked < MOST_ASKED && got === null && going; asked++) {
          const first = await how.current();
          job = first.id;
          if (!going) callOff(job);
          else got = await watched(first, () => going, setProgress);
        }
        if (!going) return;
        job = null;
        if (got && typeof got !== "string") {
          if (shown.current !== got) setBefore(shown.current);
          shown.current = got;
          setSettled(got);
          setProblem(null);
        } else if (typeof got === "string") setProblem(got);
      } catch (e) {
        if (going) setProblem(sentence(e));
      }
      if (going) {
        setProgress(null);
        setEnded(key);
      }
    };
    stop.current = () => {
      going = false;
      setProgress(null);
      setEnded(key);
      if (job !== null) callOff(job);
      job = null;
    };
    void begin();
    return () => {
      going = false;
      if (job !== null) callOff(job);
    };
  }, [key]);
  const cancel = useCallback(() => stop.current(), []);
  const shownProgress = progress ?? (key !== null && ended !== key ? 0 : null);
  return useMemo(
    () => ({ settled, before, progress: shownProgress, problem, cancel }),
    [settled, before, shownProgress, problem, cancel],
  );
}
