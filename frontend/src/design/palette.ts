/** The colours of a design. */
import { coloursOf, type Design } from "./design";

/** Yarns' colours by name; the first is the main one, too. */
export function paletteOf(design: Design): Record<string, string> {
  const colours = coloursOf(design);
  return {
    ...(colours[0] ? { Main: colours[0].colour } : {}),
    ...Object.fromEntries(colours.map((c) => [c.name, c.colour])),
  };
}
