/** What is looked for on the shelf of pieces, and the numbers that a figure is drawn by. */
import { describe, expect, it } from "vitest";
import { asked, codeOf, drawnAgain, drawnFirst, picksOf } from "./lots";
import { ANYTHING, isWanted, type Piece, portWords } from "./pieces";

const FREE = {
  change: true,
  selling: "yes",
  rounds: true,
  difference: true,
  alike: false,
  credit: "",
  words: "",
} as const;
const port = {
  part: "a",
  name: "Head",
  round: 9,
  count: 18,
  girth_mm: 75,
  end: true,
  joined: false,
  flat: false,
};
const OWL: Piece = {
  id: 1,
  title: "Owl head",
  slot: "head",
  designer: "Odo Thistlewick",
  own: false,
  version: "1.0",
  tags: ["night"],
  permissions: { ...FREE, rounds: false, selling: "no" },
  terms: [],
  parts: ["Head", "Tuft"],
  main: "a",
  made_from: [],
  keys: ["a", "b"],
  yarns: [],
  ports: [port],
  stitches: 400,
  rounds: 20,
  faults: 0,
};

describe("a piece is found", () => {
  const by = (more: Partial<typeof ANYTHING>) => isWanted(OWL, { ...ANYTHING, ...more });
  it("by words in its title, tags, parts and its designer's name, in any order", () => {
    expect(by({ words: "odo night" })).toBe(true);
    expect(by({ words: "TUFT" })).toBe(true);
    expect(by({ words: "owl acorn" })).toBe(false);
  });
  it("by where it belongs, and by its open end", () => {
    expect(by({ slot: "head", count: 18, girth: 80 })).toBe(true);
    expect(by({ slot: "limb" })).toBe(false);
    expect(by({ count: 24 })).toBe(false);
    expect(by({ girth: 100 })).toBe(false);
  });
  it("by what its terms allow; her own allow everything", () => {
    expect(by({ may: "change" })).toBe(true);
    expect(by({ may: "sell" })).toBe(false);
    expect(by({ may: "rounds" })).toBe(false);
    expect(isWanted({ ...OWL, own: true }, { ...ANYTHING, may: "rounds" })).toBe(true);
  });
  it("and says where it is open", () => {
    expect(portWords(OWL)).toBe("Head open on 18 (75 mm around)");
    expect(portWords({ ...OWL, ports: [] })).toBe("closed all around");
  });
});

describe("the numbers of a drawn figure", () => {
  it("come back from the line that is shared", () => {
    const line = "17-402-=7-x-88";
    const picks = picksOf(line);
    expect(picks).toEqual({
      body: { seed: 17 },
      head: { seed: 402 },
      limb: { piece: 7 },
      held: { seed: 88 },
    });
    expect(picks && codeOf(picks)).toBe(line);
    expect(picks && asked(picks)).toMatchObject({
      seeds: { body: 17, head: 402, held: 88 },
      held: { limb: 7 },
    });
  });
  it.each(["", "1-2-3", "1-2-3-4-5-6", "1-2-3-4-12345", "1-2-3-4-a", "1-2-3-4-="])(
    "are not taken from %j",
    (line) => {
      expect(picksOf(line)).toBeNull();
    },
  );
  it("are other ones for what is not held; what is empty stays empty", () => {
    const now = picksOf("17-402-=7-x-88") ?? {};
    const again = drawnAgain(now);
    expect(again.limb).toEqual({ piece: 7 });
    expect("on-top" in again).toBe(false);
    expect(Object.keys(drawnFirst())).toHaveLength(5);
  });
});
