/** The plan of work: the parts that are to be made, drawn on a picture or listed, each with a solid, a size and its state. */
import { useMutation } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Link } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import { type Design, newKey, useAct } from "../design/design";
import { askShape } from "../shapes/question";
import { recipeFor } from "../shapes/recipe";
import { KINDS, type Kind } from "../shapes/silhouettes";
import { Button, Check, IconButton, NumberField, Panel, SelectField, TextField } from "../ui/controls";
import { useSay } from "../ui/overlays";

type Page = Design["brief"];
export type Planned = NonNullable<Page["plan"]>[number];

/** Sizes that a part can have, in mm. */
const LEAST = 5;
const MOST = 600;

export const within = (mm: number) => Math.min(MOST, Math.max(LEAST, Math.round(mm)));

/** What is mostly made of a part of that name and size. */
export async function propose(name: string, wide_mm: number, tall_mm: number) {
  const found = await answer<Schemas["ProposedOut"]>(
    api.POST("/api/shapes/propose", { body: { name, wide_mm, tall_mm } }),
  );
  return { solid: found.kind, open: found.open, empty: found.empty };
}

export function Plan({
  design,
  plan,
  onPlan,
}: {
  design: Design;
  plan: readonly Planned[];
  onPlan: (plan: Planned[]) => void;
}) {
  const add = () => onPlan([...plan, { ...BLANK, key: newKey(), name: `Part ${plan.length + 1}` }]);
  const set = (key: string, part: Partial<Planned>) =>
    onPlan(plan.map((p) => (p.key === key ? { ...p, ...part } : p)));
  const done = plan.filter((p) => stateOf(design, p) !== "planned").length;
  return (
    <Panel
      title="Plan of work"
      aside={plan.length > 0 && <span className="text-soft">{`${done} of ${plan.length} begun`}</span>}
    >
      {!plan.length && (
        <p className="mb-2 text-soft">
          Draw a box around each part on a picture, or list the parts here. Each gets a solid and a size to
          begin with.
        </p>
      )}
      <ul aria-label="Planned parts" className="flex flex-col gap-2">
        {plan.map((p, i) => (
          <PlannedRow
            key={p.key}
            design={design}
            planned={p}
            number={i + 1}
            set={(part) => set(p.key, part)}
            onRemove={() => onPlan(plan.filter((q) => q !== p))}
          />
        ))}
      </ul>
      <Button className="mt-2" onClick={add}>
        Add a part to the plan
      </Button>
    </Panel>
  );
}

const BLANK = {
  make: 1,
  solid: "sphere",
  open: false,
  empty: false,
  wide_mm: 40,
  tall_mm: 40,
  box: null,
  part: null,
};

type State = "planned" | "drafted" | "faults" | "adds up";

/** How far a planned part is. */
export function stateOf(design: Design, planned: Planned): State {
  const part = design.parts.find((p) => p.key === planned.part);
  if (!part) return "planned";
  if (!part.counts.length) return "drafted";
  return part.faults ? "faults" : "adds up";
}

const LOOKS: Record<State, string> = {
  planned: "border-line",
  drafted: "border-weld",
  faults: "border-madder",
  "adds up": "border-moss",
};

function PlannedRow({
  design,
  planned,
  number,
  set,
  onRemove,
}: {
  design: Design;
  planned: Planned;
  number: number;
  set: (part: Partial<Planned>) => void;
  onRemove: () => void;
}) {
  const state = stateOf(design, planned);
  const begin = useBeginning(design, set);
  const guess = useMutation({
    mutationFn: () => propose(planned.name, planned.wide_mm ?? 40, planned.tall_mm ?? 40),
    onSuccess: set,
  });
  const begun = state !== "planned";
  return (
    <li className={`rounded-md border-l-4 bg-sunk p-2 ${LOOKS[state]}`}>
      <div className="flex flex-wrap items-end gap-2">
        <TextField
          label={`Part ${number}`}
          value={planned.name}
          maxLength={60}
          onChange={(e) => set({ name: e.target.value })}
          onBlur={() => !begun && guess.mutate()}
        />
        <NumberField
          label="make"
          className="w-20"
          least={1}
          most={200}
          value={planned.make ?? 1}
          onValue={(make) => make && set({ make })}
        />
        <Sizes planned={planned} set={set} disabled={begun} />
        <IconButton label={`Take part ${number} off the plan`} onClick={onRemove}>
          <X size={16} />
        </IconButton>
      </div>
      <p className="mt-1 flex flex-wrap items-center gap-3">
        <span className="text-sm">{begun ? `Begun: ${state}` : "Planned"}</span>
        {begun ? (
          <Link className="underline" to={`/designs/${design.id}/rounds?part=${planned.part}`}>
            Its rounds
          </Link>
        ) : (
          <Button disabled={!planned.name || begin.isPending} onClick={() => begin.mutate(planned)}>
            {begin.isPending ? "Drafting …" : "Draft it"}
          </Button>
        )}
      </p>
    </li>
  );
}

function Sizes({
  planned,
  set,
  disabled,
}: {
  planned: Planned;
  set: (part: Partial<Planned>) => void;
  disabled: boolean;
}) {
  if (disabled)
    return (
      <span className="pb-2 text-soft">
        {planned.wide_mm} × {planned.tall_mm} mm
      </span>
    );
  return (
    <>
      <SelectField
        label="as"
        value={planned.solid ?? "sphere"}
        onValue={(solid) => set({ solid })}
        options={KINDS.map((k) => [k.kind, k.name] as const)}
      />
      {(["wide_mm", "tall_mm"] as const).map((side) => (
        <NumberField
          key={side}
          label={side === "wide_mm" ? "wide" : "tall"}
          unit="mm"
          className="w-24"
          least={LEAST}
          most={MOST}
          value={planned[side] ?? 40}
          onValue={(mm) => mm && set({ [side]: mm })}
        />
      ))}
      <Check label="open" checked={planned.open ?? false} onChecked={(open) => set({ open })} />
      <Check label="flat, unstuffed" checked={planned.empty ?? false} onChecked={(empty) => set({ empty })} />
    </>
  );
}

/** A planned part drafted at the design's gauge, and added to it. */
function useBeginning(design: Design, set: (part: Partial<Planned>) => void) {
  const act = useAct(design.id);
  const say = useSay();
  return useMutation({
    mutationFn: async (planned: Planned) => {
      const kind = (planned.solid ?? "sphere") as Kind;
      const plain = recipeFor(kind);
      const size = {
        height_mm: planned.tall_mm ?? 40,
        width_mm: planned.wide_mm ?? 40,
        open: planned.open ?? false,
      };
      const form = { ...plain.form, ...size } as typeof plain.form;
      const shape = await askShape({
        recipe: { ...plain, form, empty: planned.empty },
        design,
        colour: null,
        part: null,
      });
      return act.mutateAsync({
        do: "add-part",
        name: planned.name,
        make: planned.make ?? 1,
        colour: null,
        text: shape.text,
        recipe: shape.recipe,
      });
    },
    onSuccess: (made) => {
      set({ part: made.parts.at(-1)?.key ?? null });
      say("Its rounds are on the bench.");
    },
    onError: (e: unknown) => say(sentence(e), true),
  });
}
