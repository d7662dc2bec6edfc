/** Having a part settled: asked for as a job, watched until it is done, the last answer kept meanwhile. */
import { queryOptions, skipToken, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { sentence } from "../api/client";
import { type Job, jobAnswer, useAskedJob, wayOf } from "../api/jobs";
import { type Settled, unpack, unpackFitted } from "./settled";

const PAUSE = 250;
const LOOK = 120;

export type Settling = {
  settled: Settled | null;
  /** The figure before the last change. */
  before: Settled | null;
  /** How far it is while it settles, null when it rests. */
  way: { percent: number; ahead: number | null } | null;
  problem: string | null;
  cancel: () => void;
};

/** What a job settled; asked for once, however many look at it. null: no job is done yet. */
export function settledBy(job: number | null) {
  return queryOptions<Settled>({
    queryKey: ["settled", job],
    queryFn:
      job === null
        ? skipToken
        : async () => {
            const got = await jobAnswer(job, "settle", "fit");
            return got.job === "fit" ? unpackFitted(got.fitted) : unpack(got.settled);
          },
    staleTime: Infinity,
    // Thousands of coordinates are one value: they are not compared one by one.
    structuralSharing: false,
    retry: false,
  });
}

/** How often the same figure is asked for when others call it off. */
const MOST_ASKED = 3;

/** The job for a question, begun a breath after it changed, asked for anew when another window calls it off. */
function useQuestion(key: string | null, ask: () => Promise<Job>, pause: () => number) {
  const how = useRef(ask);
  how.current = ask;
  const wait = useRef(pause);
  wait.current = pause;
  const { start, stop, job, about, error } = useAskedJob((_key: string) => how.current(), LOOK);
  const asked = useRef(0);
  useEffect(() => {
    if (key === null) return;
    asked.current = 1;
    const timer = setTimeout(() => start(key), wait.current());
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [key, start, stop]);
  const own = key !== null && about === key;
  const calledOff = own && job?.state === "cancelled" ? job.id : null;
  useEffect(() => {
    if (calledOff === null || key === null || asked.current >= MOST_ASKED) return;
    asked.current += 1;
    start(key);
  }, [calledOff, key, start]);
  return {
    job: own ? job : null,
    error: own ? error : null,
    stop,
    givenUp: calledOff !== null && asked.current >= MOST_ASKED,
  };
}

/** `key` tells one question from the next; null while there is nothing to settle. */
export function useSettled(key: string | null, ask: () => Promise<Job>): Settling {
  const [shown, setShown] = useState<Pick<Settling, "settled" | "before">>({ settled: null, before: null });
  const [problem, setProblem] = useState<string | null>(null);
  // What is shown answers this question; until it is the present one, it is still settling.
  const [ended, setEnded] = useState<string | null>(null);
  const { job, error, stop, givenUp } = useQuestion(key, ask, () => (shown.settled ? PAUSE : 0));
  const answered = useQuery(settledBy(job?.state === "done" ? job.id : null));
  const got = job?.state === "done" ? (answered.data ?? null) : null;
  const failed = job?.state === "failed" ? job.error : null;
  const wrong = error ?? (job?.state === "done" ? answered.error : null);
  useEffect(() => {
    if (!got) return;
    setShown((was) => (was.settled === got ? was : { settled: got, before: was.settled }));
    setProblem(null);
  }, [got]);
  useEffect(() => {
    if (failed !== null || wrong) setProblem(failed ?? sentence(wrong));
  }, [failed, wrong]);
  const rests = got !== null || failed !== null || wrong !== null || givenUp;
  useEffect(() => {
    if (rests) setEnded(key);
  }, [rests, key]);
  const cancel = useCallback(() => {
    stop();
    setEnded(key);
  }, [stop, key]);
  const settles = key !== null && ended !== key;
  const { percent, ahead } = wayOf(job);
  const way = useMemo(() => (settles ? { percent, ahead } : null), [settles, percent, ahead]);
  return useMemo(() => ({ ...shown, way, problem, cancel }), [shown, way, problem, cancel]);
}
