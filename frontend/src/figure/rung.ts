/** The outline of one rung: a bar as wide as its round has stitches, notched up at increases, nicked at decreases. */

export type Mark = readonly [number, number];

const NOTCH = 0.5;

/**
 * SVG path of a rung centred on x = 0 with its foot at y = 0 and its top at y = -height.
 * unit: width of a stitch. Places of marks are counted among `made` stitches.
 */
export function rungPath(
  live: number,
  made: number,
  marks: readonly Mark[],
  unit: number,
  height: number,
): string {
  const width = Math.max(live * unit, 2);
  const left = -width / 2;
  const wide = Math.min(unit * 0.8, 5);
  const deep = Math.min(height * NOTCH, 5);
  const steps = marks.map(([at, change]) => {
    const x = left + ((at + (change > 0 ? 1 : 0.5)) / Math.max(made, 1)) * width;
    const tip = change > 0 ? -height - deep : -height + deep;
    const [a, b] = [Math.max(x - wide / 2, left), Math.min(x + wide / 2, -left)];
    return `L${fix(a)} ${fix(-height)}L${fix((a + b) / 2)} ${fix(tip)}L${fix(b)} ${fix(-height)}`;
  });
  return `M${fix(left)} 0L${fix(left)} ${fix(-height)}${steps.join("")}L${fix(-left)} ${fix(-height)}L${fix(-left)} 0Z`;
}

function fix(n: number): string {
  return (Math.round(n * 100) / 100).toString();
}
