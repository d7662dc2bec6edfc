/** What the next click on the figure places, in words and in the page. */
import type { Design } from "../design/design";
import type { Picked } from "../figure/whole-scene";
import { fromFront, gapOf } from "./places";
import type { Scene } from "./use-scene";

export type Page = Design["assembly"];
export type Aim = { kind: "eyes" } | { kind: "step" | "mark"; key: string };

/** The page after a place was pointed at on the figure. */
export function placed(page: Page, aim: Aim, picked: Picked, scene: Scene): Page {
  const { part, settled, stitch } = picked;
  const round = (settled.round[stitch] ?? 0) + 1;
  const away = fromFront(scene, part, settled, stitch);
  if (aim.kind === "eyes") {
    const between = gapOf(away, settled.counts[round - 1] ?? 2);
    return { ...page, eyes: { part, round, between, share: null } };
  }
  if (aim.kind === "mark")
    return {
      ...page,
      marks: (page.marks ?? []).map((m) => (m.key === aim.key ? { ...m, part, round, stitch: away } : m)),
    };
  return {
    ...page,
    steps: (page.steps ?? []).map((s) =>
      s.key === aim.key && s.part !== part ? { ...s, on: part, round, stitch: away } : s,
    ),
  };
}

/** What is aimed at, as the figure says it. */
export function aimWords(aim: Aim, page: Page): string {
  if (aim.kind === "eyes") return "An eye";
  if (aim.kind === "mark") return page.marks?.find((m) => m.key === aim.key)?.name || "The point";
  const at = (page.steps ?? []).findIndex((s) => s.key === aim.key);
  return `Step ${at + 1}`;
}

/** The part that keys walk on while it is aimed. */
export function activeOf(aim: Aim | null, page: Page): string | null {
  if (aim?.kind === "eyes") return page.eyes?.part ?? null;
  if (aim?.kind === "mark") return page.marks?.find((m) => m.key === aim.key)?.part ?? null;
  if (aim?.kind === "step") return (page.steps ?? []).find((s) => s.key === aim.key)?.on ?? null;
  return page.eyes?.part ?? null;
}
