/** The bends of a limb with wire in it: at which of its rounds, by how much, and to which side of the figure. */
import { Plus, Trash2 } from "lucide-react";
import { Button, IconButton, NumberField, SelectField } from "../ui/controls";
import type { Step } from "./aim";
import type { StepProps } from "./step-fields";

type Bend = NonNullable<Step["bends"]>[number];

const TOWARDS: [Bend["towards"] & string, string][] = [
  ["front", "forwards"],
  ["back", "backwards"],
  ["up", "upwards"],
  ["down", "downwards"],
  ["in", "inwards"],
  ["out", "outwards"],
];

/** Bends of one limb at most. */
const MOST = 4;

export function Bends({ design, step, set }: Pick<StepProps, "design" | "step" | "set">) {
  const bends = step.bends ?? [];
  const rounds = design.parts.find((p) => p.key === step.part)?.counts.length ?? 0;
  const change = (at: number, to: Partial<Bend>) =>
    set({ bends: bends.map((bend, k) => (k === at ? { ...bend, ...to } : bend)) });
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">Bends of the wire in it</legend>
      {bends.map((bend, at) => (
        <div key={at} className="flex flex-wrap items-end gap-2">
          <NumberField
            label="Bent at its round"
            className="w-32"
            least={1}
            most={rounds || 2000}
            value={bend.round}
            onValue={(round) => round && change(at, { round })}
          />
          <NumberField
            label="Bent by"
            unit="°"
            className="w-24"
            least={5}
            most={150}
            step={5}
            value={bend.degrees ?? 45}
            onValue={(degrees) => degrees && change(at, { degrees })}
          />
          <SelectField
            label="Bent"
            value={bend.towards ?? "front"}
            onValue={(towards) => change(at, { towards: towards as Bend["towards"] })}
            options={TOWARDS}
          />
          <IconButton
            label={`Straighten at round ${bend.round}`}
            onClick={() => set({ bends: bends.filter((_, k) => k !== at) })}
          >
            <Trash2 size={16} aria-hidden />
          </IconButton>
        </div>
      ))}
      {bends.length < MOST && rounds > 2 && (
        <Button
          className="self-start justify-self-start"
          onClick={() =>
            set({ bends: [...bends, { round: Math.ceil(rounds / 2), degrees: 45, towards: "front" }] })
          }
        >
          <Plus size={16} aria-hidden /> Bend the wire in it
        </Button>
      )}
    </fieldset>
  );
}
