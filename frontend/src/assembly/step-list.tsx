/** The steps in order: each with its fields, moved up and down as far as the order of work allows. */
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { type Design, newKey } from "../design/design";
import { Button, Empty, IconButton } from "../ui/controls";
import { moved } from "../ui/moved";
import type { Aim } from "./aim";
import { type Step, StepFields } from "./step-fields";
import type { Scene } from "./use-scene";

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
  fixing: "sewn",
};

export function StepList({
  design,
  steps,
  scene,
  aim,
  onSteps,
  onAim,
  onNoSew,
  onSew,
}: {
  design: Design;
  steps: readonly Step[];
  scene: Scene | undefined;
  aim: Aim | null;
  onSteps: (steps: Step[]) => void;
  onAim: (aim: Aim) => void;
  onNoSew: (step: string) => void;
  onSew: (step: string) => void;
}) {
  const places = new Map(scene?.steps.map((s) => [s.key, s]));
  const set = (key: string, part: Partial<Step>) =>
    onSteps(steps.map((s) => (s.key === key ? { ...s, ...part } : s)));
  return (
    <>
      {!steps.length && (
        <Empty title="No steps yet">
          <p>
            In the order of the work: what goes inside before a part is closed, then body to head, arms, legs,
            ears, tail, face last.
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
                set={(part) => set(step.key, part)}
                aimed={aim?.kind === "step" && aim.key === step.key}
                onAim={() => onAim({ kind: "step", key: step.key })}
                onNoSew={() => onNoSew(step.key)}
                onSew={() => onSew(step.key)}
              />
              <Moves
                i={i}
                many={steps.length}
                place={places.get(step.key)}
                move={(to) => onSteps(moved(steps, i, to))}
                remove={() => onSteps(steps.filter((s) => s !== step))}
              />
            </div>
          </li>
        ))}
      </ol>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button weight="main" onClick={() => onSteps([...steps, { key: newKey(), ...FRESH }])}>
          Add a step
        </Button>
        {steps.length > 1 && <WorkingOrder steps={steps} scene={scene} onSteps={onSteps} />}
      </div>
    </>
  );
}

function WorkingOrder({
  steps,
  scene,
  onSteps,
}: {
  steps: readonly Step[];
  scene: Scene | undefined;
  onSteps: (steps: Step[]) => void;
}) {
  const order = scene?.order ?? [];
  const inOrder = order.every((key, i) => steps[i]?.key === key);
  return (
    <Button
      disabled={inOrder}
      title="Inside first, then body to head, arms, legs, ears, tail, and the face last"
      onClick={() => onSteps([...steps].sort((a, b) => order.indexOf(a.key) - order.indexOf(b.key)))}
    >
      Put in working order
    </Button>
  );
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
