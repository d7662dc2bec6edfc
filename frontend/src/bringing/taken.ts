/** What a line may be taken for, in the words of the trade, with the key that says so. */
import type { Taken } from "./said";

type Choice = { taken: Taken; name: string; key: string; ground: string };

export const CHOICES: readonly Choice[] = [
  { taken: "part", name: "Part heading", key: "h", ground: "bg-woad-ground" },
  { taken: "round", name: "Round", key: "r", ground: "bg-moss-ground" },
  { taken: "direction", name: "Direction", key: "d", ground: "bg-weld-ground" },
  { taken: "note", name: "Note", key: "n", ground: "bg-sunk" },
  { taken: "title", name: "Title", key: "t", ground: "bg-sunk" },
  { taken: "materials", name: "Materials", key: "m", ground: "bg-sunk" },
  { taken: "gauge", name: "Gauge", key: "g", ground: "bg-sunk" },
  { taken: "abbreviations", name: "Abbreviations", key: "b", ground: "bg-sunk" },
  { taken: "assembly", name: "Assembly", key: "a", ground: "bg-sunk" },
  { taken: "safety", name: "Safety", key: "s", ground: "bg-sunk" },
  { taken: "permissions", name: "Permissions", key: "p", ground: "bg-sunk" },
  { taken: "credits", name: "Credits", key: "c", ground: "bg-sunk" },
  { taken: "nothing", name: "Left out", key: "x", ground: "bg-panel" },
];

const COLOUR: Choice = { taken: "colour", name: "Colour", key: "", ground: "bg-sunk" };

export function choiceOf(taken: Taken): Choice {
  return CHOICES.find((c) => c.taken === taken) ?? COLOUR;
}
