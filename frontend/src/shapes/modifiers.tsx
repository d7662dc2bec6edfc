/** What is done to the whole shape: bends, bellies, ridges, each with its numbers. */
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { answer, api, type Schemas } from "../api/client";
import { IconButton, NumberField, SelectField } from "../ui/controls";
import type { Modifier } from "./recipe";

const MOST = 8;

export function Modifiers({
  modifiers,
  onModifiers,
}: {
  modifiers: Modifier[];
  onModifiers: (modifiers: Modifier[]) => void;
}) {
  const kinds = useQuery({
    queryKey: ["modifiers"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => answer<Schemas["ModifierOut"][]>(api.GET("/api/shapes/modifiers")),
  }).data;
  if (!kinds) return null;
  return (
    <fieldset className="mt-3 flex flex-col gap-2 border-t border-line pt-2">
      <legend className="sr-only">Changes of the whole shape</legend>
      {modifiers.map((modifier, i) => {
        const kind = kinds.find((k) => k.key === modifier.kind);
        if (!kind) return null;
        return (
          <div key={i} className="grid grid-cols-[1fr_auto] items-start gap-1">
            <div className="grid grid-cols-2 gap-2">
              {kind.knobs.map((knob) => (
                <NumberField
                  key={knob.name}
                  label={`${kind.title}, ${knob.title}`}
                  unit={knob.unit}
                  least={knob.least}
                  most={knob.most}
                  value={knobOf(modifier, knob)}
                  onValue={(value) =>
                    value !== null &&
                    onModifiers(modifiers.map((m, k) => (k === i ? turned(m, knob.name, value) : m)))
                  }
                />
              ))}
            </div>
            <IconButton
              label={`Take away: ${kind.title}`}
              onClick={() => onModifiers(modifiers.filter((_, k) => k !== i))}
            >
              <X size={16} />
            </IconButton>
          </div>
        );
      })}
      {modifiers.length < MOST && (
        <SelectField
          label="Change the shape"
          value=""
          onValue={(key) => {
            const kind = kinds.find((k) => k.key === key);
            if (kind) onModifiers([...modifiers, { kind: kind.key }]);
          }}
          options={[["", "…"], ...kinds.map((k) => [k.key, `${k.title}: ${k.use}`] as const)]}
        />
      )}
    </fieldset>
  );
}

/** Which knobs a modifier has is told by its kind: they are looked up by name. */
function knobOf(modifier: Modifier, knob: Schemas["KnobOut"]): number {
  return Number(Object.entries(modifier).find(([name]) => name === knob.name)?.[1] ?? knob.usual);
}

function turned(modifier: Modifier, name: string, value: number): Modifier {
  return { ...modifier, [name]: value };
}
