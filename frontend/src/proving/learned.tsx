/** Measured against predicted: what makings say of sizes, yarn and hours, and a sample of it for her basket. */
import type { Design } from "../design/design";
import { Button, Panel } from "../ui/controls";
import { useSay } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { type Makings, useMakingActs } from "./use-proving";

type One = Makings["learned"][number];

const NAMES: Record<One["quantity"], string> = {
  height: "Height",
  width: "Width",
  girth: "Girths",
  yarn: "Yarn",
  hours: "Time",
};

function shown(quantity: One["quantity"], value: number): string {
  if (quantity === "yarn") return `${value.toFixed(1)} g`;
  if (quantity === "hours") return `${(value / 60).toFixed(1)} h`;
  return `${(value / 10).toFixed(1)} cm`;
}

type Estimate = NonNullable<One["now"]>;

/** An estimate with its range, never as if it were measured. */
const ranged = (quantity: One["quantity"], e: Estimate) =>
  `${shown(quantity, e.value)} (${shown(quantity, e.low)} to ${shown(quantity, e.high)})`;

const percent = (ratio: number) => `${ratio >= 1 ? "+" : "−"}${Math.abs(Math.round(100 * (ratio - 1)))} %`;

/** What a quantity says, as a sentence: nothing is told from one figure or two. */
export function told(one: One): string {
  if (one.ratio === null || one.share === null)
    return `${one.makers} ${one.makers === 1 ? "making" : "makings"}: too few to reckon with (three are needed).`;
  return `${percent(one.ratio)} against the estimate, give or take ${Math.round(100 * one.share)} %, by the median of ${one.makers} makings.`;
}

/** Whether the booklet prints a length as it was measured, and the way to have it do so. */
function Printing({
  one,
  busy,
  onPrint,
}: {
  one: One;
  busy: boolean;
  onPrint: (quantity: "height" | "width") => void;
}) {
  const { quantity, printed } = one;
  if ((quantity !== "height" && quantity !== "width") || printed == null || one.ratio === null) return null;
  if (printed === one.makers)
    return <p className="mb-1 text-sm text-soft">The booklet prints it as measured on {printed} makings.</p>;
  return (
    <p className="mb-1 flex flex-wrap items-center gap-2 text-sm">
      {printed > 0 ? `The booklet prints it as of ${printed} makings.` : "The booklet prints the estimate."}
      <Button disabled={busy} onClick={() => onPrint(quantity)}>
        Print it as measured<span className="sr-only">: {NAMES[quantity]}</span>
      </Button>
    </p>
  );
}

export function Learned({ design, found }: { design: Design; found: Makings }) {
  const { sample, print } = useMakingActs(design.id);
  const say = useSay();
  if (found.learned.length === 0) return null;
  return (
    <Panel title="Measured against predicted">
      {found.learned.map((one) => (
        <section key={one.quantity} aria-label={NAMES[one.quantity]} className="mb-3">
          <h3 className="font-sans text-sm font-semibold">{NAMES[one.quantity]}</h3>
          <p className="mb-1 text-sm">
            {told(one)}
            {one.before && one.now && one.ratio !== null && (
              <>
                {" "}
                The estimate was {ranged(one.quantity, one.before)}; with them it is{" "}
                <strong>{ranged(one.quantity, one.now)}</strong>.
              </>
            )}
          </p>
          <Printing one={one} busy={print.isPending} onPrint={(q) => print.mutate(q)} />
          <table className="w-full text-sm">
            <thead className="text-left text-soft">
              <tr>
                <th className="font-normal">What</th>
                <th className="font-normal">Making</th>
                <th className="text-right font-normal">Predicted</th>
                <th className="text-right font-normal">Measured</th>
                <th className="text-right font-normal">Off by</th>
              </tr>
            </thead>
            <tbody>
              {one.pairs.map((p, i) => (
                <tr key={i} className="border-t border-line">
                  <td>{p.what}</td>
                  <td>{p.maker}</td>
                  <td className="text-right">{shown(one.quantity, p.predicted)}</td>
                  <td className="text-right">{shown(one.quantity, p.measured)}</td>
                  <td className="text-right">
                    {percent(p.ratio)}
                    {p.odd && " (not reckoned with: a slip of the unit?)"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      {found.samples.map((s) => (
        <div
          key={s.making}
          className="mt-2 flex flex-wrap items-center gap-3 border-l-4 border-woad bg-woad-ground px-2 py-1"
        >
          <span className="flex-1">
            {s.title} as a sample: a stitch {s.stitch_mm.toFixed(1)} mm wide, a round {s.round_mm.toFixed(1)}{" "}
            mm high ({s.told}).
          </span>
          <Button
            disabled={sample.isPending}
            onClick={() =>
              sample.mutate(s.making, {
                onSuccess: (kept) =>
                  say(`A sample of ${kept.yarn} is in the yarn basket: choose it at Gauge.`),
              })
            }
          >
            Keep as a sample<span className="sr-only"> of {s.title}</span>
          </Button>
        </div>
      ))}
      <Refused error={sample.error ?? print.error} />
    </Panel>
  );
}
