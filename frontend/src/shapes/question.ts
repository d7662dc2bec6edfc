/** What the studio is asked about a shape: its recipe at the gauge, terms and colours of a design. */
import { answer, api, type Schemas } from "../api/client";
import { coloursOf, type Design, gaugeOf } from "../design/design";
import type { Recipe } from "./recipe";

export type Shape = Schemas["ShapeOut"];
/** part: key of the part whose shape it is, null for one that is new. */
export type Question = { recipe: Recipe; design: Design; colour: string | null; part: string | null };

const NUMBER = { value: 0 };

export function bodyOf({ recipe, design, colour, part }: Question): Schemas["ShapeIn"] {
  return {
    recipe,
    gauge: gaugeOf(design, part),
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
  const gist = (q: Question) =>
    JSON.stringify([q.recipe, q.colour, gaugeOf(q.design, q.part), q.design.terms]);
  return gist(a) === gist(b);
}

/** What tells one settling of a shape from the next. */
export function fitKey({ recipe, design, part }: Question): string {
  return JSON.stringify([recipe, gaugeOf(design, part)]);
}
