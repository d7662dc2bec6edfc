/** In which order the booklet has the parts: dragged, or moved by keys. What another part takes in stays before it. */
import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { Design } from "../design/design";
import { FoldedPanel, IconButton } from "../ui/controls";
import { moved } from "./photos";
import type { Page } from "./said";

/** Keys of all parts, those that were put in order first. */
export function orderOf(design: Pick<Design, "parts">, order: readonly string[]): string[] {
  const keys = design.parts.map((p) => p.key);
  return [...order.filter((k) => keys.includes(k)), ...keys.filter((k) => !order.includes(k))];
}

/** A list with the member at `from` taken out and put in at `to`. */
export function put<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  const [one] = next.splice(from, 1);
  if (one !== undefined) next.splice(to, 0, one);
  return next;
}

export function PartOrder({
  design,
  value,
  set,
}: {
  design: Design;
  value: Page;
  set: (part: Partial<Page>) => void;
}) {
  const [dragged, setDragged] = useState<number | null>(null);
  const order = orderOf(design, value.order ?? []);
  const names = new Map(design.parts.map((p) => [p.key, p.name]));
  if (order.length < 2) return null;
  return (
    <FoldedPanel
      title="Order of parts"
      said={(value.order ?? []).length > 0 ? "your own" : "the design's"}
      folded
    >
      <ol className="flex flex-col gap-1">
        {order.map((key, at) => (
          <li
            key={key}
            draggable
            onDragStart={() => setDragged(at)}
            onDragOver={(e) => e.preventDefault()}
            onDrop={() => {
              if (dragged !== null) set({ order: put(order, dragged, at) });
              setDragged(null);
            }}
            onDragEnd={() => setDragged(null)}
            className={`flex cursor-grab items-center justify-between rounded border px-2 ${dragged === at ? "border-woad bg-woad-ground" : "border-line"}`}
          >
            <span>{names.get(key)}</span>
            <span className="whitespace-nowrap">
              <IconButton
                label={`Print ${names.get(key)} earlier`}
                disabled={at === 0}
                onClick={() => set({ order: moved(order, at, -1) })}
              >
                <ArrowUp size={16} />
              </IconButton>
              <IconButton
                label={`Print ${names.get(key)} later`}
                disabled={at === order.length - 1}
                onClick={() => set({ order: moved(order, at, 1) })}
              >
                <ArrowDown size={16} />
              </IconButton>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-2 text-sm text-soft">What another part takes in is always printed before it.</p>
    </FoldedPanel>
  );
}
