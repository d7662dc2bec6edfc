/** A shape that is no body of revolution, from the front and from the side. */
import type { Schemas } from "../api/client";

const TALL = 200;

export function Sides({
  sides,
  size,
}: {
  sides: Schemas["ShapeOut"]["sides"];
  size: [number, number, number];
}) {
  if (!sides.length) return null;
  const low = sides[0]?.[0] ?? 0;
  const high = sides.at(-1)?.[0] ?? 1;
  const bounds = (a: 1 | 3) => [
    Math.min(...sides.map((s) => s[a])),
    Math.max(...sides.map((s) => s[(a + 1) as 2 | 4])),
  ];
  const [left = 0, right = 1] = bounds(1);
  const [front = 0, back = 1] = bounds(3);
  const scale = TALL / Math.max(high - low, (right - left + back - front) * 0.75);
  const wide = (right - left + back - front) * scale + 60;
  const y = (z: number) => 10 + (high - z) * scale;
  const path = (a: 1 | 3, shift: number) => {
    const near = sides.map((s) => `${(shift + s[a] * scale).toFixed(1)} ${y(s[0]).toFixed(1)}`);
    const far = sides.map((s) => `${(shift + s[(a + 1) as 2 | 4] * scale).toFixed(1)} ${y(s[0]).toFixed(1)}`);
    return `M${[...near, ...far.reverse()].join("L")}Z`;
  };
  const shifts = [20 - left * scale, 40 + (right - left) * scale - front * scale] as const;
  const words = `${Math.round(size[0])} mm wide, ${Math.round(size[1])} mm deep, ${Math.round(size[2])} mm tall`;
  return (
    <figure className="mt-2">
      <svg
        viewBox={`0 0 ${wide.toFixed(0)} ${((high - low) * scale + 20).toFixed(0)}`}
        className="mx-auto block max-h-52 w-full"
        role="img"
        aria-label={`Shape aimed at, from front and side: ${words}`}
      >
        <path d={path(1, shifts[0])} fill="var(--weld-ground)" stroke="var(--weld)" strokeWidth={2} />
        <path d={path(3, shifts[1])} fill="var(--weld-ground)" stroke="var(--weld)" strokeWidth={2} />
      </svg>
      <figcaption className="text-center text-sm">Front and side: {words}</figcaption>
    </figure>
  );
}
