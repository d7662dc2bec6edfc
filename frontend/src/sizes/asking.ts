/** The ways in which another size is asked for, and the entries that come of them. */
import { type Design, newKey } from "../design/design";
import { rounded } from "../ui/units";
import type { Yarn } from "../yarns/basket";

export type Entry = NonNullable<Design["sizes"]["sizes"]>[number];

export const WAYS = [
  ["height", "Height of the whole figure"],
  ["heights", "Several heights at once"],
  ["part-height", "Height of one part"],
  ["count", "Stitches around one part"],
  ["fit", "To fit a girth, or another part"],
  ["grams", "Yarn at hand"],
  ["yarn", "Another yarn, same counts"],
] as const;

export type Way = (typeof WAYS)[number][0];

export type Asked = {
  name: string;
  hook: string;
  strands: number;
  height: number | null;
  /** Several heights in cm, as they are typed: "6, 9, 12". */
  heights: string;
  part: string;
  count: number | null;
  grams: number | null;
  girth: number | null;
  ease: number;
  /** Key of the part that is to be fitted; empty for a girth that is typed. */
  fits: string;
  /** Only that part is made anew. */
  alone: boolean;
};

export const MOST_SIZES = 12;

/** Heights in mm of "6, 9 and 12.5 cm"; empty when one of them is none. */
export function heightsOf(typed: string): number[] {
  const found = typed
    .replace(/cm\b/gi, " ")
    .split(/[;\s]+|,(?=\s)|,(?!\d)|\band\b/)
    .filter(Boolean)
    .map((n) => Number(n.replace(",", ".")) * 10);
  return found.every((mm) => Number.isFinite(mm) && mm >= 10 && mm <= 3000) ? found : [];
}

const height = (mm: number) => `${rounded(mm / 10, 1)} cm`;

/** The sizes that were asked for; none while something is missing. */
export function entriesOf(
  way: Way,
  asked: Asked,
  yarn: Yarn | undefined,
  partName = "",
  fitsName = "",
): Entry[] {
  const { name, hook, strands, part } = asked;
  const one = (kind: Entry["kind"], called: string, more: Partial<Entry>): Entry[] => [
    { key: newKey(), strands, kind, name: (name || called).slice(0, 40), ease_mm: 0, alone: false, ...more },
  ];
  switch (way) {
    case "height":
      return asked.height ? one("height", height(asked.height), { height_mm: asked.height }) : [];
    case "heights":
      return heightsOf(asked.heights).flatMap((mm) =>
        one("height", height(mm), { height_mm: mm, name: height(mm) }),
      );
    case "part-height":
      return asked.height && part
        ? one("height", `${partName} ${height(asked.height)}`, { height_mm: asked.height, part })
        : [];
    case "count":
      return asked.count && part
        ? one("count", `${partName} on ${asked.count}`, { count: asked.count, part })
        : [];
    case "fit": {
      if (!part || asked.fits === part || !(asked.fits || asked.girth)) return [];
      const onto = asked.fits ? fitsName : height(asked.girth ?? 0);
      return one("fit", `${partName} to fit ${onto}`, {
        girth_mm: asked.fits ? null : asked.girth,
        fits: asked.fits || null,
        ease_mm: asked.ease,
        alone: asked.alone,
        part,
      });
    }
    case "grams":
      return asked.grams ? one("grams", `from ${asked.grams} g`, { grams: asked.grams }) : [];
    case "yarn": {
      if (!yarn) return [];
      const { id, diameter_mm: _, ...kept } = yarn;
      return one("yarn", yarn.name, { hook_mm: Number(hook), yarn: { ...kept, yarn_id: id } });
    }
  }
}
