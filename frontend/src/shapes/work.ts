/** Work that the studio does as a job for a shape: asked for, watched, its answer handed out. */
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answer, api, refusal, type Schemas } from "../api/client";
import { callOff, type JobAnswer, jobAnswer, watchJob } from "../api/jobs";

type Body = { body: Schemas["ShapeIn"] };

const ASKED = {
  compensate: (body: Body) => api.POST("/api/shapes/compensate", body),
  compare: (body: Body) => api.POST("/api/shapes/compare", body),
  flat: (body: Body) => api.POST("/api/shapes/flat", body),
  sewn: (body: Body) => api.POST("/api/shapes/sewn", body),
};

export type Work = keyof typeof ASKED;

/** The answer, or null when it was stopped. */
async function worked<K extends Work>(
  kind: K,
  body: Schemas["ShapeIn"],
  going: () => boolean,
  tell: (percent: number) => void,
): Promise<JobAnswer<K> | null> {
  const first = await answer<Schemas["JobOut"]>(ASKED[kind]({ body }));
  const job = await watchJob(first, going, tell);
  if (!going()) {
    callOff(job.id);
    return null;
  }
  if (job.state !== "done") throw refusal(job.error || "It was stopped.");
  return jobAnswer(job.id, kind);
}

/** A job that is started and stopped at will. percent: how much is done, null while nothing runs. */
export function useWorked<K extends Work>(kind: K, onDone?: (got: JobAnswer<K>) => void) {
  const [percent, setPercent] = useState<number | null>(null);
  const going = useRef(true);
  const job = useMutation({
    mutationFn: (body: Schemas["ShapeIn"]) => {
      going.current = true;
      setPercent(0);
      return worked(kind, body, () => going.current, setPercent);
    },
    onSuccess: (got) => got && onDone?.(got),
    onSettled: () => setPercent(null),
  });
  const stop = () => {
    going.current = false;
  };
  return { start: job.mutate, stop, percent, got: job.data ?? null, error: job.error };
}
