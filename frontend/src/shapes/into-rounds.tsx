/** The drafted rounds as a part of the design: a new one, or in the place of rounds that were edited by hand. */
import { useState } from "react";
import type { Design, Part } from "../design/design";
import { useAct } from "../design/design";
import { MOST_NAME } from "../design/head";
import { Button, NumberField, TextField } from "../ui/controls";
import { Confirm, Explained, useSay } from "../ui/overlays";
import type { Shape } from "./question";

export function IntoRounds({
  design,
  part,
  shape,
  onReplace,
  onMade,
}: {
  design: Design;
  part: Part | null;
  /** What was drafted, null while there is nothing to take. */
  shape: Shape | null;
  onReplace: () => void;
  onMade: (key: string) => void;
}) {
  const act = useAct(design.id);
  const say = useSay();
  if (part?.recipe?.panel)
    return (
      <p className="mt-3 border-t border-line pt-3 text-sm">
        {part.name} is a flat panel, worked in rows; to work its shape anew, choose a new part.
      </p>
    );
  if (part)
    return part.authoritative ? null : <Replace part={part} onReplace={onReplace} disabled={!shape} />;
  const add = (name: string, make: number) =>
    act.mutate(
      {
        do: "add-part",
        name,
        make,
        colour: null,
        text: shape?.text ?? "",
        recipe: shape?.recipe ?? null,
      },
      {
        onSuccess: (made) => {
          onMade(made.parts.at(-1)?.key ?? "");
          say(`${name} is there: its rounds are on the bench.`);
        },
      },
    );
  return <AddPart disabled={!shape} onAdd={add} />;
}

function Replace({ part, onReplace, disabled }: { part: Part; onReplace: () => void; disabled: boolean }) {
  return (
    <div className="mt-3 border-t border-line pt-3">
      <p className="mb-2 text-sm">
        {part.name} has been{" "}
        <Explained why="Once rounds are edited by hand, the shape no longer overwrites them by itself.">
          edited by hand
        </Explained>
        .
      </p>
      <Confirm
        trigger={<Button disabled={disabled}>Use this shape instead</Button>}
        title={`Replace the rounds of ${part.name}?`}
        about="The rounds on the bench are replaced by those of the shape. Undo brings them back."
        yes="Replace them"
        onYes={onReplace}
      />
    </div>
  );
}

function AddPart({ disabled, onAdd }: { disabled: boolean; onAdd: (name: string, make: number) => void }) {
  const [name, setName] = useState("");
  const [make, setMake] = useState(1);
  return (
    <form
      className="mt-3 grid grid-cols-[1fr_5rem_auto] items-start gap-2 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        onAdd(name.trim(), make);
      }}
    >
      <TextField
        label="Call it"
        required
        maxLength={MOST_NAME}
        placeholder="Body"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <NumberField label="Make" least={1} most={50} value={make} onValue={(n) => setMake(n ?? 1)} />
      <Button type="submit" weight="main" className="mt-6" disabled={disabled}>
        Add
      </Button>
    </form>
  );
}
