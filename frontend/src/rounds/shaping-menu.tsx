/** What can be done to the chosen rounds of the ladder. */
import { SlidersHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type FormEvent, useState } from "react";
import { Button, NumberField, SelectField, TextField } from "../ui/controls";
import { Dialog, menuItem, menuSheet } from "../ui/overlays";
import type { Preview, Reshape } from "./ask";

export type Range = { from: number; to: number };

export const NO_CHANGE: Reshape = {
  do: "pair",
  first: 0,
  last: 0,
  after: 0,
  by: 0,
  lean: 0.4,
  old: "",
  new: "",
};

/** Changes of the whole part. */
const WHOLE = [
  ["Reverse for the other of a pair", "pair"],
  ["All decreases invisible", "invisible"],
  ["All decreases plain", "plain"],
  ["Join every round", "join"],
  ["Work it as a spiral", "spiral"],
  ["Draw the end in and close it", "close"],
] as const satisfies readonly (readonly [string, Reshape["do"]])[];

/** A change of the chosen rounds, with their lines filled in. */
export function changeOf(rounds: Preview["part"]["rounds"], range: Range, change: Partial<Reshape>): Reshape {
  const lines = rounds
    .slice(Math.min(range.from, range.to), Math.max(range.from, range.to) + 1)
    .map((r) => r.line);
  return {
    ...NO_CHANGE,
    first: Math.min(...lines),
    last: Math.max(...lines),
    after: Math.max(...lines),
    ...change,
  };
}

export function ShapingMenu({
  rounds,
  range,
  colours,
  onChange,
}: {
  rounds: Preview["part"]["rounds"];
  range: Range | null;
  colours: string[];
  onChange: (change: Reshape) => void;
}) {
  const [asking, setAsking] = useState<"insert" | "recolour" | null>(null);
  const run = (change: Partial<Reshape>) => range && onChange(changeOf(rounds, range, change));
  const last = rounds.at(-1)?.line ?? 0;
  const end = range ? rounds[Math.max(range.from, range.to)] : undefined;
  const back = end?.shift ?? 0;
  const names = range ? label(rounds, range) : "";
  const items: [string, Partial<Reshape>, boolean?][] = [
    ["One stitch more  (→)", { do: "widen", by: 1 }],
    ["One stitch fewer  (←)", { do: "widen", by: -1 }],
    ["Move shaping one stitch on  (Alt →)", { do: "move", by: 1 }],
    ["Move shaping one stitch back  (Alt ←)", { do: "move", by: -1 }],
    ["Keep shaping on its side", { do: "sides" }],
    ["Stagger the increases", { do: "stagger" }],
    ["Stack the increases", { do: "stack" }],
    ["Copy behind themselves", { do: "copy" }],
    ["Mirror at the end", { do: "mirror", after: last }],
  ];
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button weight="quiet" disabled={!rounds.length}>
            <SlidersHorizontal size={16} aria-hidden="true" /> Shape {names || "rounds"}
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={4} className={menuSheet}>
            {!range && (
              <DropdownMenu.Label className="max-w-60 px-2 py-1 text-sm text-soft">
                Choose a rung first; Shift and a second rung choose all between.
              </DropdownMenu.Label>
            )}
            {items.map(([name, change]) => (
              <DropdownMenu.Item
                key={name}
                disabled={!range}
                className={menuItem}
                onSelect={() => run(change)}
              >
                {name}
              </DropdownMenu.Item>
            ))}
            {back > 0 && (
              <DropdownMenu.Item
                className={menuItem}
                onSelect={() => run({ do: "shift", by: back, first: end?.line ?? 0 })}
              >
                {`Bring the start back: ${back} more ${back === 1 ? "stitch" : "stitches"} after ${end?.label}`}
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item disabled={!range} className={menuItem} onSelect={() => run({ do: "open" })}>
              {`End the part open behind ${end?.label ?? "the chosen round"}`}
            </DropdownMenu.Item>
            <DropdownMenu.Item disabled={!range} className={menuItem} onSelect={() => setAsking("insert")}>
              Insert straight rounds …
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            {WHOLE.map(([name, what]) => (
              <DropdownMenu.Item
                key={what}
                className={menuItem}
                onSelect={() => onChange({ ...NO_CHANGE, do: what })}
              >
                {name}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item
              className={menuItem}
              disabled={!colours.length}
              onSelect={() => setAsking("recolour")}
            >
              Call a colour by another name …
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Insert
        open={asking === "insert"}
        onClose={() => setAsking(null)}
        after={range ? (rounds[Math.max(range.from, range.to)]?.label ?? "") : ""}
        onMany={(by) =>
          run({ do: "insert", by, first: rounds[range ? Math.max(range.from, range.to) : 0]?.line ?? 0 })
        }
      />
      <Recolour
        open={asking === "recolour"}
        onClose={() => setAsking(null)}
        colours={colours}
        onNames={(old, fresh) => onChange({ ...NO_CHANGE, do: "recolour", old, new: fresh })}
      />
    </>
  );
}

/** The chosen rounds in words. */
export function label(rounds: Preview["part"]["rounds"], range: Range): string {
  const first = rounds[Math.min(range.from, range.to)]?.label ?? "";
  const last = rounds[Math.max(range.from, range.to)]?.label ?? "";
  return first === last ? first : `${first} to ${last}`;
}

function Insert({
  open,
  onClose,
  after,
  onMany,
}: {
  open: boolean;
  onClose: () => void;
  after: string;
  onMany: (many: number) => void;
}) {
  const [many, setMany] = useState<number | null>(1);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (many) onMany(many);
    onClose();
  };
  return (
    <Dialog open={open} onOpen={(o) => !o && onClose()} title={`Straight rounds behind ${after}`}>
      <form onSubmit={submit} className="flex items-end gap-3">
        <NumberField label="How many" least={1} most={200} value={many} onValue={setMany} className="w-28" />
        <Button type="submit" weight="main" disabled={!many}>
          Insert them
        </Button>
      </form>
    </Dialog>
  );
}

function Recolour({
  open,
  onClose,
  colours,
  onNames,
}: {
  open: boolean;
  onClose: () => void;
  colours: string[];
  onNames: (old: string, fresh: string) => void;
}) {
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const from = colours.includes(old) ? old : (colours[0] ?? "");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (fresh.trim()) onNames(from, fresh.trim());
    onClose();
  };
  return (
    <Dialog open={open} onOpen={(o) => !o && onClose()} title="Call a colour by another name">
      <form onSubmit={submit} className="flex flex-col gap-3">
        <SelectField
          label="Colour"
          value={from}
          onValue={setOld}
          options={colours.map((c) => [c, c] as const)}
        />
        <TextField label="New name" maxLength={40} value={fresh} onChange={(e) => setFresh(e.target.value)} />
        <Button type="submit" weight="main" className="self-end" disabled={!fresh.trim()}>
          Rename it in these rounds
        </Button>
      </form>
    </Dialog>
  );
}
