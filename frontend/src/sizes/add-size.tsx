/** Asking for another size in any of her ways. */
import { useState } from "react";
import type { Design } from "../design/design";
import { Check, NumberField, SelectField, TextField } from "../ui/controls";
import { FormEnd } from "../ui/form";
import { Dialog } from "../ui/overlays";
import { cm } from "../ui/units";
import { useBasket } from "../yarns/basket";
import {
  type Asked,
  askedAtFirst,
  type Entry,
  entriesOf,
  heightsOf,
  MOST_SIZES,
  type Thing,
  WAYS,
  type Way,
  type WeightClass,
} from "./asking";
import { Fitted, useFittedName } from "./fitted";
import { YarnChoice } from "./yarn-choice";

const ABOUT: Record<Way, string> = {
  classes: "One column for each, on the hook that makes dense fabric of it; sizes are estimates.",
  yarn: "The figure grows or shrinks with the stitch.",
  height: "Rounds are made anew so that the shape stays; all parts keep their proportions.",
  heights: "One column for each; all parts keep their proportions.",
  "part-height": "The whole figure follows that part.",
  count: "The widest round of the part comes as near to it as whole rounds allow.",
  fit: "The opening of the part (its widest round, where it has none) goes around that. A part that fits another follows it when it changes.",
  grams: "As large as the yarn allows; it needs to know what a skein of it holds.",
};

/** Several heights at once, and whether counts come first. */
function Heights({ way, asked, set }: { way: Way; asked: Asked; set: (change: Partial<Asked>) => void }) {
  return (
    <>
      {way === "heights" && (
        <TextField
          label="Heights in cm"
          className="col-span-2"
          value={asked.heights}
          maxLength={200}
          placeholder="6, 9, 12, 15"
          error={
            asked.heights.trim() && !heightsOf(asked.heights).length
              ? "Type heights from 1 to 300 cm, such as 6, 9, 12."
              : null
          }
          onChange={(e) => set({ heights: e.target.value })}
        />
      )}
      {(way === "height" || way === "heights") && (
        <div className="col-span-2">
          <Check
            checked={asked.easy}
            onChecked={(easy) => set({ easy })}
            label={
              way === "heights"
                ? "Easy counts first, stepping evenly from size to size"
                : "Easy counts first, the height as near as they allow"
            }
          />
        </div>
      )}
    </>
  );
}

function Measures({
  way,
  asked,
  set,
  design,
  now,
  things,
}: {
  way: Way;
  asked: Asked;
  set: (change: Partial<Asked>) => void;
  design: Design;
  now: number;
  things: readonly Thing[];
}) {
  const ofPart = way === "part-height" || way === "count" || way === "fit";
  return (
    <>
      {ofPart && (
        <SelectField
          label="Part"
          value={asked.part}
          onValue={(part) => set({ part, fits: asked.fits === part ? "" : asked.fits })}
          options={design.parts.filter((p) => p.counts.length).map((p) => [p.key, p.name] as const)}
        />
      )}
      {(way === "height" || way === "part-height") && (
        <NumberField
          label={way === "height" ? "Height of the whole figure" : "Height of the part"}
          unit="mm"
          least={10}
          most={3000}
          value={asked.height}
          onValue={(height) => set({ height })}
          className={way === "height" ? "col-span-2" : ""}
          hint={way === "height" ? `${design.name} is about ${cm(now)} now.` : undefined}
        />
      )}
      <Heights way={way} asked={asked} set={set} />
      {way === "count" && (
        <NumberField
          label="Stitches around"
          least={3}
          most={2000}
          value={asked.count}
          onValue={(count) => set({ count })}
        />
      )}
      {way === "fit" && (
        <>
          <Fitted asked={asked} set={set} design={design} things={things} />
          <NumberField
            label="Wider by"
            unit="mm"
            least={-500}
            most={500}
            value={asked.ease}
            onValue={(ease) => set({ ease: ease ?? 0 })}
            hint="Less than 0 sits tight"
          />
          <Check
            checked={asked.alone}
            onChecked={(alone) => set({ alone })}
            label="Only this part; the others stay"
          />
        </>
      )}
      {way === "grams" && (
        <NumberField
          label="Yarn at hand"
          unit="g"
          least={1}
          most={100000}
          value={asked.grams}
          onValue={(grams) => set({ grams })}
          className="col-span-2"
          hint="Of all colours together"
        />
      )}
      <div className="col-span-2">
        <Check
          checked={asked.apart}
          onChecked={(apart) => set({ apart })}
          label="Bobbles and colours that repeat keep their distance, not their number"
        />
      </div>
    </>
  );
}

