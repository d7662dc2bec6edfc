/** Questions to the bench about a part's text. */
import { answer, api, cookie, type Schemas } from "../api/client";
import { coloursOf, type Design, gaugeOf } from "../design/design";

export type Preview = Schemas["PreviewOut"];
export type Problem = Schemas["ProblemOut"];
export type DryRun = Schemas["DryRunOut"];
export type Reshape = Omit<Schemas["ReshapeIn"], "text" | "terms">;

const NUMBER = { value: 0 };

/** A part's text, the yarn it begins with, and the part it is, so that the others can be worked in. */
export type Question = { text: string; design: Design; colour: string | null; part: string };

function question({ text, design, colour, part }: Question): Schemas["PreviewIn"] {
  return {
    text,
    terms: design.terms,
    gauge: gaugeOf(design, part),
    colours: coloursOf(design),
    colour,
    others: design.parts
      .filter((p) => p.key !== part)
      .map((p) => ({ name: p.name, make: p.make, text: p.text, colour: p.colour })),
    eyes: eyesOf(design, part),
    number: ++NUMBER.value,
  };
}

/** Where the eyes are put, so that a direction which says otherwise is found. */
function eyesOf({ assembly }: Design, part: string): Schemas["PreviewIn"]["eyes"] {
  const { eyes, eye_kind, eye_mm } = assembly;
  if (!eyes || eye_kind === "none") return null;
  const { round, between, share } = eyes;
  return { here: eyes.part === part, round, between, share, eye_mm, embroidered: eye_kind === "embroidered" };
}

export function askPreview(asked: Question): Promise<Preview> {
  return answer(api.POST("/api/bench/preview", { body: question(asked) }));
}

/** Have the part settled; the job that does it. */
export function askSettled(asked: Question): Promise<Schemas["JobOut"]> {
  return answer(api.POST("/api/bench/settle", { body: question(asked) }));
}

export function askDryRun(asked: Question): Promise<DryRun> {
  return answer(api.POST("/api/bench/dry-run", { body: question(asked) }));
}

export function askTidy(text: string, design: Design, fold: boolean): Promise<Schemas["TidyOut"]> {
  return answer(api.POST("/api/bench/tidy", { body: { text, terms: design.terms, fold } }));
}

/** The text after a change of the ladder. */
export function askReshape(text: string, design: Design, change: Reshape): Promise<Schemas["TidyOut"]> {
  return answer(api.POST("/api/bench/reshape", { body: { text, terms: design.terms, ...change } }));
}

async function svg(path: string, body: object): Promise<string> {
  const got = await fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": cookie("csrftoken") },
    body: JSON.stringify(body),
  });
  if (!got.ok) throw new Error("no picture");
  return got.text();
}

/** The part as the craft's own SVG. */
export function partPicture(asked: Question): Promise<string> {
  return svg("/api/bench/picture", question(asked));
}

/** The part as a round chart in SVG. */
export function askChart(asked: Question, title: string, leftHanded: boolean): Promise<string> {
  return svg("/api/bench/chart", { ...question(asked), title, left_handed: leftHanded });
}
