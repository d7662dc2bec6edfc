/** A design in the browser: read once, replaced whole by every action's answer. */
import { type MutateOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { answer, api, type Problem, Refused, type Schemas, sentence } from "../api/client";
import type { paths } from "../api/schema";
import { useSay } from "../ui/overlays";
import { allSent, tellShownAnew } from "./pending";

export type Design = Schemas["DesignOut"];
export type Part = Schemas["PartOut"];
export type GaugeIn = Schemas["GaugeIn"];
export type Colour = Schemas["ColourIn"];
/** A page of notes as it was filled in. */
export type FilledPage =
  paths["/api/designs/{design_id}/pages"]["put"]["requestBody"]["content"]["application/json"];
export type PageName = FilledPage["page"];

const keyOf = (id: number) => ["design", id];

export function useDesign(id: number) {
  return useQuery({
    queryKey: keyOf(id),
    queryFn: () =>
      answer<Design>(api.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } })),
    refetchOnWindowFocus: true,
  });
}

/** The gauge to reckon with for a part by its key; the figure's for one that is not there yet. */
export function gaugeOf(design: Design, part?: string | null): GaugeIn {
  const own = design.parts.find((p) => p.key === part);
  const { stitch_mm, round_mm, lean, spread, how } = own?.gauge ?? design.gauge_now;
  return { stitch_mm, round_mm, lean, spread, how, firmness: design.gauge.firmness };
}

export function coloursOf(design: Design): Colour[] {
  return (design.gauge.yarns ?? []).map((y) => ({ name: y.name, colour: y.colour }));
}

export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(4)), (b) => b.toString(16).padStart(2, "0")).join(
    "",
  );
}

type Act =
  | { do: "rename"; name: string; terms: Design["terms"]; convert?: boolean }
  | {
      do: "add-part";
      name: string;
      make: number;
      colour: string | null;
      text: string;
      recipe: Schemas["NewPart"]["recipe"];
    }
  /** Several parts as one change. */
  | { do: "add-parts"; parts: Schemas["NewPart"][] }
  /** The parts of a written text, with what stands beside them. */
  | { do: "bring-in"; text: Schemas["BringIn"] }
  | { do: "change-part"; key: string; name: string; make: number; colour: string | null }
  /** A part worked on a hook of its own, null as the figure again. */
  | { do: "own-hook"; key: string; hook: Part["own_hook"] }
  | { do: "remove-part"; key: string }
  | { do: "text"; key: string; text: string; recipe?: Schemas["PartText"]["recipe"]; label?: string }
  | { do: "version"; key: string }
  | { do: "page"; filled: FilledPage }
  | { do: "no-sew"; step: string }
  | { do: "sew"; step: string }
  | { do: "tell-eyes" }
  /** A piece put in, a part gone on as another, changes of the base taken. */
  | { do: "put-in"; use: Schemas["UsePiece"] }
  | { do: "graft"; graft: Schemas["GraftIn"] }
  | { do: "sources"; sources: Schemas["SourceEntry"][] }
  | { do: "take"; take: Schemas["TakeIn"] }
  | { do: "undo" }
  | { do: "redo" }
  | { do: "back"; number: number };

/** Actions that go by what is stored: whatever is being typed is stored first. */
const BY_WHAT_IS_STORED = new Set<Act["do"]>([
  "undo",
  "redo",
  "back",
  "remove-part",
  "rename",
  "no-sew",
  "sew",
  "tell-eyes",
  "put-in",
  "graft",
  "take",
]);

const SHOWS_ANEW = new Set<Act["do"]>([
  "undo",
  "redo",
  "back",
  "text",
  "no-sew",
  "sew",
  "tell-eyes",
  "rename",
  "put-in",
  "graft",
  "take",
]);

