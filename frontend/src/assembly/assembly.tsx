/** Assembly: steps in order, each with its part and place, and the settled figure put together so. */
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { type Design, newKey, useAct } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { pictureUrl } from "../design/use-picture";
import { WholeFigure } from "../figure/views";
import type { Picked } from "../figure/whole-scene";
import { paletteOf } from "../rounds/views";
import { Button, Check, Empty, IconButton, Panel, SelectField } from "../ui/controls";
import { useSay } from "../ui/overlays";
import { cm, inches } from "../ui/units";
import { Eyes } from "./eyes";
import { Face } from "./face";
import { fromFront, gapOf } from "./places";
import { type Step, StepFields } from "./step-fields";
import { type Scene, useScene } from "./use-scene";

type Page = Design["assembly"];
type Aim = { kind: "eyes" } | { kind: "step" | "mark"; key: string };

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  if (to < 0 || to >= list.length) return [...list];
  const next = [...list];
  const [item] = next.splice(from, 1);
  if (item !== undefined) next.splice(to, 0, item);
  return next;
}

const FRESH: Omit<Step, "key"> = {
  text: "",
  part: null,
  on: null,
  round: null,
  stitch: 0,
  paired: false,
  tilt: 0,
  turn: 0,
  before_closing: false,
  seat: "",
  wide: null,
  share: null,
  angle: null,
  picture: false,
  no_sew: false,
};

/** The page after a place was pointed at on the figure. */
export function placed(page: Page, aim: Aim, picked: Picked, scene: Scene): Page {
  const { part, settled, stitch } = picked;
  const round = (settled.round[stitch] ?? 0) + 1;
  const away = fromFront(scene, part, settled, stitch);
  if (aim.kind === "eyes") {
    const between = gapOf(away, settled.counts[round - 1] ?? 2);
    return { ...page, eyes: { part, round, between, share: null } };
  }
  if (aim.kind === "mark")
    return {
      ...page,
      marks: (page.marks ?? []).map((m) => (m.key === aim.key ? { ...m, part, round, stitch: away } : m)),
    };
  return {
    ...page,
    steps: (page.steps ?? []).map((s) =>
      s.key === aim.key && s.part !== part ? { ...s, on: part, round, stitch: away } : s,
    ),
  };
}

