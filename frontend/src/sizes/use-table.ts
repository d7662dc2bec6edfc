/** The table of sizes: answered at once, or drafted by a worker and watched until it is there. */
import { skipToken, useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { answer, api, type Schemas } from "../api/client";
import { isUnderWay, jobAnswer, useJob, wayOf, whyNothing } from "../api/jobs";
import type { Way } from "../ui/job-bar";

/** table: the last one that is known, null before the first. way: how far a worker is with the next, null when none is. */
export function useSizesTable(
  design: { id: number; revision: number },
  entries: Schemas["SizeEntry"][],
): { table: Schemas["SizesTable"] | null; way: Way | null; error: Error | null } {
  const asked = useQuery({
    queryKey: ["figure", design.id, "sizes", design.revision, entries],
    queryFn: () =>
      answer<Schemas["SizesTable"]>(
        api.POST("/api/designs/{design_id}/sizes", {
          params: { path: { design_id: design.id } },
          body: { sizes: entries },
        }),
      ),
    placeholderData: (before) => before,
  });
  const { job, error } = useJob(asked.data?.job ?? null);
  const done = job?.state === "done" ? job.id : null;
  const drafted = useQuery({
    queryKey: ["sizes drafted", done],
    queryFn: done === null ? skipToken : async () => (await jobAnswer(done, "sizes")).table,
    placeholderData: (before) => before,
    staleTime: Infinity,
    retry: false,
  });
  const made = (asked.data?.job ? drafted.data : asked.data) ?? null;
  const last = useRef(made);
  useEffect(() => {
    last.current = made ?? last.current;
  }, [made]);
  return {
    table: made ?? last.current,
    way: isUnderWay(job) ? wayOf(job) : null,
    error: asked.error ?? error ?? whyNothing(job) ?? drafted.error,
  };
}
