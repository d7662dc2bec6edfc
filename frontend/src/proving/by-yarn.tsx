/** What testers measured against what was predicted, by yarn class. */
import type { Call } from "./use-proving";

const CLASSES = ["lace", "super fine", "fine", "light", "medium", "bulky", "super bulky", "jumbo"];
const NAMES: Record<string, string> = {
  height: "height",
  width: "width",
  girth: "girths",
  yarn: "yarn used",
  hours: "time",
};

const percent = (ratio: number) => `${Math.round(100 * ratio)} %`;

export function ByYarn({ call }: { call: Call }) {
  if (call.by_weight.length === 0) return null;
  return (
    <section aria-label="Measured by yarn class" className="border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Measured, of what was predicted</h3>
      <table className="text-sm">
        <tbody>
          {call.by_weight.map((row) => (
            <tr key={`${row.weight}${row.quantity}`}>
              <td className="pr-4">
                {row.weight === null ? "yarn not said" : `${CLASSES[row.weight ?? 0]} (${row.weight})`}
              </td>
              <td className="pr-4">{NAMES[row.quantity] ?? row.quantity}</td>
              <td className="pr-4">{row.ratios.map(percent).join(", ")}</td>
              <td className="text-soft">
                {row.ratio === null
                  ? `${row.makers} of 3 makers that a middle needs`
                  : `middle ${percent(row.ratio ?? 1)} of ${row.makers} makers`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
