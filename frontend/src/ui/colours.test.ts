import { describe, expect, it } from "vitest";
import css from "../styles.css?raw";

function table(selector: string): Record<string, string> {
  const block = css.slice(css.indexOf(`${selector} {`), css.indexOf("}", css.indexOf(`${selector} {`)));
  return Object.fromEntries(
    [...block.matchAll(/--([a-z-]+): (#[0-9a-f]{6});/g)].map((m) => [m[1] ?? "", m[2] ?? ""]),
  );
}

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
}

function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return ((high ?? 0) + 0.05) / ((low ?? 0) + 0.05);
}

const GROUNDS = ["ground", "panel", "sunk", "madder-ground", "woad-ground", "weld-ground", "moss-ground"];
const daylight = table(":root");
const lamplight = { ...daylight, ...table(':root[data-ground="lamplight"]') };

describe.each([
  ["daylight", daylight],
  ["lamplight", lamplight],
])("colours by %s", (_, colours) => {
  const of = (name: string) => colours[name] ?? "#000000";
  it.each(GROUNDS)("ink reads on %s", (ground) => {
    expect(contrast(of("ink"), of(ground))).toBeGreaterThanOrEqual(7);
  });
  it.each(["ground", "panel", "sunk"])("soft ink reads on %s", (ground) => {
    expect(contrast(of("soft-ink"), of(ground))).toBeGreaterThanOrEqual(4.5);
  });
  it.each(["madder", "woad", "weld", "moss", "strong-line", "rung-line"])(
    "%s stands out as a line or mark",
    (accent) => {
      expect(contrast(of(accent), of("ground"))).toBeGreaterThanOrEqual(3);
      expect(contrast(of(accent), of("panel"))).toBeGreaterThanOrEqual(3);
    },
  );
  it("signs read on their marks", () => {
    expect(contrast(of("panel"), of("madder"))).toBeGreaterThanOrEqual(4.5);
    expect(contrast(of("panel"), of("weld"))).toBeGreaterThanOrEqual(4.5);
  });
});
