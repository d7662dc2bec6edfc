import { describe, expect, it } from "vitest";
import {
  explained,
  FIRST_STEP,
  gaps,
  joined,
  linesOf,
  NOTHING_SAID,
  now,
  partedAt,
  stepped,
  takenFor,
  wholeAgain,
} from "./said";

const at = (line: number, column = 0) => ({ line, column });

describe("what she says of a text", () => {
  it("is one correction a row, and none when it says nothing any more", () => {
    const heading = takenFor(NOTHING_SAID, at(3), "part");
    expect(heading.corrections).toEqual([{ line: 3, column: 0, taken: "part", joined: false }]);
    const note = takenFor(heading, at(3), "note");
    expect(note.corrections).toHaveLength(1);
    expect(takenFor(note, at(3), null).corrections).toEqual([]);
  });

  it("keeps a line joined when it is taken for something else", () => {
    const both = takenFor(joined(NOTHING_SAID, at(3), true), at(3), "round");
    expect(both.corrections).toEqual([{ line: 3, column: 0, taken: "round", joined: true }]);
    expect(joined(both, at(3), false).corrections[0]?.joined).toBe(false);
  });

  it("keeps a line parted until it is whole again", () => {
    const parted = partedAt(NOTHING_SAID, at(3, 8));
    expect(parted.corrections).toEqual([{ line: 3, column: 8, taken: null, joined: false }]);
    expect(takenFor(takenFor(parted, at(3, 8), "round"), at(3, 8), null).corrections).toHaveLength(1);
    expect(wholeAgain(parted, at(3, 8)).corrections).toEqual([]);
  });

  it("explains a word once, in whatever letters", () => {
    const one = explained(explained(NOTHING_SAID, "plik", "inc"), "Plik", " dec ");
    expect(one.words).toEqual([{ word: "Plik", means: "dec" }]);
    expect(explained(one, "plik", "").words).toEqual([]);
  });
});

describe("steps", () => {
  const one = takenFor(NOTHING_SAID, at(1), "part");
  const two = takenFor(one, at(2), "note");
  it("go back and forth, and a new one forgets those that were undone", () => {
    let steps = stepped(stepped(FIRST_STEP, { to: one }), { to: two });
    steps = stepped(steps, "undo");
    expect(now(steps)).toBe(one);
    expect(now(stepped(steps, "redo"))).toBe(two);
    expect(now(stepped(stepped(stepped(steps, "undo"), "undo"), "undo"))).toBe(NOTHING_SAID);
    const other = stepped(steps, { to: NOTHING_SAID });
    expect(now(stepped(other, "redo"))).toBe(NOTHING_SAID);
    expect(stepped(other, "anew")).toEqual(FIRST_STEP);
  });
});

describe("places where a line may be parted", () => {
  it("are the beginnings of its words, counted as the studio counts", () => {
    expect(gaps("BODY 🧶 Rnd 1: 6 sc", 0).map((g) => [g.at, g.after])).toEqual([
      [5, "🧶 Rnd 1: 6 sc"],
      [7, "Rnd 1: 6 sc"],
      [11, "1: 6 sc"],
      [14, "6 sc"],
      [16, "sc"],
    ]);
    expect(gaps("  word", 0)).toEqual([]);
    expect(gaps("one two three", 4).map((g) => g.at)).toEqual([8]);
  });
  it("stand in lines with any line break", () => {
    expect(linesOf("a\r\nb\rc\nd")).toEqual(["a", "b", "c", "d"]);
  });
});
