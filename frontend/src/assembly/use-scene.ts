/** The design put together: asked again until every part is settled. */
import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { isUnderWay } from "../api/jobs";
import type { Design } from "../design/design";
import type { Settled } from "../figure/settled";
import { settledBy } from "../figure/use-settled";

export type Scene = Schemas["SceneOut"];

const LOOK = 400;

function underWay(scene: Scene | undefined): boolean {
  return scene?.settled.some((s) => isUnderWay(s.job)) ?? false;
}

export function useScene(design: Design) {
  const query = useQuery({
    queryKey: ["figure", design.id, design.revision],
    // Asking puts in line whatever is not settled yet; looking again while that is under way begins nothing.
    queryFn: ({ client, queryKey }) => {
      const params = { params: { path: { design_id: design.id } } };
      return underWay(client.getQueryData<Scene>(queryKey))
        ? answer<Scene>(api.GET("/api/bench/figure/{design_id}", params))
        : answer<Scene>(api.POST("/api/bench/figure/{design_id}", params));
    },
    placeholderData: (before) => before,
    refetchInterval: (q) => (underWay(q.state.data) ? LOOK : false),
  });
  const scene = query.data;
  return { scene, settled: useSettledParts(scene), settling: underWay(scene) };
}

/** The settled parts by their keys; those of before stay until all that are done have come. */
function useSettledParts(scene: Scene | undefined): ReadonlyMap<string, Settled> {
  const done = scene?.settled.filter((s) => s.job.state === "done") ?? [];
  const answers = useQueries({ queries: done.map((s) => settledBy(s.job.id)) });
  const here = answers.every((a) => a.data) && scene !== undefined;
  const which = done.map((s) => `${s.part}:${s.job.id}`).join(" ");
  const [shown, setShown] = useState<{ which: string; parts: ReadonlyMap<string, Settled> }>({
    which: "",
    parts: new Map(),
  });
  if (here && shown.which !== which)
    setShown({ which, parts: new Map(done.map((s, n) => [s.part, answers[n]?.data as Settled])) });
  return shown.parts;
}
