/** The booklet as it is on screen: its tree, its pictures as they are painted, and what its proof-reader finds. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { useRest } from "../figure/use-rest";
import type { Asked } from "./edition";

export function useBook(design: Design, asked: Asked) {
  const { edition, terms, pictures, language, explained, left } = asked;
  const said = { edition, terms, pictures, language, explained, left };
  const path = { design_id: design.id };
  const painting = useRest(
    pictures === "none" || design.parts.length === 0
      ? null
      : ["book", design.id, design.revision, edition, pictures],
    () =>
      answer<Schemas["SettlingOut"]>(
        api.POST("/api/designs/{design_id}/booklet/pictures", { params: { path }, body: said }),
      ),
  );
  const booklet = useQuery({
    queryKey: [
      ...["figure", design.id, "booklet", design.revision, terms, edition, pictures, language],
      ...[explained, left],
      ...[painting.settled, painting.left],
    ],
    queryFn: () =>
      answer<Schemas["BookletOut"]>(
        api.GET("/api/designs/{design_id}/booklet", { params: { path, query: said } }),
      ),
    placeholderData: (before) => before,
  });
  return { booklet, painting };
}

export function useProof(design: Design) {
  return useQuery({
    queryKey: ["figure", design.id, "proof", design.revision],
    queryFn: () =>
      answer<Schemas["FindingOut"][]>(
        api.GET("/api/designs/{design_id}/proof", { params: { path: { design_id: design.id } } }),
      ),
    placeholderData: (before) => before,
  });
}
