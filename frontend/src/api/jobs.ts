/** What jobs answer, by their kind. */
import { answer, api, refusal, type Schemas } from "./client";
import type { paths } from "./schema";

type Got = paths["/api/jobs/{job_id}/answer"]["get"]["responses"][200]["content"]["application/json"];
export type JobKind = Got["job"];
export type JobAnswer<K extends JobKind> = Extract<Got, { job: K }>;

const LOOK_MS = 250;

function isOf<K extends JobKind>(got: Got, kinds: readonly K[]): got is JobAnswer<K> {
  return (kinds as readonly JobKind[]).includes(got.job);
}

/** The answer of a job that is done, which has to be of one of these kinds. */
export async function jobAnswer<K extends JobKind>(id: number, ...kinds: K[]): Promise<JobAnswer<K>> {
  const got = await answer<Got>(api.GET("/api/jobs/{job_id}/answer", { params: { path: { job_id: id } } }));
  if (!isOf(got, kinds)) throw refusal("The studio answered something else than was asked.");
  return got;
}

/** Look at a job until it ends, or nobody waits for it any more. */
export async function watchJob(
  first: Schemas["JobOut"],
  going: () => boolean,
  tell: (percent: number) => void,
  pause = LOOK_MS,
): Promise<Schemas["JobOut"]> {
  let job = first;
  while (going() && (job.state === "waiting" || job.state === "running")) {
    tell(job.progress);
    await new Promise((done) => setTimeout(done, pause));
    if (!going()) break;
    job = await answer<Schemas["JobOut"]>(
      api.GET("/api/jobs/{job_id}", { params: { path: { job_id: job.id } } }),
    );
  }
  return job;
}

/** Nobody waits for this job any more: what comes next need not wait for it. */
export function callOff(job: number): void {
  void api.POST("/api/jobs/{job_id}/cancel", { params: { path: { job_id: job } } }).catch(() => {});
}
