/** The ways in which another size is asked for, and the entries that come of them. */
import type { Schemas } from "../api/client";
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
  ["classes", "Several yarn weights, same counts"],
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
  /** What is to be fitted: key of a part, `thing:` with a thing's key; empty for a girth, `ACROSS` for a width typed. */
  fits: string;
  /** Number of another design whose part is to be fitted; empty for this one. */
  fitsDesign: string;
  across: number | null;
  /** Heights come to counts that are easy to work. */
  easy: boolean;
  /** Numbers of the yarn weights that are asked for. */
  classes: number[];
  /** Only that part is made anew. */
  alone: boolean;
  /** Number of a yarn of the basket that is held together with the other; empty for none. */
  second: string;
  /** Motifs and colours that repeat keep their distance, not their number. */
  apart: boolean;
  /** Colours of the figure that are worked in a yarn of their own, by their names. */
  roles: Readonly<Record<string, RoleAsked>>;
};

/** Numbers of yarns of the basket as they are chosen, a hook in mm. second: empty for none. */
export type RoleAsked = { yarn: string; hook: string; strands: number; second: string };

/** The part with the widest round: what is most often to be fitted, or to have a count of its own. */
function widestPart(design: Design): string {
  const by = design.parts.map((p) => [Math.max(...p.counts, 0), p.key] as const);
  return by.reduce((best, one) => (one[0] > best[0] ? one : best), [0, ""] as const)[1];
}

/** What is asked for at first. now: height of the whole figure as it is, in mm. */
export function askedAtFirst(design: Design, now: number): Asked {
  return {
    name: "",
    hook: "5",
    strands: 1,
    height: Math.round(now * 1.5),
    heights: "",
    part: widestPart(design),
    count: null,
    grams: null,
    girth: null,
    ease: 0,
    fits: "",
    across: null,
    alone: true,
    second: "",
    fitsDesign: "",
    apart: false,
    easy: false,
    classes: [1, 2, 3, 4, 5],
    roles: {},
  };
}

export const MOST_SIZES = 12;

export type Thing = Schemas["ThingOut"];
export type WeightClass = Schemas["WeightClassOut"];

/** What `Asked.fits` says for something round whose width is typed, and before a thing's key. */
export const ACROSS = "across";
export const THING = "thing:";

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

/** What a wish may name: a yarn of the basket, the published weights, the part's name and that of the part it fits, and
 * things to fit. */
export type Known = {
  yarn?: Yarn;
  /** The yarn that is held together with it. */
  second?: Yarn;
  weights?: readonly WeightClass[];
  partName?: string;
  fitsName?: string;
  things?: readonly Thing[];
  /** Every yarn of the basket, for the colours that have one of their own. */
  basket?: readonly Yarn[];
};

/** What is to be fitted, as the size says it, and what it is called; null while that is missing. */
function fitted(asked: Asked, { fitsName = "", things = [] }: Known): [Partial<Entry>, string] | null {
  if (asked.fits === ACROSS)
    return asked.across ? [{ across_mm: asked.across }, `${height(asked.across)} across`] : null;
  if (asked.fits.startsWith(THING)) {
    const thing = things.find((t) => THING + t.key === asked.fits);
    return thing ? [{ girth_mm: thing.girth_mm }, thing.name] : null;
  }
  if (asked.fits && asked.fitsDesign)
    return fitsName ? [{ fits: asked.fits, fits_design: Number(asked.fitsDesign) }, fitsName] : null;
  if (asked.fits) return asked.fits === asked.part ? null : [{ fits: asked.fits }, fitsName];
  return asked.girth && !asked.fitsDesign ? [{ girth_mm: asked.girth }, height(asked.girth)] : null;
}

/** A size for each of the yarn weights, each on the hook that makes dense fabric of it. */
function weightsOf(asked: Asked, weights: readonly WeightClass[]): Entry[] {
  return weights
    .filter((w) => asked.classes.includes(w.number))
    .map((w) => {
      const name = `${w.name} (${w.number})`;
      const yarn = { name: w.name, colour: "#b8a48a", weight: w.number, wraps: null, plush: false };
      return {
        ...{ key: newKey(), name, kind: "yarn" as const, strands: 1, hook_mm: w.stuffed_hook_mm },
        ...{ yarn: { ...yarn, skein_m: null, skein_g: null, yarn_id: null }, ease_mm: 0, alone: false },
        ...{ easy: false, apart: false, among_mm: [], settled_share: 1, others: [] },
      };
    });
}

/** A yarn of the basket as a size keeps it, whole. */
function keptYarn({ id, diameter_mm: _, left_g: __, ...kept }: Yarn): NonNullable<Entry["yarn"]> {
  return { ...kept, yarn_id: id };
}

/** The yarns of the colours that have one of their own; what is no yarn of the basket any more is left out. */
function othersOf({ roles }: Asked, basket: readonly Yarn[]): NonNullable<Entry["others"]> {
  const found = (id: string) => basket.find((y) => String(y.id) === id);
  return Object.entries(roles).flatMap(([role, asked]) => {
    const [yarn, second] = [found(asked.yarn), found(asked.second)];
    if (!yarn) return [];
    const kept = { role, yarn: keptYarn(yarn), hook_mm: Number(asked.hook), strands: asked.strands };
    return [second ? { ...kept, second: keptYarn(second) } : kept];
  });
}

/** The sizes that were asked for; none while something is missing. */
export function entriesOf(way: Way, asked: Asked, known: Known): Entry[] {
  const { yarn, weights = [], partName = "" } = known;
  const { name, hook, strands, part } = asked;
  const one = (kind: Entry["kind"], called: string, more: Partial<Entry>): Entry[] => [
    {
      key: newKey(),
      strands,
      kind,
      name: (name || called).slice(0, 40),
      ease_mm: 0,
      alone: false,
      easy: false,
      apart: asked.apart && kind !== "yarn",
      among_mm: [],
      settled_share: 1,
      others: [],
      ...more,
    },
  ];
  switch (way) {
    case "height":
      return asked.height
        ? one("height", height(asked.height), { height_mm: asked.height, easy: asked.easy })
        : [];
    case "heights": {
      const run = heightsOf(asked.heights);
      const among_mm = asked.easy ? run.slice(0, MOST_SIZES) : [];
      return run.flatMap((mm) =>
        one("height", height(mm), { height_mm: mm, name: height(mm), easy: asked.easy, among_mm }),
      );
    }
    case "part-height":
      return asked.height && part
        ? one("height", `${partName} ${height(asked.height)}`, { height_mm: asked.height, part })
        : [];
    case "count":
      return asked.count && part
        ? one("count", `${partName} on ${asked.count}`, { count: asked.count, part })
        : [];
    case "fit": {
      const onto = asked.part ? fitted(asked, known) : null;
      if (!onto) return [];
      const { ease: ease_mm, alone, part } = asked;
      return one("fit", `${partName} to fit ${onto[1]}`, { ...onto[0], ease_mm, alone, part });
    }
    case "grams":
      return asked.grams ? one("grams", `from ${asked.grams} g`, { grams: asked.grams }) : [];
    case "classes":
      return weightsOf(asked, weights);
    case "yarn": {
      if (!yarn) return [];
      const { second, basket = [] } = known;
      const called = second ? `${yarn.name} with ${second.name}` : yarn.name;
      const more = { ...(second ? { second: keptYarn(second) } : {}), others: othersOf(asked, basket) };
      return one("yarn", called, { hook_mm: Number(hook), yarn: keptYarn(yarn), ...more });
    }
  }
}
