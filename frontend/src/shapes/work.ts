/** Work that the studio does as a job for a shape: asked for, watched, its answer handed out. */
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answer, api, refusal, type Schemas } from "../api/client";

const LOOK = 250;

type Paths = "/api/shapes/compensate" | "/api/shapes/compare" | "/api/shapes/flat" | "/api/shapes/sewn";

/** The answer, or null when it was stopped. */
async function worked<T>(
  path: Paths,
  body: Schemas["ShapeIn"],
  going: () => boolean,
  tell: (percent: number) => void,
): Promise<T | null> {
  let job = await answer<Schemas["JobOut"]>(api.POST(path, { body }));
  while (job.state === "waiting" || job.state === "running") {
    const at = { params: { path: { job_id: job.id } } };
    if (!going()) {
      await api.POST("/api/jobs/{job_id}/cancel", at);
      return null;
    }
    tell(job.progress);
    await new Promise((done) => setTimeout(done, LOOK));
    job = await answer(api.GET("/api/jobs/{job_id}", at));
  }
  if (job.state !== "done") throw refusal(job.error || "It was stopped.");
  return answer<T>(api.GET("/api/jobs/{job_id}/answer", { params: { path: { job_id: job.id } } }) as never);
}

/** A job that is started and stopped at will. percent: how much is done, null while nothing runs. */
export function useWorked<T>(path: Paths, onDone?: (got: T) => void) {
  const [percent, setPercent] = useState<number | null>(null);
  const going = useRef(true);
  const job = useMutation({
    mutationFn: (body: Schemas["ShapeIn"]) => {
      going.current = true;
      setPercent(0);
      return worked<T>(path, body, () => going.current, setPercent);
    },
    onSuccess: (got) => got && onDone?.(got),
    onSettled: () => setPercent(null),
  });
  const stop = () => {
    going.current = false;
  };
  return { start: job.mutate, stop, percent, got: job.data ?? null, error: job.error };
}
