/** What the typed size comes to once it is crocheted and stuffed, said where it is typed. */
import type { Settled } from "../figure/settled";
import { rounded } from "../ui/units";

/** Share of a measure, and mm, from which the difference is worth a word. */
const SHARE = 0.03;
const MM = 1.5;

/** How a measured size differs from the wished one in words; null while it is as near as fabric gets. */
export function differs(wished: number, got: number, less: string, more: string): string | null {
  const off = got - wished;
  if (Math.abs(off) < Math.max(SHARE * wished, MM)) return null;
  return `${rounded(Math.abs(off), 0)} mm ${off < 0 ? less : more}`;
}

export function SettledSize({ size, settled }: { size: readonly number[]; settled: Settled | null }) {
  if (!settled) return null;
  const { height_mm, width_mm } = settled.measures;
  const said = [
    differs(size[2] ?? height_mm, height_mm, "lower", "higher"),
    differs(size[0] ?? width_mm, width_mm, "narrower", "wider"),
  ].filter((words) => words !== null);
  const got = `${rounded(height_mm, 0)} mm high and ${rounded(width_mm, 0)} mm wide`;
  return (
    <p
      role="status"
      className={`mt-1 text-sm ${said.length ? "border-l-4 border-weld bg-weld-ground px-2 py-1" : "text-soft"}`}
      data-testid="settled-size"
    >
      {said.length
        ? `Settles to ${got}: ${said.join(" and ")} than the shape. Compensate redraws it to come nearer.`
        : `Settles to ${got}, as the shape asks.`}
    </p>
  );
}
