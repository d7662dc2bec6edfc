/** The server counts code points, the editor UTF-16 units. They differ only beyond the basic plane. */

const BEYOND = /[\u{10000}-\u{10ffff}]/u;

/** A function from code point offsets of `text` to UTF-16 offsets. */
export function toUnits(text: string): (point: number) => number {
  if (!BEYOND.test(text)) return (point) => Math.min(point, text.length);
  const at: number[] = [];
  let unit = 0;
  for (const sign of text) {
    at.push(unit);
    unit += sign.length;
  }
  return (point) => at[point] ?? text.length;
}
