/** Questions to the studio about a text that is brought in. */
import { answer, api, OFFLINE, postFile, type Schemas } from "../api/client";
import type { Said, Terms } from "./said";

export type Board = Schemas["BoardOut"];
export type BoardLine = Schemas["BoardLineOut"];
export type Written = { name: string; text: string; notes: string[] };

/** A file's text, or the job that reads it out of a document. */
export function askText(file: File): Promise<Schemas["FileTextOut"]> {
  return postFile("/api/bench/text", file, {
    ...OFFLINE,
    detail: "The studio does not answer, so nothing was brought in. Try again.",
  });
}

export function bodyOf({ name, text }: Written, { terms, corrections, words }: Said) {
  return { name: name.slice(0, 255), text, terms, corrections: [...corrections], words: [...words] };
}

/** What a text holds, line by line. into: the terms that its parts are to be put into. */
export function askBoard(written: Written, said: Said, into: Terms | null): Promise<Board> {
  return answer<Board>(api.POST("/api/bench/board", { body: { ...bodyOf(written, said), into } }));
}
