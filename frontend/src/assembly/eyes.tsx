/** Eyes: which kind, where, and what stands in their way. */
import { Crosshair, PenLine } from "lucide-react";
import { useLeftHanded } from "../accounts/session";
import type { Design } from "../design/design";
import { Button, FoldedPanel, NumberField, SelectField } from "../ui/controls";
import type { Scene } from "./use-scene";

type Page = Design["assembly"];

type EyesProps = { design: Design; value: Page; change: (page: Page) => void; scene: Scene | undefined };

export function Eyes({
  aimed,
  onAim,
  onTell,
  ...of
}: EyesProps & {
  aimed: boolean;
  onAim: () => void;
  /** Have the direction written into the part's rounds. */
  onTell: () => void;
}) {
  const { design, value, scene } = of;
  const small = design.brief.audience === "under-three";
  const kind = value.eye_kind ?? "none";
  const shown = scene?.eyes;
  return (
    <FoldedPanel className="mb-3" title="Eyes" said={eyesSaid(value, shown)} folded={Boolean(value.eyes)}>
      <div className="grid grid-cols-2 gap-3 xl:grid-cols-[1fr_7rem_1fr]">
        <EyeKind {...of} small={small} />
        {kind !== "none" && <EyePlace {...of} />}
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        <Propose {...of} small={small} />
        <Button aria-pressed={aimed} onClick={onAim} disabled={kind === "none"}>
          <Crosshair size={16} aria-hidden /> Point at the place
        </Button>
        {shown?.words && !shown.in_text && kind !== "none" && (
          <Button onClick={onTell}>
            <PenLine size={16} aria-hidden /> Write it into the rounds
          </Button>
        )}
      </div>
      {shown && kind !== "none" && <Said shown={shown} setAt={value.eyes?.round} />}
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
    </FoldedPanel>
  );
}

/** The eyes in a line. */
function eyesSaid(value: Page, shown: Scene["eyes"] | undefined): string {
  const kind = value.eye_kind ?? "none";
  if (kind === "none") return "none";
  const what = kind === "safety" ? `${value.eye_mm ?? 8} mm safety eyes` : "embroidered";
  const look = shown?.warnings.length ? ", to look at" : "";
  return shown?.words ? `${what}, ${shown.words}${look}` : `${what}, nowhere yet`;
}

const KINDS = { none: "none", safety: "safety eyes", embroidered: "embroidered" } as const;
const FOR_ALL = ["none", "safety", "embroidered"] as const;
const FOR_SMALL = ["embroidered", "none", "safety"] as const;

function EyeKind({ value, change, small }: EyesProps & { small: boolean }) {
  return (
    <SelectField
      label="Kind"
      value={value.eye_kind ?? "none"}
      onValue={(eye_kind) =>
        change({ ...value, eye_kind, eye_mm: eye_kind === "none" ? value.eye_mm : (value.eye_mm ?? 8) })
      }
      options={(small ? FOR_SMALL : FOR_ALL).map((k) => [k, KINDS[k]] as const)}
    />
  );
}

function EyePlace({ design, value, change, scene }: EyesProps) {
  const eyes = value.eyes ?? null;
  const shown = scene?.eyes;
  const host = design.parts.find((p) => p.key === eyes?.part);
  const on = (part: string) =>
    change({
      ...value,
      eyes: part ? { part, round: eyes?.round ?? 1, between: eyes?.between ?? 6, share: null } : null,
    });
  return (
    <>
      <NumberField
        label="Across"
        unit="mm"
        least={3}
        most={60}
        value={value.eye_mm ?? 8}
        onValue={(eye_mm) => change({ ...value, eye_mm })}
      />
      <SelectField
        label="on the part"
        value={eyes?.part ?? ""}
        onValue={on}
        options={[["", "nowhere yet"], ...design.parts.map((p) => [p.key, p.name] as const)]}
      />
      {eyes && (
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
    </>
  );
}

function Propose({ value, change, scene, small }: EyesProps & { small: boolean }) {
  const guess = scene?.guess;
  const kind = value.eye_kind ?? "none";
  const propose = () =>
    guess &&
    change({
      ...value,
      eye_kind: kind === "none" ? (small ? "embroidered" : "safety") : kind,
      eye_mm: value.eye_mm ?? guess.eye_mm,
      eyes: { part: guess.part, round: guess.round, between: guess.between, share: null },
    });
  return (
    <Button onClick={propose} disabled={!guess}>
      Propose a place
    </Button>
  );
}

/** The place in words, and what to know about it. */
function Said({ shown, setAt }: { shown: NonNullable<Scene["eyes"]>; setAt: number | undefined }) {
  const leftHanded = useLeftHanded();
  const off = shown.off_centre;
  return (
    <>
      <p className="mt-2" data-testid="eyes-said">
        {shown.words && `${shown.words[0]?.toUpperCase()}${shown.words.slice(1)}.`}
        {shown.moved && (
          <span className="ml-1 rounded bg-weld-ground px-1">
            The rounds changed: they were above R{setAt}.
          </span>
        )}
        {Math.abs(off) > 0.3 && (
          <span className="text-soft">
            {" "}
            Their middle lies {Math.abs(off).toFixed(1)} stitches {off > 0 !== leftHanded ? "left" : "right"}{" "}
            of the front.
          </span>
        )}
      </p>
      {shown.warnings.length > 0 && (
        <ul className="mt-2 flex flex-col gap-1" aria-label="What to know about the eyes">
          {shown.warnings.map((w) => (
            <li key={w.code} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
              {w.message}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
