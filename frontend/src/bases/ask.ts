/** What the Bases stop asks the studio. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";

export type Comparison = Schemas["ComparisonOut"];
export type BaseNews = Schemas["BaseOut"];
export type GraftIn = Schemas["GraftIn"];

/** Every answer hangs on the revision: what is shown is never of an older one. */
const key = (design: Design, ...more: unknown[]) => ["figure", design.id, "bases", design.revision, ...more];

export function useBase(design: Design) {
  return useQuery({
    queryKey: key(design, "base"),
    enabled: design.origin?.id != null,
    queryFn: () =>
      answer<BaseNews>(
        api.GET("/api/designs/{design_id}/base", { params: { path: { design_id: design.id } } }),
      ),
    retry: false,
    refetchOnWindowFocus: true,
  });
}

export type Against = { other: number; revision?: number; size?: string };

export function useComparison(design: Design, against: Against | null) {
  return useQuery({
    queryKey: key(design, "comparison", against),
    enabled: against !== null,
    queryFn: () =>
      answer<Comparison>(
        api.GET("/api/designs/{design_id}/comparison", {
          params: { path: { design_id: design.id }, query: against ?? {} },
        }),
      ),
  });
}

/** The parts of both settled and laid over each other; asked again until all are settled. */
export function useLaidOver(design: Design, against: Against | null) {
  return useQuery({
    queryKey: key(design, "shapes", against),
    enabled: against !== null,
    queryFn: () =>
      answer<Schemas["LaidOverAll"]>(
        api.POST("/api/designs/{design_id}/comparison/shapes", {
          params: { path: { design_id: design.id } },
          body: against ?? {},
        }),
      ),
    refetchInterval: (q) => (q.state.data?.under_way ? 1500 : false),
  });
}

export function usePorts(design: number, revision: number, part: string | null) {
  return useQuery({
    queryKey: ["figure", design, "ports", revision, part],
    enabled: part !== null,
    queryFn: () =>
      answer<Schemas["PortsOut"]>(
        api.GET("/api/designs/{design_id}/parts/{key}/ports", {
          params: { path: { design_id: design, key: part ?? "" } },
        }),
      ),
  });
}

export function usePiecePorts(piece: number | null, part: string | null) {
  return useQuery({
    queryKey: ["pieces", piece, "ports", part],
    enabled: piece !== null && part !== null,
    queryFn: () =>
      answer<Schemas["PortOut"][]>(
        api.GET("/api/pieces/{piece_id}/ports/{key}", {
          params: { path: { piece_id: piece ?? 0, key: part ?? "" } },
        }),
      ),
  });
}

export function useWays(design: Design, asked: GraftIn | null) {
  return useQuery({
    queryKey: key(design, "ways", asked),
    enabled: asked !== null,
    retry: false,
    placeholderData: (before) => before,
    queryFn: () =>
      answer<Schemas["GraftOut"]>(
        api.POST("/api/designs/{design_id}/graft/ways", {
          params: { path: { design_id: design.id } },
          body: asked as GraftIn,
        }),
      ),
  });
}

export function useCredits(design: Design) {
  return useQuery({
    queryKey: key(design, "credits"),
    queryFn: () =>
      answer<Schemas["CreditsOut"]>(
        api.GET("/api/designs/{design_id}/credits", { params: { path: { design_id: design.id } } }),
      ),
  });
}
