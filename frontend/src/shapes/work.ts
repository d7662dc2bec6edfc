/** Work that the studio does as a job for a shape: asked for, watched, its answer handed out. */
import { skipToken, useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { answer, api, type Schemas } from "../api/client";
import { type JobAnswer, jobAnswer, useAskedJob, wayOf, whyNothing } from "../api/jobs";

type Body = { body: Schemas["ShapeIn"] };

const ASKED = {
  compensate: (body: Body) => api.POST("/api/shapes/compensate", body),
  compare: (body: Body) => api.POST("/api/shapes/compare", body),
  flat: (body: Body) => api.POST("/api/shapes/flat", body),
  sewn: (body: Body) => api.POST("/api/shapes/sewn", body),
};

export type Work = keyof typeof ASKED;

/** A job that is started and stopped at will. way: how far it is, null while nothing is asked. */
export function useWorked<K extends Work>(kind: K, onDone?: (got: JobAnswer<K>) => void) {
  const { start, stop, job, asking, error } = useAskedJob((body: Schemas["ShapeIn"]) =>
    answer<Schemas["JobOut"]>(ASKED[kind]({ body })),
  );
  const done = job?.state === "done" ? job.id : null;
  const answered = useQuery({
    queryKey: ["worked", kind, done],
    queryFn: done === null ? skipToken : () => jobAnswer(done, kind),
    staleTime: Infinity,
    retry: false,
  });
  const got = done === null ? null : (answered.data ?? null);
  const handOut = useRef(onDone);
  handOut.current = onDone;
  useEffect(() => {
    if (got) handOut.current?.(got);
  }, [got]);
  const wrong = error ?? whyNothing(job) ?? (done === null ? null : answered.error);
  const waits = asking || (job !== null && got === null && wrong === null);
  return { start, stop, way: waits ? wayOf(job) : null, got, error: wrong };
}
