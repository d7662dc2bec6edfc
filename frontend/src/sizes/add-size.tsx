/** Asking for another size: the same counts in another yarn, or another height in the same yarn. */
import { useState } from "react";
import { type Design, newKey } from "../design/design";
import { NumberField, SelectField, TextField } from "../ui/controls";
import { FormEnd } from "../ui/form";
import { Dialog } from "../ui/overlays";
import { cm, rounded } from "../ui/units";
import { useBasket, type Yarn } from "../yarns/basket";

export type Entry = NonNullable<Design["sizes"]["sizes"]>[number];

type Asked = { name: string; hook: string; strands: number; height: number | null };

/** The size that was asked for; null while something is missing. */
export function entryOf(kind: Entry["kind"], asked: Asked, yarn: Yarn | undefined): Entry | null {
  const { name, hook, strands, height } = asked;
  const common = { key: newKey(), strands };
  if (kind === "height")
    return height
      ? {
          ...common,
          kind,
          name: name || `${rounded(height / 10, 1)} cm`,
          height_mm: height,
          yarn: null,
          hook_mm: null,
        }
      : null;
  if (!yarn) return null;
  const { id, diameter_mm: _, ...kept } = yarn;
  return {
    ...common,
    kind,
    name: name || yarn.name,
    hook_mm: Number(hook),
    height_mm: null,
    yarn: { ...kept, yarn_id: id },
  };
}

export function AddSize({
  kind,
  design,
  now,
  onClose,
  onAdd,
}: {
  kind: Entry["kind"];
  design: Design;
  /** Height of the whole figure as it is, in mm. */
  now: number;
  onClose: () => void;
  onAdd: (entry: Entry) => void;
}) {
  const basket = useBasket().data;
  const [name, setName] = useState("");
  const [yarnId, setYarnId] = useState("");
  const [hook, setHook] = useState("5");
  const [strands, setStrands] = useState(1);
  const [height, setHeight] = useState<number | null>(Math.round(now * 1.5));
  const yarn = basket?.yarns.find((y) => String(y.id) === (yarnId || String(basket.yarns[0]?.id)));
  const entry = entryOf(kind, { name: name.trim(), hook, strands, height }, yarn);
  return (
    <Dialog
      open
      onOpen={onClose}
      title={kind === "yarn" ? "The same counts in another yarn" : "Another height in the same yarn"}
      about={
        kind === "yarn"
          ? "The figure grows or shrinks with the stitch."
          : "Counts are worked out anew so that the shape stays; all parts keep their proportions."
      }
    >
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (entry) onAdd(entry);
        }}
      >
        <TextField
          label="Call it"
          maxLength={40}
          className="col-span-2"
          placeholder={kind === "yarn" ? "in chunky" : "keyring"}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        {kind === "yarn" ? (
          <>
            <SelectField
              label="Yarn"
              value={yarnId || String(basket?.yarns[0]?.id ?? "")}
              onValue={setYarnId}
              options={basket?.yarns.map((y) => [String(y.id), y.name] as const) ?? []}
            />
            <SelectField
              label="Hook"
              value={hook}
              onValue={setHook}
              options={basket?.hooks.map((h) => [String(h.mm), h.name] as const) ?? []}
            />
            <NumberField
              label="Strands together"
              least={1}
              most={6}
              value={strands}
              onValue={(n) => setStrands(n ?? 1)}
            />
            {!basket?.yarns.length && (
              <p className="col-span-2 border-l-4 border-weld bg-weld-ground px-2 py-1">
                The basket is empty: put a yarn in first.
              </p>
            )}
          </>
        ) : (
          <NumberField
            label="Height of the whole figure"
            unit="mm"
            least={10}
            most={3000}
            value={height}
            onValue={setHeight}
            className="col-span-2"
            hint={`${design.name} is about ${cm(now)} now.`}
          />
        )}
        <FormEnd onCancel={onClose} pending={!entry}>
          Add the size
        </FormEnd>
      </form>
    </Dialog>
  );
}
