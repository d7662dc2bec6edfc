/** What the studio is asked about a shape: its recipe at the gauge, terms and colours of a design. */
import { answer, api, type Schemas } from "../api/client";
import { coloursOf, type Design, gaugeOf } from "../design/design";
import type { Recipe } from "./recipe";

export type Shape = Schemas["ShapeOut"];
export type Question = { recipe: Recipe; design: Design; colour: string | null };

const NUMBER = { value: 0 };

export function bodyOf({ recipe, design, colour }: Question): Schemas["ShapeIn"] {
  return {
    recipe,
    gauge: gaugeOf(design),
    terms: design.terms,
    colours: coloursOf(design),
    colour,
    number: ++NUMBER.value,
  };
}

export async function askShape(question: Question): Promise<Shape> {
  return answer(api.POST("/api/shapes/draft", { body: bodyOf(question) }));
}

export function sameQuestion(a: Question, b: Question): boolean {
  return (
    JSON.stringify([a.recipe, a.colour, a.design.gauge_now, a.design.terms]) ===
    JSON.stringify([b.recipe, b.colour, b.design.gauge_now, b.design.terms])
  );
}

/** What tells one settling of a shape from the next. */
export function fitKey({ recipe, design }: Question): string {
  return JSON.stringify([recipe, gaugeOf(design)]);
}
