/** The drafted rounds as a part of the design: a new one, or in the place of rounds that were edited by hand. */
import { useEffect, useState } from "react";
import type { Design, Part } from "../design/design";
import { useAct } from "../design/design";
import { MOST_NAME } from "../design/head";
import { Button, NumberField, TextField } from "../ui/controls";
import { Confirm, Explained, useSay } from "../ui/overlays";
import type { Shape } from "./question";

type Into = {
  design: Design;
  part: Part | null;
  /** What was drafted from the shape as it stands, null while that is on its way or where it cannot be worked. */
  shape: Shape | null;
  /** Whether the shape as it stands cannot be worked. */
  refused: boolean;
  onReplace: () => void;
  onMade: (key: string) => void;
};

export function IntoRounds({ design, part, shape, refused, onReplace, onMade }: Into) {
  const { add, adding } = useAdding(design, shape, refused, onMade);
  if (part?.recipe?.kind === "panel")
    return (
      <p className="mt-3 border-t border-line pt-3 text-sm">
        {part.name} is a flat panel, worked in rows; to work its shape anew, choose a new part.
      </p>
    );
  if (part)
    return part.authoritative ? null : <Replace part={part} onReplace={onReplace} disabled={!shape} />;
  return <AddPart disabled={refused} adding={adding} onAdd={add} />;
}

type Wanted = { name: string; make: number };

/** A part asked for while its shape is still drafted waits for those rounds: it never takes the ones before. */
function useAdding(design: Design, shape: Shape | null, refused: boolean, onMade: (key: string) => void) {
  const act = useAct(design.id);
  const say = useSay();
  const [wanted, setWanted] = useState<Wanted | null>(null);
  useEffect(() => {
    if (!wanted || (!shape && !refused)) return;
    setWanted(null);
    if (!shape) {
      say(`${wanted.name} was not added: this shape cannot be worked as it is.`, true);
      return;
    }
    act.mutate(
      { do: "add-part", ...wanted, colour: null, text: shape.text, recipe: shape.recipe },
      {
        onSuccess: (made) => {
          onMade(made.parts.at(-1)?.key ?? "");
          say(`${wanted.name} is there: its rounds are on the bench.`);
        },
      },
    );
  }, [wanted, shape, refused, act, onMade, say]);
  return { add: setWanted, adding: wanted !== null || act.isPending };
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

function AddPart({
  disabled,
  adding,
  onAdd,
}: {
  disabled: boolean;
  adding: boolean;
  onAdd: (wanted: Wanted) => void;
}) {
  const [name, setName] = useState("");
  const [make, setMake] = useState(1);
  return (
    <form
      className="mt-3 grid grid-cols-[1fr_5rem_auto] items-start gap-2 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!adding) onAdd({ name: name.trim(), make });
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
        {adding ? "Adding …" : "Add"}
      </Button>
    </form>
  );
}
