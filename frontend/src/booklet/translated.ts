/** Translations of her prose, as the booklet's page keeps them. */
import type { Page } from "./said";

export type Translation = NonNullable<Page["translations"]>[number];
export type Foreign = Translation["language"];

/** The translations with one piece said otherwise; an empty one is none. */
export function translated(
  all: readonly Translation[],
  language: Foreign,
  source: string,
  text: string,
): Translation[] {
  const others = all.filter((t) => t.language !== language || t.source !== source);
  return text.trim() === "" ? others : [...others, { language, source, text }];
}
