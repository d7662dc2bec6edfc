/** The steps in order: short lines that open to their fields, moved up and down as far as the order of work allows. */
import { ArrowDown, ArrowUp, ChevronRight, X } from "lucide-react";
import { useEffect, useMemo, useRef } from "react";
import { type Design, newKey } from "../design/design";
import { Button, Empty, IconButton } from "../ui/controls";
import { useCommands } from "../ui/keys";
import { moved } from "../ui/moved";
import { type Aim, FRESH } from "./aim";
import { type Step, StepFields } from "./step-fields";
import { PLACE_DRAG } from "./tray";
import type { Scene } from "./use-scene";

export function StepList({
  design,
  steps,
  scene,
  aim,
  onSteps,
  onAim,
  onNoSew,
  onSew,
  open,
  onOpen,
}: {
  design: Design;
  steps: readonly Step[];
  scene: Scene | undefined;
  aim: Aim | null;
  onSteps: (steps: Step[]) => void;
  onAim: (aim: Aim) => void;
  onNoSew: (step: string) => void;
  onSew: (step: string) => void;
  /** The one that was opened, empty for none; until one is, a step that has just come, or the only one. */
  open: string | null;
  onOpen: (step: string) => void;
}) {
  const known = useRef(new Set(steps.map((s) => s.key)));
  const fresh = steps.find((s) => !known.current.has(s.key))?.key;
  useEffect(() => {
    if (fresh === undefined) return;
    known.current = new Set(steps.map((s) => s.key));
    onOpen(fresh);
  }, [fresh, steps, onOpen]);
  const shown = openStep(open, steps);
  const add = () => {
    const key = newKey();
    onOpen(key);
    onSteps([...steps, { ...FRESH, key }]);
  };
  const latest = useRef(add);
  latest.current = add;
  const commands = useMemo(() => [{ name: "Add a step of the assembly", run: () => latest.current() }], []);
  useCommands(commands);
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
      <ol className="flex flex-col gap-2" aria-label="Steps">
        {steps.map((step, i) => (
          <li key={step.key} id={`step-${step.key}`} className="rounded-lg border border-line bg-panel p-2">
            <div className="flex items-start gap-2">
              <StepLine
                design={design}
                step={step}
                number={i + 1}
                place={places.get(step.key)}
                open={shown === step.key}
                onOpen={() => onOpen(shown === step.key ? "" : step.key)}
              />
              <Moves
                i={i}
                many={steps.length}
                place={places.get(step.key)}
                move={(to) => onSteps(moved(steps, i, to))}
                remove={() => onSteps(steps.filter((s) => s !== step))}
              />
            </div>
            {shown === step.key && (
              <div className="mt-2 border-t border-line pt-2">
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
              </div>
            )}
          </li>
        ))}
      </ol>
      <div className="my-3 flex flex-wrap gap-2">
        <Button weight="main" onClick={add}>
          Add a step
        </Button>
        {steps.length > 1 && <WorkingOrder steps={steps} scene={scene} onSteps={onSteps} />}
      </div>
    </>
  );
}

/** The step whose fields are shown. */
export function openStep(open: string | null, steps: readonly Step[]): string | undefined {
  return open ?? (steps.length === 1 ? steps[0]?.key : undefined);
}

/** A step in a line: its number, which is dragged to place it anew, and what it says. */
function StepLine({
  design,
  step,
  number,
  place,
  open,
  onOpen,
}: {
  design: Design;
  step: Step;
  number: number;
  place: Scene["steps"][number] | undefined;
  open: boolean;
  onOpen: () => void;
}) {
  const part = design.parts.find((p) => p.key === step.part)?.name;
  const said = step.text || place?.said || (part ? `${part}: say where it goes` : "Say what to do");
  const warned = Boolean(place?.fault || place?.moved || place?.differs || place?.notes.length);
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: what can be dragged can also be pointed at by keys */}
      <span
        draggable={Boolean(step.part)}
        onDragStart={(e) => {
          e.dataTransfer.setData(PLACE_DRAG, `step:${step.key}`);
          e.dataTransfer.effectAllowed = "move";
        }}
        title={step.part ? "Drag onto the figure to place it anew" : undefined}
        className={`mt-1 grid size-7 shrink-0 place-items-center rounded-full border border-strong font-semibold ${step.part ? "cursor-grab" : ""}`}
      >
        {number}
      </span>
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className="flex min-w-0 flex-1 items-start gap-2 rounded-md px-1 py-1.5 text-left hover:bg-sunk"
      >
        <ChevronRight size={18} aria-hidden className={`mt-0.5 shrink-0 ${open ? "rotate-90" : ""}`} />
        <span className="min-w-0 flex-1">
          {said}
          {!step.text && place?.said && <span className="text-sm text-soft"> (in Spirrel's words)</span>}
          {warned && !open && (
            <span className="ml-1.5 inline-block rounded bg-weld-ground px-1.5 text-sm">to look at</span>
          )}
        </span>
      </button>
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
    <div className="flex shrink-0">
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
