/** What can be done to the chosen rounds of the ladder. */
import { SlidersHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Button } from "../ui/controls";
import { menuItem, menuSheet } from "../ui/overlays";
import type { Preview, Reshape } from "./ask";
import { Divide, Insert, Recolour, StartOn, Stripes } from "./shaping-dialogs";

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
  colours: [],
  main: "Main",
  shift: 0,
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

/** The rounds that a change is about when a fold may be cut for it, counted from 1 as they are worked. */
function countedOf(range: Range): Pick<Reshape, "first" | "last"> {
  return { first: Math.min(range.from, range.to) + 1, last: Math.max(range.from, range.to) + 1 };
}

type MenuProps = {
  rounds: Preview["part"]["rounds"];
  range: Range | null;
  colours: string[];
  yarns: string[];
  main: string;
  onChange: (change: Reshape) => void;
  onTry: (change: Reshape, name: string) => void;
};

/** onChange: a small step, made at once. onTry: a change to be looked at before it is made. */
export function ShapingMenu({ onChange, ...of }: MenuProps) {
  const { rounds, range, colours, onTry } = of;
  const [asking, setAsking] = useState<Asking>(null);
  const attempt = (change: Partial<Reshape>, name: string) =>
    range ? onTry(changeOf(rounds, range, change), name) : undefined;
  const last = rounds.at(-1)?.line ?? 0;
  const end = range ? rounds[Math.max(range.from, range.to)] : undefined;
  const back = end?.shift ?? 0;
  const names = range ? label(rounds, range) : "";
  const steps: [string, Partial<Reshape>][] = [
    ["One stitch more  (→)", { do: "widen", by: 1 }],
    ["One stitch fewer  (←)", { do: "widen", by: -1 }],
    ["Move shaping one stitch on  (Alt →)", { do: "move", by: 1 }],
    ["Move shaping one stitch back  (Alt ←)", { do: "move", by: -1 }],
  ];
  const changes: [string, Partial<Reshape>][] = [
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
            {[...steps, ...changes].map(([name, change], at) => (
              <DropdownMenu.Item
                key={name}
                disabled={!range}
                className={menuItem}
                onSelect={() =>
                  at < steps.length
                    ? range && onChange(changeOf(rounds, range, change))
                    : attempt(change, name)
                }
              >
                {name}
              </DropdownMenu.Item>
            ))}
            {back > 0 && (
              <DropdownMenu.Item
                className={menuItem}
                onSelect={() =>
                  attempt({ do: "shift", by: back, first: end?.line ?? 0 }, "Bring the start back")
                }
              >
                {`Bring the start back: ${back} more ${back === 1 ? "stitch" : "stitches"} after ${end?.label}`}
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item
              disabled={!range}
              className={menuItem}
              onSelect={() =>
                range && attempt({ do: "open", ...countedOf(range) }, `Open behind ${end?.label ?? ""}`)
              }
            >
              {`End the part open behind ${end?.label ?? "the chosen round"}`}
            </DropdownMenu.Item>
            <DropdownMenu.Item disabled={!range} className={menuItem} onSelect={() => setAsking("insert")}>
              Insert straight rounds …
            </DropdownMenu.Item>
            <DropdownMenu.Item disabled={!range} className={menuItem} onSelect={() => setAsking("stripes")}>
              Stripes …
            </DropdownMenu.Item>
            <DropdownMenu.Item disabled={!range} className={menuItem} onSelect={() => setAsking("divide")}>
              {`Split into two legs behind ${end?.label ?? "the chosen round"} …`}
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            {WHOLE.map(([name, what]) => (
              <DropdownMenu.Item
                key={what}
                className={menuItem}
                onSelect={() => onTry({ ...NO_CHANGE, do: what }, name)}
              >
                {name}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item className={menuItem} onSelect={() => setAsking("start")}>
              Start on another count …
            </DropdownMenu.Item>
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
      <Questions {...of} asking={asking} onClose={() => setAsking(null)} />
    </>
  );
}

type Asking = "insert" | "recolour" | "start" | "stripes" | "divide" | null;

/** What is asked before some of the changes. */
function Questions({
  asking,
  onClose,
  rounds,
  range,
  colours,
  yarns,
  main,
  onTry,
}: Omit<MenuProps, "onChange"> & { asking: Asking; onClose: () => void }) {
  const end = range ? rounds[Math.max(range.from, range.to)] : undefined;
  const attempt = (change: Partial<Reshape>, name: string) =>
    range ? onTry(changeOf(rounds, range, change), name) : undefined;
  return (
    <>
      <Insert
        open={asking === "insert"}
        onClose={onClose}
        after={end?.label ?? ""}
        onMany={(by) => attempt({ do: "insert", by, first: end?.line ?? 0 }, "Straight rounds")}
      />
      <Recolour
        open={asking === "recolour"}
        onClose={onClose}
        colours={colours}
        onNames={(old, fresh) =>
          onTry({ ...NO_CHANGE, do: "recolour", old, new: fresh }, `${fresh} for ${old}`)
        }
      />
      <StartOn
        open={asking === "start"}
        onClose={onClose}
        now={rounds[0]?.live ?? 6}
        onCount={(by) => onTry({ ...NO_CHANGE, do: "start", by }, `Start on ${by}`)}
      />
      <Stripes
        open={asking === "stripes"}
        onClose={onClose}
        where={range ? label(rounds, range) : ""}
        yarns={yarns}
        onStripes={(stripes, by) =>
          range && attempt({ do: "stripes", by, colours: stripes, main, ...countedOf(range) }, "Stripes")
        }
      />
      <Divide
        open={asking === "divide"}
        onClose={onClose}
        after={end?.label ?? ""}
        live={end?.live ?? 0}
        back={end?.shift ?? 0}
        onLegs={(by, shift, bridge) =>
          range && attempt({ do: "divide", by, shift, bridge, ...countedOf(range) }, "Two legs")
        }
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
