/** A part's name, how often it is made, and the yarn it begins with. */
import { Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import { type Design, type Part, useAct } from "../design/design";
import { IconButton, NumberField, SelectField, TextField } from "../ui/controls";
import { Confirm } from "../ui/overlays";

export function PartHead({ design, part }: { design: Design; part: Part }) {
  const act = useAct(design.id);
  const [name, setName] = useState(part.name);
  useEffect(() => setName(part.name), [part.name]);
  const yarns = design.gauge.yarns ?? [];
  const set = (change: Partial<Pick<Part, "name" | "make" | "colour">>) => {
    const next = { name: part.name, make: part.make, colour: part.colour, ...change };
    act.mutate({ do: "change-part", key: part.key, ...next }, { onError: () => setName(part.name) });
  };
  const save = () => {
    if (name.trim() && name.trim() !== part.name) set({ name: name.trim() });
    else setName(part.name);
  };
  return (
    <div className="flex items-end gap-2">
      <TextField
        label="Part"
        className="min-w-0 flex-1"
        maxLength={40}
        value={name}
        onChange={(e) => setName(e.target.value)}
        onBlur={save}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      <NumberField
        label="Make"
        className="w-16"
        least={1}
        most={50}
        value={part.make}
        onValue={(n) => n && n !== part.make && set({ make: n })}
      />
      {yarns.length > 0 && (
        <SelectField
          label="Begin with"
          className="w-36"
          value={part.colour ?? ""}
          onValue={(colour) => set({ colour: colour || null })}
          options={[
            ["", `${yarns[0]?.name} (main)`],
            ...yarns.slice(1).map((y) => [y.name, y.name] as const),
          ]}
        />
      )}
      <Confirm
        trigger={
          <IconButton label={`Remove ${part.name}`}>
            <Trash2 size={16} />
          </IconButton>
        }
        title={`Remove ${part.name}?`}
        about="Undo brings it back."
        yes="Remove it"
        onYes={() => act.mutate({ do: "remove-part", key: part.key })}
      />
    </div>
  );
}
