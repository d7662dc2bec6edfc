/** Eyes: which kind, where, and what stands in their way. */
import { Crosshair, PenLine } from "lucide-react";
import { useLeftHanded } from "../accounts/session";
import type { Design } from "../design/design";
import { Button, NumberField, Panel, SelectField } from "../ui/controls";
import type { Scene } from "./use-scene";

type Page = Design["assembly"];

export function Eyes({
  design,
  value,
  change,
  scene,
  aimed,
  onAim,
  onTell,
}: {
  design: Design;
  value: Page;
  change: (page: Page) => void;
  scene: Scene | undefined;
  aimed: boolean;
  onAim: () => void;
  /** Have the direction written into the part's rounds. */
  onTell: () => void;
}) {
  const leftHanded = useLeftHanded();
  const small = design.brief.audience === "under-three";
  const kind = value.eye_kind ?? "none";
  const eyes = value.eyes ?? null;
  const shown = scene?.eyes;
  const names = design.parts.map((p) => [p.key, p.name] as const);
  const host = design.parts.find((p) => p.key === eyes?.part);
  const propose = () => {
    const guess = scene?.guess;
    if (!guess) return;
    change({
      ...value,
      eye_kind: kind === "none" ? (small ? "embroidered" : "safety") : kind,
      eye_mm: value.eye_mm ?? guess.eye_mm,
      eyes: { part: guess.part, round: guess.round, between: guess.between, share: null },
    });
  };
  return (
    <Panel className="mb-3" title="Eyes">
      <div className="grid grid-cols-2 gap-3 xl:grid-cols-[1fr_7rem_1fr]">
        <SelectField
          label="Kind"
          value={kind}
          onValue={(eye_kind) =>
            change({ ...value, eye_kind, eye_mm: eye_kind === "none" ? value.eye_mm : (value.eye_mm ?? 8) })
          }
          options={
            small
              ? [
                  ["embroidered", "embroidered"],
                  ["none", "none"],
                  ["safety", "safety eyes"],
                ]
              : [
                  ["none", "none"],
                  ["safety", "safety eyes"],
                  ["embroidered", "embroidered"],
                ]
          }
        />
        {kind !== "none" && (
          <NumberField
            label="Across"
            unit="mm"
            least={3}
            most={60}
            value={value.eye_mm ?? 8}
            onValue={(eye_mm) => change({ ...value, eye_mm })}
          />
        )}
        {kind !== "none" && (
          <SelectField
            label="on the part"
            value={eyes?.part ?? ""}
            onValue={(part) =>
              change({
                ...value,
                eyes: part
                  ? { part, round: eyes?.round ?? 1, between: eyes?.between ?? 6, share: null }
                  : null,
              })
            }
            options={[["", "nowhere yet"], ...names]}
          />
        )}
        {kind !== "none" && eyes && (
          <>
            <NumberField
              label="above round"
              least={1}
              most={host?.counts.length || 2000}
              value={shown?.moved ? shown.round : eyes.round}
              onValue={(round) => round && change({ ...value, eyes: { ...eyes, round, share: null } })}
            />
            <NumberField
              label="visible between"
              unit="sts"
              least={1}
              most={1000}
              value={eyes.between}
              onValue={(between) => between && change({ ...value, eyes: { ...eyes, between } })}
            />
          </>
        )}
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={propose} disabled={!scene?.guess}>
          Propose a place
        </Button>
        <Button aria-pressed={aimed} onClick={onAim} disabled={kind === "none"}>
          <Crosshair size={16} aria-hidden /> Point at the place
        </Button>
        {shown?.words && !shown.told && kind !== "none" && (
          <Button onClick={onTell}>
            <PenLine size={16} aria-hidden /> Write it into the rounds
          </Button>
        )}
      </div>
      {shown && kind !== "none" && (
        <p className="mt-2" data-testid="eyes-said">
          {shown.words && `${shown.words[0]?.toUpperCase()}${shown.words.slice(1)}.`}
          {shown.moved && (
            <span className="ml-1 rounded bg-weld-ground px-1">
              The rounds changed: they were above R{eyes?.round}.
            </span>
          )}
          {Math.abs(shown.off_centre) > 0.3 && (
            <span className="text-soft">
              {" "}
              Their middle lies {Math.abs(shown.off_centre).toFixed(1)} stitches{" "}
              {shown.off_centre > 0 !== leftHanded ? "left" : "right"} of the front.
            </span>
          )}
        </p>
      )}
      {kind !== "none" && (shown?.warnings.length ?? 0) > 0 && (
        <ul className="mt-2 flex flex-col gap-1" aria-label="What to know about the eyes">
          {shown?.warnings.map((w) => (
            <li key={w.code} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
              {w.message}
            </li>
          ))}
        </ul>
      )}
      {kind === "safety" && (
        <p
          role="note"
          className={`mt-2 rounded-md border-l-4 px-2 py-1 text-sm ${small ? "border-madder bg-madder-ground" : "border-weld bg-weld-ground"}`}
        >
          Safety eyes are small parts: not for children under three. Washers go on from inside, so eyes come
          before the part is closed.
          {small && " The brief says under three: embroider them."}
        </p>
      )}
    </Panel>
  );
}
