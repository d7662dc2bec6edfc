/** Whether a figure is at rest: its parts are put in line to settle, and it is asked again until all are. */
import { type QueryKey, useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";

const LOOK_MS = 1500;

/** key: of the figure as it is; null while there is none. */
export function useRest(key: QueryKey | null, ask: () => Promise<Schemas["SettlingOut"]>) {
  const state = useQuery({
    queryKey: ["settling", ...(key ?? [])],
    enabled: key !== null,
    queryFn: ask,
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: (q) => (q.state.data?.under_way ? LOOK_MS : false),
  });
  return {
    settled: state.data?.whole ?? false,
    settling: (state.data?.under_way ?? 0) > 0,
    left: state.data?.under_way ?? 0,
    extent: state.data?.extent_mm ?? 0,
    problem: state.error,
  };
}
