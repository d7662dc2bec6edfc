/** Ways to work one shape, side by side: from which end, on how many stitches, true or easy, and what each costs. */

import { useState } from "react";
import { type Schemas, sentence } from "../api/client";
import { Button } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import { Dialog } from "../ui/overlays";
import { rounded } from "../ui/units";
import { Heads } from "./heads";
import { type Recipe, reshaped } from "./recipe";
import { useWorked } from "./work";

type Way = Schemas["Way"];

const PLACES = { foot: "its foot", top: "far end", pieces: "two pieces" };
const SAID = { foot: "from its foot", top: "from the far end", pieces: "in two pieces, cut at its neck" };
const HEADS = [
  "Begun at",
  "on",
  "how",
  "off (mm)",
  "rounds",
  "different",
  "sts",
  "yarn (m)",
  "time (h)",
  "choose",
];
const SIMPLICITY = { true: "true", balanced: "balanced", easy: "easy" };

export function Compare({
  question,
  recipe,
  onRecipe,
  onCut,
}: {
  question: Schemas["ShapeIn"];
  recipe: Recipe;
  onRecipe: (recipe: Recipe) => void;
  /** A cut at this height, in mm, was chosen. */
  onCut: (height: number) => void;
}) {
  const [open, setOpen] = useState(false);
  const compare = useWorked("compare");
  const show = (on: boolean) => {
    setOpen(on);
    if (on) compare.start(question);
    else compare.stop();
  };
  const take = (way: Way) => {
    if (way.cut_mm !== null) onCut(way.cut_mm);
    const top = way.end === "top" ? compare.got?.top : null;
    onRecipe({ ...(top ? reshaped(recipe, top) : recipe), start: way.start, simplicity: way.simplicity });
    show(false);
  };
  return (
    <>
      <Button weight="quiet" className="self-start px-2 py-0.5 text-sm" onClick={() => show(true)}>
        Compare ways to work it
      </Button>
      <Dialog open={open} onOpen={show} title="Ways to work this shape" wide>
        {compare.way && (
          <JobBar name="Comparing" way={compare.way}>
            Drafting and settling each …
          </JobBar>
        )}
        {compare.error && <p role="alert">{sentence(compare.error)}</p>}
        {!compare.way && compare.got && (
          <div className="max-h-[60dvh] overflow-auto">
            <table className="w-full whitespace-nowrap text-sm tabular-nums">
              <Heads names={HEADS} />
              <tbody>
                {compare.got.ways.map((way) => (
                  <tr key={`${way.end}${way.start}${way.name}`} className="border-t border-line">
                    <td className="px-1.5 py-1">{PLACES[way.end]}</td>
                    <td className="px-1.5">{way.start}</td>
                    <td className="px-1.5">{SIMPLICITY[way.name]}</td>
                    <td className="px-1.5">{rounded(way.error.rms_mm, 1)}</td>
                    <td className="px-1.5">{way.rounds}</td>
                    <td className="px-1.5">{way.different}</td>
                    <td className="px-1.5">{way.stitches}</td>
                    <td className="px-1.5">≈ {rounded(way.metres.value, 0)}</td>
                    <td className="px-1.5">≈ {rounded(way.hours.value, 1)}</td>
                    <td>
                      <Button
                        weight="quiet"
                        className="px-2 py-0.5 text-sm"
                        aria-label={`Take: ${SAID[way.end]}, on ${way.start}, ${SIMPLICITY[way.name]}`}
                        onClick={() => take(way)}
                      >
                        Take
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </Dialog>
    </>
  );
}
