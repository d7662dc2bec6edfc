/** The figure of a design on the shelf: drawn from the estimate at once, and from its settled stitches once they rest. */
import { answer, api, type Schemas } from "../api/client";
import { useRest } from "../figure/use-rest";

export function pictureUrl(id: number, revision: number, settled = false): string {
  return `/api/designs/${id}/picture?revision=${revision}${settled ? "&settled" : ""}`;
}

export function usePicture(design: number, revision: number): { url: string; settling: boolean } {
  const { settled, settling } = useRest([design, revision], () =>
    answer<Schemas["SettlingOut"]>(
      api.POST("/api/designs/{design_id}/settle", { params: { path: { design_id: design } } }),
    ),
  );
  return { url: pictureUrl(design, revision, settled), settling };
}
