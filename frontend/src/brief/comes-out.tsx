/** How tall the figure comes out as it is, beside the height that is wished for. */
import { useSizesTable } from "../sizes/use-table";
import { Guess } from "../ui/overlays";
import { cm } from "../ui/units";

const NONE_ASKED: [] = [];

/** Whether a wished height lies within what comes out, and which way it does not. */
export function against(wished: number, low: number, high: number): string {
  if (wished < low) return "more than wished";
  if (wished > high) return "less than wished";
  return "as wished";
}

export function ComesOut({
  design,
  wished,
}: {
  design: { id: number; revision: number; parts: { counts: number[] }[] };
  wished: number | null;
}) {
  const begun = design.parts.some((p) => p.counts.length);
  return begun ? <Height design={design} wished={wished} /> : null;
}

function Height({ design, wished }: { design: { id: number; revision: number }; wished: number | null }) {
  const { table } = useSizesTable(design, NONE_ASKED);
  const base = table?.columns[0];
  if (!base?.parts.length) return null;
  const { height, height_makers: makers } = base;
  return (
    <p role="status" className="mt-2 text-sm text-soft">
      As it is, it comes to <Guess of={height} format={cm} />,{" "}
      {makers ? `as ${makers} makings measured` : "by the estimate"}
      {wished ? `: ${against(wished, height.low, height.high)}` : ""}.
    </p>
  );
}
