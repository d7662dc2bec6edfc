/** Which booklet is shown and printed, and where its tree, pictures and files are found. */
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";

export const AS_IT_IS = "as-it-is";
const FOR_ALL = "all";
/** The edition that tells only what differs from the base. */
export const DIFFERENCE = "difference";

/** An edition as it is asked for, with how it is printed. */
export type Asked = Required<Schemas["PrintIn"]>;
type Ending = Asked["files"][number];

export const ENDINGS: readonly (readonly [Ending, string])[] = [
  ["pdf", "PDF"],
  ["html", "Web page"],
  ["epub", "EPUB"],
  ["txt", "Text"],
  ["md", "Markdown"],
  ["json", "JSON"],
];

export const TERMS = [
  ["us", "US"],
  ["uk", "UK"],
  ["letters", "letters"],
] as const;
export const LANGUAGES = [
  ["en", "English"],
  ["de", "German"],
  ["fr", "French"],
  ["es", "Spanish"],
  ["it", "Italian"],
  ["nl", "Dutch"],
] as const;
export const EXPLAINED = [
  ["full", "everything"],
  ["short", "names only"],
  ["rounds", "rounds only"],
  ["counts", "count tables"],
] as const;
export const PAPERS = [
  ["a4", "A4"],
  ["letter", "Letter"],
  ["phone", "for a phone"],
] as const;
export const PICTURES = [
  ["all", "all pictures"],
  ["figure", "of the figure only"],
  ["none", "no pictures"],
] as const;

export function firstAsked(design: Design): Asked {
  return {
    edition: AS_IT_IS,
    terms: design.terms,
    pictures: "all",
    language: "en",
    explained: "full",
    left: false,
    paper: "a4",
    large: false,
    low_ink: false,
    files: ["pdf", "html", "epub"],
  };
}

/** Editions to print: as it is, at each of its sizes, one text for all that are in its own yarn, what differs from its base. */
export function editionsOf(design: Design): [string, string][] {
  const sizes = design.sizes.sizes ?? [];
  const all = sizes.some((s) => s.kind !== "yarn");
  return [
    [AS_IT_IS, "as it is"],
    ...(all ? [[FOR_ALL, "all sizes in one"] as [string, string]] : []),
    ...sizes.map((s): [string, string] => [s.key, s.name]),
    ...(design.origin?.id
      ? [[DIFFERENCE, `only what differs from ${design.origin.name}`] as [string, string]]
      : []),
  ];
}

function query(asked: Asked, more: Record<string, string> = {}): string {
  const { files: _, ...rest } = asked;
  const told = Object.entries(rest).map(([name, value]): [string, string] => [name, String(value)]);
  return new URLSearchParams([...told, ...Object.entries(more)]).toString();
}

export const fileUrl = (design: Design, asked: Asked, ending: Ending) =>
  `/api/designs/${design.id}/booklet.${ending}?${query(asked)}`;

export const templatesUrl = (design: Design, asked: Asked) =>
  `/api/designs/${design.id}/templates.pdf?${query(asked, { paper: asked.paper === "letter" ? "letter" : "a4" })}`;

/** The address of a picture; `revision` makes it another one when the figure changes. */
export const shownUrl = (design: Design, asked: Asked, key: string) =>
  `/api/designs/${design.id}/booklet/picture?${query(asked, { key, revision: String(design.revision) })}`;