function WeightChoice({
  weights,
  asked,
  set,
}: {
  weights: readonly WeightClass[];
  asked: Asked;
  set: (change: Partial<Asked>) => void;
}) {
  return (
    <fieldset className="col-span-2 grid grid-cols-2 gap-1">
      <legend className="mb-1 text-sm text-soft">Yarn weights</legend>
      {weights.map((w) => (
        <Check
          key={w.number}
          checked={asked.classes.includes(w.number)}
          onChecked={(on) =>
            set({ classes: on ? [...asked.classes, w.number] : asked.classes.filter((n) => n !== w.number) })
          }
          label={`${w.name} (${w.number}), ${w.stuffed_hook_mm} mm`}
        />
      ))}
    </fieldset>
  );
}

export function AddSize({
  first,
  design,
  now,
  room,
  things,
  onClose,
  onAdd,
}: {
  /** The way that is asked in at first. */
  first: Way;
  design: Design;
  /** Height of the whole figure as it is, in mm. */
  now: number;
  /** How many more sizes there is room for. */
  room: number;
  /** Things that a part may be made to fit. */
  things: readonly Thing[];
  onClose: () => void;
  onAdd: (entries: Entry[]) => void;
}) {
  const basket = useBasket().data;
  const [way, setWay] = useState(first);
  const [yarnId, setYarnId] = useState("");
  const [asked, setAsked] = useState<Asked>(() => askedAtFirst(design, now));
  const set = (change: Partial<Asked>) => setAsked({ ...asked, ...change });
  const yarn = basket?.yarns.find((y) => String(y.id) === (yarnId || String(basket.yarns[0]?.id)));
  const partName = design.parts.find((p) => p.key === asked.part)?.name;
  const second = basket?.yarns.find((y) => String(y.id) === asked.second);
  const fitsName = useFittedName(asked, design);
  const weights = (basket?.classes ?? []).filter((w) => w.number > 0);
  const known = { yarn, second, weights, partName, fitsName, things, basket: basket?.yarns };
  const entries = entriesOf(way, { ...asked, name: asked.name.trim() }, known);
  const tooMany = entries.length > room;
  return (
    <Dialog open onOpen={onClose} title="Another size" about={ABOUT[way]}>
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (entries.length && !tooMany) onAdd(entries);
        }}
      >
        <SelectField
          label="Asked for by"
          className="col-span-2"
          value={way}
          onValue={(w) => setWay(w as Way)}
          options={WAYS}
        />
        {way === "classes" && <WeightChoice weights={weights} asked={asked} set={set} />}
        {way === "yarn" && (
          <YarnChoice
            basket={basket}
            roles={(design.gauge.yarns ?? []).slice(1).map((y) => y.name)}
            yarnId={yarnId}
            onYarn={setYarnId}
            asked={asked}
            set={set}
          />
        )}
        {way !== "classes" && way !== "yarn" && (
          <Measures way={way} asked={asked} set={set} design={design} now={now} things={things} />
        )}
        {way !== "heights" && way !== "classes" && (
          <TextField
            label="Call it"
            maxLength={40}
            className="col-span-2"
            placeholder={entries[0]?.name ?? "keyring"}
            value={asked.name}
            onChange={(e) => set({ name: e.target.value })}
          />
        )}
        {tooMany && (
          <p role="alert" className="col-span-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
            A design keeps {MOST_SIZES} sizes; there is room for {room} more.
          </p>
        )}
        <FormEnd onCancel={onClose} pending={!entries.length || tooMany}>
          {entries.length > 1 ? `Add ${entries.length} sizes` : "Add the size"}
        </FormEnd>
      </form>
    </Dialog>
  );
}
