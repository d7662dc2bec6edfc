/** Releases of a design and the links to them; read again while one is being printed. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";

const LOOK_MS = 1200;
const keyOf = (design: Design) => ["figure", design.id, "releases"];

export function useReleases(design: Design) {
  return useQuery({
    queryKey: [...keyOf(design), design.revision],
    queryFn: () =>
      answer<Schemas["Releases"]>(
        api.GET("/api/designs/{design_id}/releases", { params: { path: { design_id: design.id } } }),
      ),
    placeholderData: (before) => before,
    refetchInterval: (q) => (q.state.data?.releases.some((r) => r.state === "printing") ? LOOK_MS : false),
  });
}

/** Two releases held against each other; they never change. */
export function useAgainst(design: Design, earlier: number, later: number) {
  return useQuery({
    queryKey: ["against", design.id, earlier, later],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answer<Schemas["Against"]>(
        api.GET("/api/designs/{design_id}/releases/{number}/against/{later}", {
          params: { path: { design_id: design.id, number: earlier, later } },
        }),
      ),
  });
}

type Act =
  | { do: "release"; release: Schemas["ReleaseIn"] }
  | { do: "changes"; number: number; changes: string }
  | { do: "print"; number: number };

export function useReleaseActs(design: Design) {
  const queries = useQueryClient();
  const path = { design_id: design.id };
  return useMutation({
    mutationFn: (act: Act) => {
      switch (act.do) {
        case "release":
          return answer<Schemas["ReleaseOut"]>(
            api.POST("/api/designs/{design_id}/releases", { params: { path }, body: act.release }),
          );
        case "changes":
          return answer<Schemas["ReleaseOut"]>(
            api.PUT("/api/designs/{design_id}/releases/{number}", {
              params: { path: { ...path, number: act.number } },
              body: { changes: act.changes },
            }),
          );
        case "print":
          return answer<Schemas["ReleaseOut"]>(
            api.POST("/api/designs/{design_id}/releases/{number}/print", {
              params: { path: { ...path, number: act.number } },
            }),
          );
      }
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keyOf(design) }),
  });
}

const linksOf = (design: Design) => ["links", design.id];

export function useLinks(design: Design) {
  return useQuery({
    queryKey: linksOf(design),
    queryFn: () =>
      answer<Schemas["LinkOut"][]>(
        api.GET("/api/designs/{design_id}/links", { params: { path: { design_id: design.id } } }),
      ),
  });
}

export function useLinkActs(design: Design) {
  const queries = useQueryClient();
  const path = { design_id: design.id };
  const done = { onSettled: () => queries.invalidateQueries({ queryKey: linksOf(design) }) };
  const make = useMutation({
    mutationFn: (link: Schemas["LinkIn"]) =>
      answer<Schemas["LinkOut"]>(
        api.POST("/api/designs/{design_id}/links", { params: { path }, body: link }),
      ),
    ...done,
  });
  const withdraw = useMutation({
    mutationFn: (link: number) =>
      answer<Schemas["LinkOut"][]>(
        api.DELETE("/api/designs/{design_id}/links/{link_id}", {
          params: { path: { ...path, link_id: link } },
        }),
      ),
    ...done,
  });
  return { make, withdraw };
}
