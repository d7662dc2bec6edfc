/** The figure of a design on the shelf: drawn at once, and painted from its settled stitches as soon as they rest. */
import { answer, api, type Schemas } from "../api/client";
import { useRest } from "../figure/use-rest";

/** across: millimetres that the picture holds, for figures on one scale; null for the figure with its margin. */
export function pictureUrl(
  id: number,
  revision: number,
  settled = false,
  across: number | null = null,
): string {
  const scale = across === null ? "" : `&across=${across}`;
  return `/api/designs/${id}/picture?revision=${revision}${scale}${settled ? "&settled" : ""}`;
}

export function usePicture(design: number, revision: number, across: number | null = null) {
  const { settled, settling, extent } = useRest([design, revision, across], () =>
    answer<Schemas["SettlingOut"]>(
      api.POST("/api/designs/{design_id}/settle", {
        params: { path: { design_id: design }, query: across === null ? {} : { across } },
      }),
    ),
  );
  return { url: pictureUrl(design, revision, settled, across), settling, extent };
}