async function ask(id: number, act: Act): Promise<Design> {
  const path = { design_id: id };
  switch (act.do) {
    case "rename":
      return answer(
        api.PUT("/api/designs/{design_id}", {
          params: { path },
          body: { name: act.name, terms: act.terms, convert: act.convert ?? false },
        }),
      );
    case "add-part":
      return answer(
        api.POST("/api/designs/{design_id}/parts", {
          params: { path },
          body: { name: act.name, make: act.make, colour: act.colour, text: act.text, recipe: act.recipe },
        }),
      );
    case "add-parts":
      return answer(
        api.POST("/api/designs/{design_id}/parts/several", {
          params: { path },
          body: { parts: act.parts },
        }),
      );
    case "bring-in":
      return answer(api.POST("/api/designs/{design_id}/brought", { params: { path }, body: act.text }));
    case "change-part":
      return answer(
        api.PUT("/api/designs/{design_id}/parts/{key}", {
          params: { path: { ...path, key: act.key } },
          body: { name: act.name, make: act.make, colour: act.colour },
        }),
      );
    case "own-hook":
      return answer(
        api.PUT("/api/designs/{design_id}/parts/{key}/hook", {
          params: { path: { ...path, key: act.key } },
          body: { own_hook: act.hook },
        }),
      );
    case "remove-part":
      return answer(
        api.DELETE("/api/designs/{design_id}/parts/{key}", { params: { path: { ...path, key: act.key } } }),
      );
    case "text":
      return answer(
        api.PUT("/api/designs/{design_id}/parts/{key}/text", {
          params: { path: { ...path, key: act.key } },
          body: { text: act.text, recipe: act.recipe, label: act.label },
        }),
      );
    case "version":
      return answer(
        api.POST("/api/designs/{design_id}/parts/{key}/versions", {
          params: { path: { ...path, key: act.key } },
        }),
      );
    case "page":
      return answer(api.PUT("/api/designs/{design_id}/pages", { params: { path }, body: act.filled }));
    case "no-sew":
      return answer(
        api.POST("/api/bench/no-sew/{design_id}", { params: { path }, body: { step: act.step } }),
      );
    case "sew":
      return answer(api.POST("/api/bench/sew/{design_id}", { params: { path }, body: { step: act.step } }));
    case "tell-eyes":
      return answer(api.POST("/api/designs/{design_id}/eyes/tell", { params: { path } }));
    case "put-in":
      return answer(api.POST("/api/designs/{design_id}/pieces", { params: { path }, body: act.use }));
    case "graft":
      return answer(api.POST("/api/designs/{design_id}/graft", { params: { path }, body: act.graft }));
    case "sources":
      return answer(
        api.PUT("/api/designs/{design_id}/credits", { params: { path }, body: { sources: act.sources } }),
      );
    case "take":
      return answer(api.POST("/api/designs/{design_id}/base/take", { params: { path }, body: act.take }));
    case "undo":
      return answer(api.POST("/api/designs/{design_id}/undo", { params: { path } }));
    case "redo":
      return answer(api.POST("/api/designs/{design_id}/redo", { params: { path } }));
    case "back":
      return answer(
        api.POST("/api/designs/{design_id}/history/{number}", {
          params: { path: { ...path, number: act.number } },
        }),
      );
  }
}

type Then = MutateOptions<Design, Error, Act>;

/** Act on a design; the answer replaces it everywhere. `quiet` actions show their own refusals. */
export function useAct(id: number, quiet: (problem: Problem) => boolean = () => false) {
  const queries = useQueryClient();
  const say = useSay();
  const inLine = useMutation({
    mutationFn: (act: Act) => ask(id, act),
    scope: { id: `design-${id}` },
    onSuccess: (design, act) => {
      queries.setQueryData(keyOf(id), design);
      if (SHOWS_ANEW.has(act.do)) tellShownAnew(design);
      queries.invalidateQueries({ queryKey: ["shelf"] });
      queries.invalidateQueries({ queryKey: ["figure", id] });
      queries.invalidateQueries({ queryKey: ["history", id] });
    },
    onError: (error) => {
      if (!(error instanceof Refused && quiet(error.problem))) say(sentence(error), true);
    },
  });
  const { mutate: goOn, mutateAsync: goOnAsync } = inLine;
  // What is typed is sent in the same line: it has to stand there before what goes by it, which waits outside.
  const mutate = useCallback(
    (act: Act, then?: Then) => {
      if (BY_WHAT_IS_STORED.has(act.do)) void allSent(id).then(() => goOn(act, then));
      else goOn(act, then);
    },
    [id, goOn],
  );
  const mutateAsync = useCallback(
    async (act: Act, then?: Then) => {
      if (BY_WHAT_IS_STORED.has(act.do)) await allSent(id);
      return goOnAsync(act, then);
    },
    [id, goOnAsync],
  );
  return { ...inLine, mutate, mutateAsync };
}
