/** A part's name, how often it is made, and the yarn it begins with. */
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import { type Design, type Part, useAct } from "../design/design";
import { MOST_NAME } from "../design/head";
import { IconButton, NumberField, SelectField, TextField } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { useName } from "../ui/use-name";

export function PartHead({ design, part }: { design: Design; part: Part }) {
  const act = useAct(design.id, (problem) => problem.status === 422);
  const yarns = design.gauge.yarns ?? [];
  type Change = Partial<Pick<Part, "name" | "make" | "colour">>;
  const set = (change: Change, answers?: Parameters<typeof act.mutate>[1]) => {
    const next = { name: part.name, make: part.make, colour: part.colour, ...change };
    act.mutate({ do: "change-part", key: part.key, ...next }, answers);
  };
  const { name, setName, error, leave, press } = useName(part.name, "A part", (next, answers) =>
    set({ name: next }, answers),
  );
  return (
    <>
      <div className="flex items-end gap-2">
        <TextField
          label="Part"
          className="min-w-0 flex-1"
          maxLength={MOST_NAME}
          value={name}
          onChange={(e) => setName(e.target.value)}
          error={error}
          onBlur={leave}
          onKeyDown={press}
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
      {part.own_hook && (
        <p className="mt-1 text-sm text-soft">
          On a hook of its own, {part.own_hook.hook_mm} mm: <Link to="../gauge">Gauge</Link>
        </p>
      )}
    </>
  );
}
