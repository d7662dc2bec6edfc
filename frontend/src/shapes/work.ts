/** Work that the studio does as a job for a shape: asked for, watched, its answer handed out. */
import { answer, api, type Schemas } from "../api/client";

const LOOK = 250;

type Paths = "/api/shapes/compensate" | "/api/shapes/compare";

/** The answer, or null when it was stopped. */
export async function worked<T>(
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
  if (job.state !== "done") throw new Error(job.error || "It was stopped.");
  return answer<T>(api.GET("/api/jobs/{job_id}/answer", { params: { path: { job_id: job.id } } }) as never);
}
