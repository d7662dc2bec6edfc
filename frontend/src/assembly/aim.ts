/** What the next click on the figure places, in words and in the page. */
import { type Design, newKey } from "../design/design";
import type { Picked } from "../figure/whole-scene";
import { fromFront, gapOf } from "./places";
import type { Scene } from "./use-scene";

export type Page = Design["assembly"];
export type Aim = { kind: "eyes" } | { kind: "step" | "mark" | "part"; key: string };
export type Step = NonNullable<Page["steps"]>[number];

/** A step about nothing yet. */
export const FRESH: Omit<Step, "key"> = {
  text: "",
  part: null,
  on: null,
  round: null,
  stitch: 0,
  paired: false,
  tilt: 0,
  turn: 0,
  before_closing: false,
  seat: "",
  wide: null,
  share: null,
  angle: null,
  picture: false,
  no_sew: false,
  fixing: "sewn",
  spread: 1,
  film: "",
  bends: [],
};

/** Stitches from the middle within which a dragged piece goes to it. */
const SNAP = 1;

/** The page after a place was pointed at on the figure. */
export function placed(
  design: Design,
  page: Page,
  aim: Aim,
  picked: Picked,
  scene: Scene,
  hand?: { mirrored: boolean },
): Page {
  const { part, settled, stitch } = picked;
  const round = (settled.round[stitch] ?? 0) + 1;
  const pointed = fromFront(scene, part, settled, stitch);
  // The second of a pair lies as far on the other side; a hand that drags snaps to the middle.
  const away = hand ? (Math.abs(pointed) <= SNAP ? 0 : pointed * (hand.mirrored ? -1 : 1)) : pointed;
  if (aim.kind === "eyes") {
    const between = gapOf(away, settled.counts[round - 1] ?? 2);
    return { ...page, eyes: { part, round, between, share: null } };
  }
  if (aim.kind === "mark")
    return {
      ...page,
      marks: (page.marks ?? []).map((m) => (m.key === aim.key ? { ...m, part, round, stitch: away } : m)),
    };
  if (aim.kind === "part") {
    if (aim.key === part) return page;
    return {
      ...page,
      steps: [...(page.steps ?? []), joining(design, aim.key, { on: part, round, stitch: away })],
    };
  }
  return {
    ...page,
    steps: (page.steps ?? []).map((s) =>
      s.key === aim.key && s.part !== part ? { ...s, on: part, round, stitch: away } : s,
    ),
  };
}

type Spot = Pick<Step, "on" | "round" | "stitch"> & Partial<Step>;

/** A step that joins a part at a place; two of a part beside the middle are a pair. */
export function joining(design: Design, part: string, spot: Spot): Step {
  const make = design.parts.find((p) => p.key === part)?.make ?? 1;
  const paired = make > 1 && Math.abs(spot.stitch ?? 0) > 0;
  return { ...FRESH, paired, ...spot, key: newKey(), part };
}

/** The page with parts put where they mostly go. */
export function proposed(design: Design, page: Page, loose: readonly Scene["loose"][number][]): Page {
  const more = loose.flatMap(({ part, host, guess }) => {
    if (!host || !guess) return [];
    const { round, stitch, paired, tilt } = guess;
    return [joining(design, part, { on: host, round, stitch, paired, tilt })];
  });
  return { ...page, steps: [...(page.steps ?? []), ...more] };
}

/** What is aimed at, as the figure says it. */
export function aimWords(aim: Aim, page: Page, design: Design): string {
  if (aim.kind === "part") return design.parts.find((p) => p.key === aim.key)?.name ?? "The part";
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
