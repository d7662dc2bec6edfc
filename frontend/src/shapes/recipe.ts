/** Recipes as they are kept (docs/file-format.md), and what the Shapes stop makes of them. */
import type { Schemas } from "../api/client";
import { KINDS, type Kind } from "./silhouettes";

export type Recipe = Schemas["RoundsRecipe"];
export type Form = Recipe["form"];
export type Handle = [number, number];
export type Solid = Schemas["Solid"];
export type SolidForm = Schemas["SolidForm"];
/** A traced outline with every list it may have: front, side, axis and cross-section. */
export type Traced = Required<Schemas["TracedForm"]>;
export type Stack = Schemas["StackForm"];
export type Mesh = Schemas["MeshForm"];
export type BoxForm = Schemas["BoxForm"];
export type Modifier = NonNullable<SolidForm["modifiers"]>[number];
export type Surface = NonNullable<Recipe["redrawn"]>;

/** A thread sewn through: where it begins and ends (along, around, from 0 to 1), and its length in mm. */
export type Thread = NonNullable<Recipe["threads"]>[number];

export type Base = Form["base"];

export function solidOf(kind: Kind): Solid {
  const found = KINDS.find((k) => k.kind === kind);
  return {
    kind,
    height_mm: found?.height ?? 60,
    width_mm: found?.width ?? 60,
    open: found?.open ?? false,
  };
}

/** A solid as a shape begins; its start is the shape's to choose. */
export function recipeFor(kind: Kind): Recipe {
  return { kind: "rounds", form: { base: "solid", ...solidOf(kind), modifiers: [] }, start: 0 };
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
  section: [],
  modifiers: [],
};

const ball = (mm: number): Solid => ({ ...solidOf("sphere"), height_mm: mm, width_mm: mm });

export const FIRST_STACK: Stack = { base: "stack", solids: [ball(60), ball(45)], neck: 0.6, modifiers: [] };

export const FIRST_BOX: BoxForm = { base: "box", width_mm: 60, depth_mm: 50, height_mm: 70, modifiers: [] };

/** One more for a stack. */
export const NEXT_SOLID: Solid = ball(35);

/** An outline with every list, as it is kept or new. */
export function traced(form: Schemas["TracedForm"]): Traced {
  return { ...FIRST_TRACE, ...form };
}

/** The same recipe on another base; how to draft it stays. */
export function withBase(recipe: Recipe, base: Exclude<Base, "mesh">, kind: Kind = "sphere"): Recipe {
  const { simplicity, start_kind, shaping } = recipe;
  const form = { solid: recipeFor(kind).form, traced: FIRST_TRACE, stack: FIRST_STACK, box: FIRST_BOX }[base];
  return { ...recipeFor(kind), simplicity, start_kind, shaping, form };
}

/** Another shape: what was redrawn and sewn through for the old one is no longer right. */
export function reshaped(recipe: Recipe, form: Form): Recipe {
  return { ...recipe, form, redrawn: null, threads: [] };
}

/** The recipe of a part that is worked in rounds; a panel is no shape that rounds follow. */
export function recipeFrom(kept: Schemas["PartOut"]["recipe"]): Recipe | null {
  return kept?.kind === "rounds" ? kept : null;
}

/** Whether a bend is all that is done to a body of revolution: then short rows can work it. */
export function onlyBent({ form }: Recipe): boolean {
  const round =
    form.base === "solid" || form.base === "stack" || (form.base === "traced" && isRound(traced(form)));
  return round && form.modifiers?.length === 1 && form.modifiers[0]?.kind === "bend";
}

function isRound(form: Traced): boolean {
  return !form.side.length && !form.section.length && !form.axis.some(([forward]) => forward !== 0);
}

/** A mesh at another height. */
export function meshAt(form: Mesh, height: number, now: number): Mesh {
  return { ...form, reach_mm: (form.reach_mm * height) / Math.max(now, 0.01) };
}