export function AssemblyStop() {
  const design = useShownDesign();
  const page = usePage(design, "assembly");
  const { value, change } = page;
  const steps = value.steps ?? [];
  const { scene, settled, settling } = useScene(design);
  const [aim, setAim] = useState<Aim | null>(null);
  const [lines, setLines] = useState(false);
  const leftHanded = useLeftHanded();
  const act = useAct(design.id);
  const say = useSay();
  const noSew = (step: string) =>
    act.mutate(
      { do: "no-sew", step },
      { onSuccess: () => say("Worked in: look at the rounds of both parts. Undo takes it back.") },
    );
  const palette = useMemo(() => paletteOf(design), [design]);
  const names = useMemo(() => Object.fromEntries(design.parts.map((p) => [p.key, p.name])), [design.parts]);
  const setStep = (i: number, part: Partial<Step>) =>
    change({ ...value, steps: steps.map((s, j) => (i === j ? { ...s, ...part } : s)) });
  const aimAt = (next: Aim) => setAim((now) => (JSON.stringify(now) === JSON.stringify(next) ? null : next));
  const places = new Map(scene?.steps.map((s) => [s.key, s]));
  const inOrder = scene?.order.every((key, i) => steps[i]?.key === key) ?? true;
  return (
    <div className="grid min-h-0 flex-1 gap-4 p-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2.4fr)]">
      <div className="min-h-0 overflow-auto pr-1">
        <div className="mb-2 flex items-center justify-between">
          <h1 className="text-2xl">Assembly</h1>
          <SaveMark state={page.state} />
        </div>
        <PageRefusal {...page} />
        <Eyes
          design={design}
          value={value}
          change={change}
          scene={scene}
          aimed={aim?.kind === "eyes"}
          onAim={() => aimAt({ kind: "eyes" })}
          onTell={() => act.mutate({ do: "tell-eyes" }, { onSuccess: () => say("The rounds say it now.") })}
        />
        <Face
          design={design}
          value={value}
          change={change}
          aimed={aim?.kind === "mark" ? aim.key : null}
          onAim={(key) => aimAt({ kind: "mark", key })}
        />
        {!steps.length && (
          <Empty title="No steps yet">
            <p>
              In the order of the work: what goes inside before a part is closed, then body to head, arms,
              legs, ears, tail, face last.
            </p>
          </Empty>
        )}
        <ol className="flex flex-col gap-2">
          {steps.map((step, i) => (
            <li key={step.key} className="rounded-lg border border-line bg-panel p-3">
              <div className="flex items-start gap-2">
                <span className="mt-1 grid size-7 shrink-0 place-items-center rounded-full border border-strong font-semibold">
                  {i + 1}
                </span>
                <StepFields
                  design={design}
                  step={step}
                  place={places.get(step.key)}
                  set={(part) => setStep(i, part)}
                  aimed={aim?.kind === "step" && aim.key === step.key}
                  onAim={() => aimAt({ kind: "step", key: step.key })}
                  onNoSew={() => noSew(step.key)}
                />
                <Moves
                  i={i}
                  many={steps.length}
                  place={places.get(step.key)}
                  move={(to) => change({ ...value, steps: moved(steps, i, to) })}
                  remove={() => change({ ...value, steps: steps.filter((s) => s !== step) })}
                />
              </div>
            </li>
          ))}
        </ol>
        <div className="mt-3 flex flex-wrap gap-2">
          <Button
            weight="main"
            onClick={() => change({ ...value, steps: [...steps, { key: newKey(), ...FRESH }] })}
          >
            Add a step
          </Button>
          {steps.length > 1 && (
            <Button
              disabled={inOrder || !scene}
              title="Inside first, then body to head, arms, legs, ears, tail, and the face last"
              onClick={() =>
                change({
                  ...value,
                  steps: [...steps].sort(
                    (a, b) => (scene?.order.indexOf(a.key) ?? 0) - (scene?.order.indexOf(b.key) ?? 0),
                  ),
                })
              }
            >
              Put in working order
            </Button>
          )}
        </div>
      </div>
      <Panel className="flex min-h-96 flex-col" title="Put together">
        <div className="min-h-0 flex-1">
          {scene && (
            <WholeFigure
              scene={scene}
              label={`${design.name}, put together`}
              picture={pictureUrl(design.id, design.revision)}
              settled={settled}
              palette={palette}
              names={names}
              lines={lines}
              mirrored={leftHanded}
              aim={
                aim &&
                `${aimWords(aim, steps, value)}: click the place on the figure, or walk there by keys and press Enter.`
              }
              active={activeOf(aim, steps, value)}
              onPick={(picked) => {
                if (!aim) return;
                change(placed(value, aim, picked, scene));
                setAim(null);
              }}
            />
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3 border-t border-line pt-1">
          <Check label="centre line" checked={lines} onChecked={setLines} />
          <SelectField
            label="Finished size"
            value={value.posture ?? "standing"}
            onValue={(posture) => change({ ...value, posture: posture as Page["posture"] })}
            options={[
              ["standing", "standing"],
              ["sitting", "sitting"],
            ]}
          />
          {settling && (
            <span role="status" className="text-sm">
              Settling the parts …
            </span>
          )}
        </div>
        {scene && scene.height_mm > 0 && (
          <p className="pt-1">
            ≈ {cm(scene.height_mm)} ({inches(scene.height_mm)}) tall, {cm(scene.width_mm)} wide,{" "}
            {cm(scene.depth_mm)} deep{value.posture === "sitting" ? ", sitting" : ""}:{" "}
            {scene.whole ? "settled from the stitches." : "an estimate from the rounds and the gauge."}
          </p>
        )}
        {scene && value.posture === "sitting" && scene.swung === 0 && (
          <p className="text-sm text-soft">
            No leg bends here, so this is how it stands: legs that are worked in, or sewn as open rings, keep
            their way. A leg pinched flat swings forward.
          </p>
        )}
        {scene?.balance && scene.whole && (
          <p
            className={`mt-1 border-l-4 px-2 py-1 text-sm ${scene.balance.verdict === "steady" ? "border-moss bg-moss-ground" : "border-weld bg-weld-ground"}`}
          >
            {scene.balance.words}
          </p>
        )}
      </Panel>
    </div>
  );
}

function aimWords(aim: Aim, steps: readonly Step[], page: Page): string {
  if (aim.kind === "eyes") return "An eye";
  if (aim.kind === "mark") return page.marks?.find((m) => m.key === aim.key)?.name || "The point";
  const at = steps.findIndex((s) => s.key === aim.key);
  return `Step ${at + 1}`;
}

function activeOf(aim: Aim | null, steps: readonly Step[], page: Page): string | null {
  if (aim?.kind === "eyes") return page.eyes?.part ?? null;
  if (aim?.kind === "mark") return page.marks?.find((m) => m.key === aim.key)?.part ?? null;
  if (aim?.kind === "step") return steps.find((s) => s.key === aim.key)?.on ?? null;
  return page.eyes?.part ?? null;
}

function Moves({
  i,
  many,
  place,
  move,
  remove,
}: {
  i: number;
  many: number;
  place: Scene["steps"][number] | undefined;
  move: (to: number) => void;
  remove: () => void;
}) {
  const first = place?.first ?? 0;
  const last = place?.last ?? many - 1;
  const bound = "What must come before it stands there";
  return (
    <div className="flex flex-col">
      <IconButton
        label={`Step ${i + 1} earlier`}
        title={i > 0 && i <= first ? bound : undefined}
        disabled={i === 0 || i <= first}
        onClick={() => move(i - 1)}
      >
        <ArrowUp size={16} />
      </IconButton>
      <IconButton
        label={`Step ${i + 1} later`}
        disabled={i === many - 1 || i >= last}
        onClick={() => move(i + 1)}
      >
        <ArrowDown size={16} />
      </IconButton>
      <IconButton label={`Remove step ${i + 1}`} onClick={remove}>
        <X size={16} />
      </IconButton>
    </div>
  );
}
