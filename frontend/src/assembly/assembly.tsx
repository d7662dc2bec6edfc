/** Assembly: steps in order, each with its part and place, and the figure put together so. */
import { useQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { answer, api, type Schemas } from "../api/client";
import { type Design, newKey } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { WholeFigure } from "../figure/views";
import { pictureUrl } from "../shelf/shelf";
import {
  Button,
  Check,
  Empty,
  Field,
  IconButton,
  inputClass,
  NumberField,
  Panel,
  SelectField,
} from "../ui/controls";
import { cm, inches } from "../ui/units";

type Page = Design["assembly"];
type Step = NonNullable<Page["steps"]>[number];

export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  if (to < 0 || to >= list.length) return [...list];
  const next = [...list];
  const [item] = next.splice(from, 1);
  if (item !== undefined) next.splice(to, 0, item);
  return next;
}

export function AssemblyStop() {
  const design = useShownDesign();
  const page = usePage(design, "assembly");
  const { value, change } = page;
  const steps = value.steps ?? [];
  const scene = useQuery({
    queryKey: ["figure", design.id, design.revision],
    queryFn: () =>
      answer<Schemas["SceneOut"]>(
        api.GET("/api/bench/figure/{design_id}", { params: { path: { design_id: design.id } } }),
      ),
    placeholderData: (before) => before,
  });
  const setStep = (i: number, part: Partial<Step>) =>
    change({ ...value, steps: steps.map((s, j) => (i === j ? { ...s, ...part } : s)) });
  const add = () =>
    change({
      ...value,
      steps: [
        ...steps,
        {
          key: newKey(),
          text: "",
          part: null,
          on: null,
          round: null,
          stitch: 0,
          paired: false,
          tilt: 0,
          before_closing: false,
        },
      ],
    });
  return (
    <div className="grid min-h-0 flex-1 gap-4 p-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <div className="min-h-0 overflow-auto pr-1">
        <div className="mb-2 flex items-center justify-between">
          <h1 className="text-2xl">Assembly</h1>
          <SaveMark state={page.state} />
        </div>
        <PageRefusal {...page} />
        <Eyes design={design} value={value} change={change} />
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
                <StepFields design={design} step={step} set={(part) => setStep(i, part)} />
                <div className="flex flex-col">
                  <IconButton
                    label={`Step ${i + 1} earlier`}
                    disabled={i === 0}
                    onClick={() => change({ ...value, steps: moved(steps, i, i - 1) })}
                  >
                    <ArrowUp size={16} />
                  </IconButton>
                  <IconButton
                    label={`Step ${i + 1} later`}
                    disabled={i === steps.length - 1}
                    onClick={() => change({ ...value, steps: moved(steps, i, i + 1) })}
                  >
                    <ArrowDown size={16} />
                  </IconButton>
                  <IconButton
                    label={`Remove step ${i + 1}`}
                    onClick={() => change({ ...value, steps: steps.filter((s) => s !== step) })}
                  >
                    <X size={16} />
                  </IconButton>
                </div>
              </div>
            </li>
          ))}
        </ol>
        <Button weight="main" className="mt-3" onClick={add}>
          Add a step
        </Button>
      </div>
      <Panel className="flex min-h-96 flex-col" title="Put together">
        <div className="min-h-0 flex-1">
          {scene.data && (
            <WholeFigure
              scene={scene.data}
              label={`${design.name}, put together`}
              picture={pictureUrl(design.id, design.revision)}
            />
          )}
        </div>
        {scene.data && scene.data.height_mm > 0 && (
          <p className="border-t border-line pt-2">
            ≈ {cm(scene.data.height_mm)} ({inches(scene.data.height_mm)}) tall, {cm(scene.data.width_mm)}{" "}
            wide, {cm(scene.data.depth_mm)} deep: an estimate from the rounds and the gauge.
          </p>
        )}
      </Panel>
    </div>
  );
}

function Eyes({ design, value, change }: { design: Design; value: Page; change: (page: Page) => void }) {
  const small = design.brief.audience === "under-three";
  return (
    <Panel className="mb-3">
      <div className="grid grid-cols-[1fr_10rem] gap-3">
        <SelectField
          label="Eyes"
          value={value.eye_kind ?? "none"}
          onValue={(eye_kind) =>
            change({ ...value, eye_kind, eye_mm: eye_kind === "safety" ? (value.eye_mm ?? 8) : value.eye_mm })
          }
          options={[
            ["none", "none"],
            ["safety", "safety eyes"],
            ["embroidered", "embroidered"],
          ]}
        />
        {value.eye_kind === "safety" && (
          <NumberField
            label="Across"
            unit="mm"
            least={3}
            most={60}
            value={value.eye_mm ?? 8}
            onValue={(eye_mm) => change({ ...value, eye_mm })}
          />
        )}
      </div>
      {value.eye_kind === "safety" && (
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

function StepFields({
  design,
  step,
  set,
}: {
  design: Design;
  step: Step;
  set: (part: Partial<Step>) => void;
}) {
  const names = design.parts.map((p) => [p.key, p.name] as const);
  const host = design.parts.find((p) => p.key === step.on);
  const gone = (key: string | null | undefined) =>
    key && !design.parts.some((p) => p.key === key) ? ([[key, "a part that is gone"]] as const) : [];
  return (
    <div className="flex flex-1 flex-col gap-2">
      <Field label="What to do">
        {(ids) => (
          <input
            {...ids}
            className={inputClass}
            maxLength={500}
            placeholder="Sew the head to the top of the body."
            value={step.text ?? ""}
            onChange={(e) => set({ text: e.target.value })}
          />
        )}
      </Field>
      <div className="grid grid-cols-2 gap-2 xl:grid-cols-4">
        <SelectField
          label="Part"
          value={step.part ?? ""}
          onValue={(key) => set({ part: key || null })}
          options={[["", "none"], ...names, ...gone(step.part)]}
        />
        <SelectField
          label="on"
          value={step.on ?? ""}
          onValue={(key) =>
            set({
              on: key || null,
              round: key
                ? (step.round ??
                  Math.max(1, Math.round((design.parts.find((p) => p.key === key)?.counts.length ?? 2) / 2)))
                : null,
            })
          }
          options={[["", "nowhere yet"], ...names.filter(([key]) => key !== step.part), ...gone(step.on)]}
        />
        {step.on && (
          <>
            <NumberField
              label="at round"
              least={1}
              most={host?.counts.length || 2000}
              value={Math.min(step.round ?? 1, host?.counts.length || 2000)}
              onValue={(round) => set({ round })}
            />
            <NumberField
              label="from the front"
              unit="sts"
              least={-2000}
              most={2000}
              value={step.stitch ?? 0}
              onValue={(stitch) => set({ stitch: stitch ?? 0 })}
              hint={
                host?.counts[(step.round ?? 1) - 1]
                  ? `of ${host.counts[(step.round ?? 1) - 1]} in the round; left is +`
                  : undefined
              }
            />
          </>
        )}
      </div>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {step.on && (
          <>
            <Check
              label="and its mirror image"
              checked={step.paired ?? false}
              onChecked={(paired) => set({ paired })}
            />
            <NumberField
              label="Tilt up"
              unit="°"
              className="w-24"
              least={-90}
              most={90}
              step={5}
              value={step.tilt ?? 0}
              onValue={(tilt) => set({ tilt: tilt ?? 0 })}
            />
          </>
        )}
        {step.part && (
          <Check
            label="before the part is closed"
            checked={step.before_closing ?? false}
            onChecked={(before_closing) => set({ before_closing })}
          />
        )}
      </div>
    </div>
  );
}
