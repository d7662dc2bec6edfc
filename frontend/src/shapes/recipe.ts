/** Recipes as the Shapes stop holds them: a base, modifiers, and how to draft. */
import type { Schemas } from "../api/client";
import { KINDS, type Kind } from "./silhouettes";

export type Handle = [number, number];
export type Backing = { number: number; mm_per_px: number; pole_x: number; pole_y: number };
export type SolidForm = {
  kind: Kind;
  height_mm: number;
  width_mm: number;
  open: boolean;
  opening_mm: number | null;
  point: number;
};
export type Traced = {
  base: "traced";
  front: Handle[];
  side: Handle[];
  axis: Handle[];
  open: boolean;
  picture: Backing | null;
  /** The cross-section: reaches from the middle at even angles, in half widths; none for a circle. */
  section?: number[];
};
export type Stack = { base: "stack"; solids: SolidForm[]; neck: number };
export type Mesh = { base: "mesh"; reach_mm: number; corners: string; faces: string; pole: number };
export type BoxForm = { base: "box"; width_mm: number; depth_mm: number; height_mm: number };
export type Form = Traced | Stack | BoxForm | Mesh;
export type Modifier = { kind: string } & Record<string, number | string>;

/** A thread sewn through: where it begins and ends (along, around, from 0 to 1), and its length in mm. */
export type Thread = [number, number, number, number, number];

export type Recipe = Omit<Required<Schemas["RecipeIn"]>, "form" | "modifiers" | "redrawn" | "threads"> & {
  form: Form | null;
  modifiers: Modifier[];
  redrawn: Record<string, unknown> | null;
  threads: Thread[];
};

export type Base = "solid" | Form["base"];

export function baseOf(recipe: Recipe): Base {
  return recipe.form?.base ?? "solid";
}

export function recipeFor(kind: Kind): Recipe {
  const found = KINDS.find((k) => k.kind === kind);
  return {
    kind,
    height_mm: found?.height ?? 60,
    width_mm: found?.width ?? 60,
    open: found?.open ?? false,
    opening_mm: null,
    point: 0.2,
    form: null,
    modifiers: [],
    redrawn: null,
    threads: [],
    split: false,
    short_rows: false,
    start: 0,
    simplicity: 0.85,
    stacked: false,
    first: false,
    decrease: "dec",
    start_kind: "ring",
  };
}

/** A pear to begin tracing with, 90 mm tall. */
export const FIRST_TRACE: Traced = {
  base: "traced",
  front: [
    [0, 0],
    [26, 8],
    [34, 32],
    [22, 60],
    [20, 78],
    [0, 90],
  ],
  side: [],
  axis: [],
  open: false,
  picture: null,
};

export const FIRST_STACK: Stack = {
  base: "stack",
  solids: [solidForm("sphere", 60), solidForm("sphere", 45)],
  neck: 0.6,
};

export const FIRST_BOX: BoxForm = { base: "box", width_mm: 60, depth_mm: 50, height_mm: 70 };

export function solidForm(kind: Kind, size: number): SolidForm {
  return { kind, height_mm: size, width_mm: size, open: false, opening_mm: null, point: 0.2 };
}

/** The same recipe on another base; how to draft it stays. */
export function withBase(recipe: Recipe, base: Base, kind: Kind = "sphere"): Recipe {
  const { simplicity, decrease, start_kind, stacked, first } = recipe;
  const plain = { ...recipeFor(kind), simplicity, decrease, start_kind, stacked, first };
  if (base === "traced") return { ...plain, form: FIRST_TRACE };
  if (base === "box") return { ...plain, form: FIRST_BOX };
  if (base === "stack") return { ...plain, form: FIRST_STACK };
  return plain;
}

/** A change of the shape itself: what was redrawn and sewn through for the old one is no longer right. */
export function reshaped(recipe: Recipe, part: Partial<Recipe>): Recipe {
  return { ...recipe, ...part, redrawn: null, threads: [] };
}

/** The recipe of a part as it was stored, in the form the screens use. */
export function recipeFrom(stored: Record<string, unknown> | null): Recipe | null {
  // A panel is worked in rows: it is no shape that rounds follow.
  if (!stored || stored.panel) return null;
  const how = Object.fromEntries(
    ["start", "simplicity", "stacked", "first", "decrease", "start_kind"].map((k) => [k, stored[k]]),
  ) as Partial<Recipe>;
  const redrawn = (stored.redrawn as Record<string, unknown> | undefined) ?? null;
  const threads = (stored.threads as Thread[] | undefined) ?? [];
  const more = { threads, split: stored.split === true, short_rows: stored.short_rows === true };
  const form = stored.form as (Form | ({ base: "solid" } & SolidForm)) & { modifiers?: Modifier[] };
  if (form && typeof form === "object") {
    const { modifiers = [], ...base } = form;
    if (base.base !== "solid")
      return { ...recipeFor("sphere"), ...how, form: base as Form, modifiers, redrawn, ...more };
    const { base: _, ...solid } = base;
    return { ...recipeFor(solid.kind), ...solid, ...how, modifiers, redrawn, ...more };
  }
  const solid = stored.solid as Partial<SolidForm> | undefined;
  if (!solid?.kind) return null;
  return { ...recipeFor(solid.kind), ...(solid as SolidForm), ...how, redrawn, ...more };
}

/** Whether a bend is all that is done to a body of revolution: then short rows can work it. */
export function onlyBent({ form, modifiers }: Recipe): boolean {
  const round = form === null || form.base === "stack" || (form.base === "traced" && isRound(form));
  return round && modifiers.length === 1 && modifiers[0]?.kind === "bend";
}

function isRound(form: Traced): boolean {
  return !form.side.length && !form.section?.length && !form.axis.some(([forward]) => forward !== 0);
}

/** A mesh at another height. */
export function meshAt(form: Mesh, height: number, now: number): Mesh {
  return { ...form, reach_mm: (form.reach_mm * height) / Math.max(now, 0.01) };
}
