/** The figure of a design on the shelf: drawn from the estimate at once, and from its settled stitches once they rest. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

const LOOK_MS = 1500;

export function pictureUrl(id: number, revision: number, settled = false): string {
  return `/api/designs/${id}/picture.svg?revision=${revision}${settled ? "&settled" : ""}`;
}

export function usePicture(design: number, revision: number): { url: string; settling: boolean } {
  const state = useQuery({
    queryKey: ["settling", design, revision],
    queryFn: () =>
      answer<Schemas["SettlingOut"]>(
        api.POST("/api/designs/{design_id}/settle", { params: { path: { design_id: design } } }),
      ),
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: (q) => (q.state.data?.under_way ? LOOK_MS : false),
  });
  const settling = (state.data?.under_way ?? 0) > 0;
  return { url: pictureUrl(design, revision, state.data?.whole ?? false), settling };
}
