/** The settled figure put together: its pieces in their places, its size and whether it stands. */
import { type ComponentProps, useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import type { Design } from "../design/design";
import { paletteOf } from "../design/palette";
import { pictureUrl } from "../design/use-picture";
import type { Settled } from "../figure/settled";
import { WholeFigure } from "../figure/views";
import type { Picked } from "../figure/whole-scene";
import { Check, Panel, SelectField } from "../ui/controls";
import { cm, inches } from "../ui/units";
import { type Aim, activeOf, aimWords, type Page } from "./aim";
import { TakePicture } from "./take-picture";
import { PLACE_DRAG } from "./tray";
import type { Scene } from "./use-scene";

export function PutTogether({
  design,
  page,
  scene,
  settled,
  settling,
  aim,
  onPick,
  onDropped,
  onPosture,
  byHand,
}: {
  design: Design;
  page: Page;
  scene: Scene | undefined;
  settled: ReadonlyMap<string, Settled>;
  settling: boolean;
  aim: Aim | null;
  onPick: (picked: Picked) => void;
  onDropped: (what: string, picked: Picked | null) => void;
  onPosture: (posture: Page["posture"]) => void;
  byHand: ComponentProps<typeof WholeFigure>["byHand"];
}) {
  const [lines, setLines] = useState(false);
  const [off, setOff] = useState<readonly string[]>([]);
  const without = useMemo(() => withAllOnThem(off, page), [off, page]);
  const leftHanded = useLeftHanded();
  const palette = useMemo(() => paletteOf(design), [design]);
  const names = useMemo(() => Object.fromEntries(design.parts.map((p) => [p.key, p.name])), [design.parts]);
  return (
    <Panel className="flex min-h-96 flex-col" title="Put together">
      <div className="h-[min(24rem,70svh)] shrink-0 lg:h-auto lg:min-h-0 lg:flex-1">
        {scene && (
          <WholeFigure
            scene={scene}
            label={`${design.name}, put together`}
            picture={pictureUrl(design.id, design.revision)}
            settled={settled}
            palette={palette}
            names={names}
            lines={lines}
            without={without}
            mirrored={leftHanded}
            aim={
              aim &&
              `${aimWords(aim, page, design)}: click the place on the figure, or walk there by keys and press Enter.`
            }
            active={activeOf(aim, page)}
            onPick={onPick}
            takes={PLACE_DRAG}
            onDropped={onDropped}
            byHand={byHand}
          />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-3 border-t border-line pt-1">
        <Check label="centre line" checked={lines} onChecked={setLines} />
        <SelectField
          label="Posture"
          value={page.posture ?? "standing"}
          onValue={(posture) => onPosture(posture as Page["posture"])}
          options={[
            ["standing", "standing"],
            ["sitting", "sitting"],
            ["lying", "lying on its back"],
            ["hanging", "hung up by its top"],
          ]}
        />
        <TakePicture design={design} />
        <PutOff design={design} page={page} off={off} onOff={setOff} />
        {settling && (
          <span role="status" className="text-sm">
            Settling the parts …
          </span>
        )}
      </div>
      {scene && <FinishedSize scene={scene} posture={page.posture ?? "standing"} />}
    </Panel>
  );
}

/** Parts that are put off, with all that sits on them. */
export function withAllOnThem(off: readonly string[], page: Page): ReadonlySet<string> {
  const gone = new Set(off);
  const more = () => (page.steps ?? []).filter((s) => s.part && s.on && gone.has(s.on) && !gone.has(s.part));
  for (let found = more(); found.length; found = more()) for (const s of found) gone.add(s.part ?? "");
  return gone;
}

/** What comes off: put on and off in the picture alone. */
function PutOff({
  design,
  page,
  off,
  onOff,
}: {
  design: Design;
  page: Page;
  off: readonly string[];
  onOff: (off: readonly string[]) => void;
}) {
  const loose = (page.steps ?? []).filter(
    (s) => s.part && s.on && !s.no_sew && (s.fixing ?? "sewn") !== "sewn",
  );
  const keys = [...new Set(loose.map((s) => s.part ?? ""))];
  if (!keys.length) return null;
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3">
      <legend className="sr-only">Wears</legend>
      {keys.map((key) => (
        <Check
          key={key}
          label={`wears ${design.parts.find((p) => p.key === key)?.name ?? "a part that is gone"}`}
          checked={!off.includes(key)}
          onChecked={(on) => onOff(on ? off.filter((k) => k !== key) : [...off, key])}
        />
      ))}
    </fieldset>
  );
}

type Posture = NonNullable<Page["posture"]>;

const LOOSE =
  "Some parts lie loose beside the others, so the figure has no size and no balance yet: give each a step that says where it goes; one that has a step says there why it cannot be shown in its place.";

/** Its size and its balance, said of a figure that holds together and of no other. */
export function FinishedSize({ scene, posture }: { scene: Scene; posture: Posture }) {
  const sitting = posture === "sitting";
  if (!scene.joined) return scene.placed.length > 1 ? <p className="pt-1 text-sm">{LOOSE}</p> : null;
  const steady = scene.balance?.verdict === "steady";
  return (
    <>
      {scene.height_mm > 0 && (
        <p className="pt-1">
          ≈ {cm(scene.height_mm)} ({inches(scene.height_mm)}) {posture === "lying" ? "high" : "tall"},{" "}
          {cm(scene.width_mm)} wide, {cm(scene.depth_mm)} deep{posture === "standing" ? "" : `, ${posture}`}:{" "}
          {scene.whole ? "settled from the stitches." : "an estimate from the rounds and the gauge."}
        </p>
      )}
      {sitting && scene.swung === 0 && (
        <p className="text-sm text-soft">
          No leg bends here, so this is how it stands: legs that are worked in, or sewn as open rings, keep
          their way. A leg pinched flat swings forward.
        </p>
      )}
      {scene.balance && scene.whole && (
        <p
          className={`mt-1 border-l-4 px-2 py-1 text-sm ${steady ? "border-moss bg-moss-ground" : "border-weld bg-weld-ground"}`}
        >
          {scene.balance.words}
        </p>
      )}
    </>
  );
}
