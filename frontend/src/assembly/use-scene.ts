/** The design put together: asked again until every part is settled. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import type { Settled } from "../figure/settled";
import { answerOf } from "../figure/use-settled";

export type Scene = Schemas["SceneOut"];

const LOOK = 400;

function underWay(scene: Scene | undefined): boolean {
  return scene?.settled.some((s) => s.job.state === "waiting" || s.job.state === "running") ?? false;
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
  const [settled, setSettled] = useState<ReadonlyMap<string, Settled>>(new Map());
  const jobs = scene?.settled
    .filter((s) => s.job.state === "done")
    .map((s) => `${s.part}:${s.job.id}`)
    .join(" ");
  useEffect(() => {
    let going = true;
    const wanted = jobs ? jobs.split(" ").map((pair) => pair.split(":") as [string, string]) : [];
    void Promise.all(wanted.map(async ([part, id]) => [part, await answerOf(Number(id))] as const))
      .then((found) => {
        if (going) setSettled(new Map(found));
      })
      .catch(() => {});
    return () => {
      going = false;
    };
  }, [jobs]);
  return { scene, settled, settling: underWay(scene) };
}
