/** A part as a ladder that is cut: a rung a round, the rungs that fit the other side lit; click, drag or arrow keys. */
import { type KeyboardEvent, useId, useRef } from "react";
import type { Schemas } from "../api/client";

type Port = Schemas["PortOut"];

const WIDE = 180;
const TALL = 12;

/** Which rounds stay or are taken: up to the cut, or from it on. */
export type Side = "below" | "above";

export function CutLadder({
  ports,
  label,
  side,
  chosen,
  widest,
  fits,
  onChoose,
}: {
  ports: readonly Port[];
  label: string;
  side: Side;
  chosen: number;
  /** Stitches of the widest round of both ladders: they are drawn to one measure. */
  widest: number;
  /** Whether a cut there would need nothing between. */
  fits: (round: number) => boolean;
  onChoose: (round: number) => void;
}) {
  const id = useId().replaceAll(":", "");
  const dragging = useRef(false);
  const at = ports.findIndex((p) => p.round === chosen);
  const go = (to: number) => {
    const port = ports[Math.min(ports.length - 1, Math.max(0, to))];
    if (port) onChoose(port.round);
  };
  const press = (e: KeyboardEvent) => {
    const steps: Record<string, number> = {
      ArrowUp: at + 1,
      ArrowDown: at - 1,
      PageUp: at + 5,
      PageDown: at - 5,
      Home: 0,
      End: ports.length - 1,
    };
    const to = steps[e.key];
    if (to === undefined) return;
    e.preventDefault();
    go(to);
  };
  return (
    <div
      role="listbox"
      tabIndex={0}
      aria-label={label}
      aria-activedescendant={at < 0 ? undefined : `${id}-${chosen}`}
      className="max-h-96 overflow-auto rounded border border-line bg-panel p-2"
      onKeyDown={press}
      onPointerUp={() => {
        dragging.current = false;
      }}
      onPointerLeave={() => {
        dragging.current = false;
      }}
    >
      {[...ports].reverse().map((port) => {
        const stays = side === "below" ? port.round <= chosen : port.round >= chosen;
        const fit = fits(port.round);
        return (
          <div
            key={port.round}
            id={`${id}-${port.round}`}
            role="option"
            tabIndex={-1}
            aria-selected={port.round === chosen}
            className={`flex cursor-row-resize items-center gap-2 rounded px-1 ${port.round === chosen ? "bg-woad-ground" : ""}`}
            onPointerDown={(e) => {
              (e.target as Element).releasePointerCapture?.(e.pointerId);
              dragging.current = true;
              onChoose(port.round);
            }}
            onPointerEnter={() => dragging.current && onChoose(port.round)}
          >
            <span className="w-9 text-right text-sm text-soft">R{port.round}</span>
            <svg viewBox={`0 0 ${WIDE} ${TALL}`} className="h-3 w-44 shrink-0" aria-hidden="true">
              <rect
                x={(WIDE - (port.count / widest) * WIDE) / 2}
                width={(port.count / widest) * WIDE}
                y="1"
                height={TALL - 2}
                rx="2"
                fill={stays ? (fit ? "var(--moss)" : "var(--woad)") : "none"}
                stroke={fit ? "var(--moss)" : "var(--strong-line)"}
                strokeDasharray={stays ? undefined : "3 2"}
              />
            </svg>
            <span className="text-sm">
              {port.count}
              <span className="sr-only"> stitches</span>
              {fit && <span className="text-moss"> fits</span>}
            </span>
          </div>
        );
      })}
    </div>
  );
}
