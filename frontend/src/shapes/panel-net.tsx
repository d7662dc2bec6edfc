/** Panels laid flat, joined where they can be, with the letter and the stitches of every seam. */
import type { Schemas } from "../api/client";

type PanelsOut = Schemas["PanelsOut"];
type Point = [number, number];

const MARGIN = 4;

function middleOf(points: readonly Point[]): Point {
  const sum = points.reduce<Point>((a, p) => [a[0] + p[0], a[1] + p[1]], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length];
}

/** A place on a side, drawn a little towards the middle of its panel. */
function inside(line: readonly Point[], middle: Point, by: number): Point {
  const [x, y] = middleOf([line[0] ?? [0, 0], line.at(-1) ?? [0, 0]]);
  const away = Math.hypot(middle[0] - x, middle[1] - y) || 1;
  return [x + ((middle[0] - x) / away) * by, y + ((middle[1] - y) / away) * by];
}

export function PanelNet({ panels }: { panels: PanelsOut }) {
  const all = panels.panels.flatMap((p) => p.outline as Point[]);
  const [low, high] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  const [foot, head] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const [wide, tall] = [high - low + 2 * MARGIN, head - foot + 2 * MARGIN];
  // Letters keep one size on the screen, whatever the panels' size.
  const type = Math.max(wide, tall) / 36;
  const at = ([x, y]: Point): Point => [x - low + MARGIN, head - y + MARGIN];
  const said = panels.seams
    .map((s) => `${s.letter}: ${s.one} to ${s.other}, ${s.stitches} stitches`)
    .join("; ");
  return (
    <svg
      viewBox={`0 0 ${wide.toFixed(1)} ${tall.toFixed(1)}`}
      className="mx-auto block max-h-[46dvh] w-full"
      role="img"
      aria-label={`The panels laid flat. Seams: ${said}`}
    >
      {panels.panels.map((panel) => {
        const outline = (panel.outline as Point[]).map(at);
        const middle = middleOf(panel.sides.map((side) => at(side.line[0] as Point)));
        return (
          <g key={panel.name}>
            <path
              d={`M${outline.map((p) => p.map((v) => v.toFixed(1)).join(" ")).join("L")}Z`}
              fill="var(--weld-ground)"
              stroke="var(--weld)"
              strokeWidth={type / 8}
            />
            <text x={middle[0]} y={middle[1]} textAnchor="middle" fontSize={type * 1.15} fill="var(--ink)">
              {panel.name}
            </text>
            {panel.sides.map((side) => {
              const [x, y] = inside((side.line as Point[]).map(at), middle, type * 1.3);
              return (
                <text
                  key={side.letter}
                  x={x}
                  y={y + type * 0.35}
                  textAnchor="middle"
                  fontSize={type}
                  fill="var(--woad)"
                >
                  {side.letter} {side.stitches}
                </text>
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}
