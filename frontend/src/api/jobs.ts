/** Jobs: asked for, looked at by Query until they have ended, their answers by their kind. */
import { skipToken, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";
import { answer, api, Refused, refusal, type Schemas } from "./client";
import type { paths } from "./schema";

type Got = paths["/api/jobs/{job_id}/answer"]["get"]["responses"][200]["content"]["application/json"];
export type Job = Schemas["JobOut"];
export type JobKind = Got["job"];
export type JobAnswer<K extends JobKind> = Extract<Got, { job: K }>;

export const LOOK_MS = 250;

function isOf<K extends JobKind>(got: Got, kinds: readonly K[]): got is JobAnswer<K> {
  return (kinds as readonly JobKind[]).includes(got.job);
}

/** The answer of a job that is done, which has to be of one of these kinds. */
export async function jobAnswer<K extends JobKind>(id: number, ...kinds: K[]): Promise<JobAnswer<K>> {
  const got = await answer<Got>(api.GET("/api/jobs/{job_id}/answer", { params: { path: { job_id: id } } }));
  if (!isOf(got, kinds)) throw refusal("The studio answered something else than was asked.");
  return got;
}

export function isUnderWay(job: Job | null | undefined): boolean {
  return job?.state === "waiting" || job?.state === "running";
}

/** How far a job is; one that the studio has not answered about yet is at its beginning. */
export function wayOf(job: Job | null): { percent: number; ahead: number | null } {
  return { percent: job?.progress ?? 0, ahead: job?.ahead ?? null };
}

/** Nobody waits for this job any more: what comes next need not wait for it. */
export function callOff(job: number): void {
  void api.POST("/api/jobs/{job_id}/cancel", { params: { path: { job_id: job } } }).catch(() => {});
}

/** A look that failed for want of a connection is worth another one; a refusal is not. */
function refusedForGood(error: Error | null): boolean {
  return error instanceof Refused && error.problem.status >= 400 && error.problem.status < 500;
}

/** A job from its first answer on, looked at until it has ended. One that nobody looks at any more is called off. */
export function useJob(first: Job | null, look = LOOK_MS): { job: Job | null; error: Error | null } {
  const id = first?.id;
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ["job", id],
    queryFn:
      id === undefined
        ? skipToken
        : () => answer<Job>(api.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } })),
    initialData: first ?? undefined,
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (isUnderWay(state.data) && !refusedForGood(state.error) ? look : false),
    // She may settle a figure and read her mail meanwhile.
    refetchIntervalInBackground: true,
  });
  useEffect(() => {
    if (id === undefined) return;
    return () => {
      if (isUnderWay(queries.getQueryData<Job>(["job", id]))) callOff(id);
    };
  }, [id, queries]);
  return { job: id === undefined ? null : (data ?? first), error: id === undefined ? null : error };
}

/** A job that is asked for and called off at will. percent: how much is done, null while nothing runs. */
export function useAskedJob<In>(ask: (input: In) => Promise<Job>, look = LOOK_MS) {
  // Counts what was asked for: a first answer that comes after the next question belongs to nobody.
  const turn = useRef(0);
  const asking = useMutation({
    mutationFn: async (input: In) => {
      turn.current += 1;
      const mine = turn.current;
      const first = await ask(input);
      if (turn.current !== mine) callOff(first.id);
      return first;
    },
  });
  const { job, error } = useJob(asking.data ?? null, look);
  const forget = asking.reset;
  const stop = useCallback(() => {
    turn.current += 1;
    forget();
  }, [forget]);
  useEffect(
    () => () => {
      turn.current += 1;
    },
    [],
  );
  return {
    start: asking.mutate,
    stop,
    job,
    /** What was asked, undefined while nothing is. */
    about: asking.variables,
    asking: asking.isPending,
    error: asking.error ?? error,
  };
}

/** Why a job gave nothing: an error, a failure, or that it was stopped. Null while it may still give something. */
export function whyNothing(job: Job | null): Error | null {
  if (!job || isUnderWay(job) || job.state === "done") return null;
  return refusal(job.error || "It was stopped.");
}
