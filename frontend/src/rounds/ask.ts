/** Questions to the bench about a part's text. */
import { answer, api, cookie, type Schemas } from "../api/client";
import { coloursOf, type Design, gaugeOf } from "../design/design";

export type Preview = Schemas["PreviewOut"];
export type Problem = Schemas["ProblemOut"];

const NUMBER = { value: 0 };

function question(text: string, design: Design, colour: string | null): Schemas["PreviewIn"] {
  return {
    text,
    terms: design.terms,
    gauge: gaugeOf(design),
    colours: coloursOf(design),
    colour,
    number: ++NUMBER.value,
  };
}

/** A part's text and the yarn it begins with. */
export type Question = { text: string; design: Design; colour: string | null };

export function askPreview({ text, design, colour }: Question): Promise<Preview> {
  return answer(api.POST("/api/bench/preview", { body: question(text, design, colour) }));
}

export function askTidy(text: string, design: Design, fold: boolean): Promise<Schemas["TidyOut"]> {
  return answer(api.POST("/api/bench/tidy", { body: { text, terms: design.terms, fold } }));
}

/** The part as the craft's own SVG. */
export async function partPicture({ text, design, colour }: Question): Promise<string> {
  const got = await fetch("/api/bench/picture", {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": cookie("csrftoken") },
    body: JSON.stringify(question(text, design, colour)),
  });
  if (!got.ok) throw new Error("no picture");
  return got.text();
}
