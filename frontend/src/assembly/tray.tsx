/** Parts that are not placed yet: dragged onto the figure, aimed and clicked, or put where they mostly go. */
import { Crosshair, Wand2 } from "lucide-react";
import { useMemo, useRef } from "react";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { useCommands } from "../ui/keys";
import type { Scene } from "./use-scene";

/** What is dragged onto the figure: `part:KEY` for one of the tray, `step:KEY` for a step to be placed anew. */
export const PLACE_DRAG = "application/x-spirrel-place";

export type Loose = Scene["loose"][number];

export function Tray({
  design,
  loose,
  aimed,
  onAim,
  onPropose,
}: {
  design: Design;
  loose: readonly Loose[];
  aimed: string | null;
  onAim: (part: string) => void;
  onPropose: (parts: readonly Loose[]) => void;
}) {
  const guessed = loose.filter((l) => l.guess);
  const latest = useRef(() => onPropose(guessed));
  latest.current = () => onPropose(guessed);
  const some = guessed.length > 0;
  const commands = useMemo(
    () => (some ? [{ name: "Place all parts where they mostly go", run: () => latest.current() }] : []),
    [some],
  );
  useCommands(commands);
  if (!loose.length) return null;
  return (
    <section aria-label="Not placed yet" className="mb-3 rounded-lg border border-line bg-sunk p-3">
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="flex-1 text-lg">Not placed yet</h2>
        {guessed.length > 1 && (
          <Button onClick={() => onPropose(guessed)}>
            <Wand2 size={16} aria-hidden /> Place all where they mostly go
          </Button>
        )}
      </div>
      <p className="text-sm text-soft">Drag one onto the figure, or point at its place.</p>
      <ul className="mt-2 flex flex-wrap gap-2">
        {loose.map((l) => (
          <Piece
            key={l.part}
            loose={l}
            design={design}
            aimed={aimed === l.part}
            onAim={() => onAim(l.part)}
            onPropose={() => onPropose([l])}
          />
        ))}
      </ul>
    </section>
  );
}

function Piece({
  loose,
  design,
  aimed,
  onAim,
  onPropose,
}: {
  loose: Loose;
  design: Design;
  aimed: boolean;
  onAim: () => void;
  onPropose: () => void;
}) {
  const part = design.parts.find((p) => p.key === loose.part);
  const host = design.parts.find((p) => p.key === loose.host);
  const name = part?.name ?? "a part";
  return (
    <li
      draggable
      onDragStart={(e) => {
        e.dataTransfer.setData(PLACE_DRAG, `part:${loose.part}`);
        e.dataTransfer.effectAllowed = "move";
      }}
      className="flex cursor-grab flex-wrap items-center gap-1 rounded-md border border-strong bg-panel py-1 pr-1 pl-3"
    >
      <span className="mr-1">
        {name}
        {loose.many < (part?.make ?? 1)
          ? ` · ${loose.many} of ${part?.make}`
          : loose.many > 1 && ` × ${loose.many}`}
      </span>
      <Button weight="quiet" aria-pressed={aimed} onClick={onAim} className="px-2">
        <Crosshair size={16} aria-hidden /> Point<span className="sr-only"> to where {name} goes</span>
      </Button>
      {loose.guess && (
        <Button weight="quiet" onClick={onPropose} className="px-2" title={loose.guess.why}>
          <Wand2 size={16} aria-hidden /> {`R${loose.guess.round}${host ? ` of ${host.name}` : ""}`}
          <span className="sr-only">: place {name} there</span>
        </Button>
      )}
    </li>
  );
}
