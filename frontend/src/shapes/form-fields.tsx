/** The shape itself: its base with its own fields, drawn, and the modifiers upon it. */
import type { ReactNode } from "react";
import type { Design } from "../design/design";
import { Check } from "../ui/controls";
import { BaseChoice } from "./base-choice";
import { BoxSizes } from "./box-sizes";
import { MeshFields } from "./mesh";
import { Modifiers } from "./modifiers";
import { Outline } from "./outline";
import type { Shape } from "./question";
import { type Form, onlyBent, type Recipe, reshaped, type SolidForm, traced, withBase } from "./recipe";
import { SolidSizes } from "./solid-sizes";
import { StackFields } from "./stack";
import { Trace } from "./trace";
import { Sides } from "./views";

export function FormFields({
  design,
  recipe,
  shape,
  choosing,
  onChoosing,
  onRecipe,
  children,
}: {
  design: Design;
  recipe: Recipe;
  shape: Shape | null;
  /** A mesh is chosen before there is one: until then the shape of before stays. */
  choosing: boolean;
  onChoosing: (on: boolean) => void;
  onRecipe: (recipe: Recipe) => void;
  /** What is said of the typed size, right below it. */
  children?: ReactNode;
}) {
  return (
    <>
      <BaseChoice
        recipe={recipe}
        choosing={choosing}
        onBase={(base, kind) => {
          onChoosing(base === "mesh");
          if (base !== "mesh") onRecipe(withBase(recipe, base, kind));
        }}
      />
      <BaseFields
        design={design}
        form={recipe.form}
        shape={shape}
        choosing={choosing}
        onForm={(form) => {
          onChoosing(false);
          onRecipe(reshaped(recipe, form));
        }}
      />
      {children}
      {recipe.form.base !== "solid" && shape && <Sides sides={shape.sides} size={sizeOf(shape)} />}
      {!choosing && (
        <Modifiers
          modifiers={recipe.form.modifiers ?? []}
          onModifiers={(modifiers) => onRecipe(reshaped(recipe, { ...recipe.form, modifiers }))}
        />
      )}
      {!choosing && onlyBent(recipe) && (
        <Check
          label="Bend it with short rows"
          checked={recipe.short_rows ?? false}
          onChecked={(on) => onRecipe({ ...recipe, short_rows: on })}
        />
      )}
    </>
  );
}

function SolidFields({
  form,
  shape,
  onForm,
}: {
  form: SolidForm;
  shape: Shape | null;
  onForm: (form: SolidForm) => void;
}) {
  return (
    <>
      {shape?.sides.length ? (
        <Sides sides={shape.sides} size={sizeOf(shape)} />
      ) : (
        <Outline points={(shape?.outline ?? [[0, 0]]) as [number, number][]} solid={form} onSolid={onForm} />
      )}
      <SolidSizes solid={form} onSolid={onForm} />
    </>
  );
}

function BaseFields({
  design,
  form,
  shape,
  choosing,
  onForm,
}: {
  design: Design;
  form: Form;
  shape: Shape | null;
  choosing: boolean;
  onForm: (form: Form) => void;
}) {
  if (choosing || form.base === "mesh")
    return (
      <MeshFields
        form={form.base === "mesh" ? form : null}
        height={shape?.size_mm[2] ?? 100}
        onForm={onForm}
      />
    );
  if (form.base === "traced")
    return <Trace design={design} form={traced(form)} onForm={onForm} curve={curveOf(shape)} />;
  if (form.base === "stack") return <StackFields form={form} onForm={onForm} />;
  if (form.base === "box") return <BoxSizes form={form} onForm={onForm} />;
  return <SolidFields form={form} shape={shape} onForm={onForm} />;
}

function sizeOf(shape: Shape): [number, number, number] {
  return shape.size_mm as [number, number, number];
}

/** The half outline to draw: the craft's own, or how far the shape reaches to the side. */
function curveOf(shape: Shape | null): [number, number][] {
  if (!shape) return [];
  if (shape.outline.length) return shape.outline as [number, number][];
  return shape.sides.map(([z, left, right]) => [(right - left) / 2, z]);
}
