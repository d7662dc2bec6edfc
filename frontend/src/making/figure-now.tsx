/** The part as it is now: open at the round that is done, as it settles then; the rest faint. */
import { useEffect, useMemo, useRef } from "react";
import type { OpenStage, Stages } from "./types";

const WIDE = 360;
const TALL = 560;
const MARGIN = 12;
/** Up to so many faces all of what is to come is outlined, beyond a third of it. */
const FEW = 250;
const NONE_OPEN: OpenStage[] = [];

/** A colour with light on it, 0 to 99. */
export function lit(colour: string, shade: number): string {
  const part = (at: number) =>
    Math.round(Number.parseInt(colour.slice(at, at + 2), 16) * (0.35 + (0.65 * shade) / 99));
  return `rgb(${part(1)} ${part(3)} ${part(5)})`;
}

type Box = { left: number; right: number; low: number; high: number };

function boxOf({ corners }: Stages): Box {
  const xs = corners.flatMap((c) => [c[0] ?? 0, c[2] ?? 0]);
  const ys = corners.flatMap((c) => [c[1] ?? 0, c[5] ?? 0]);
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) };
}

/** Pixels of a tenth of a millimetre at which each of these looks has room: a part does not shrink while it grows. */
export function scaleOf(looks: Stages[]): number {
  const boxes = looks.map(boxOf);
  const wide = Math.max(1, ...boxes.map((b) => b.right - b.left));
  const tall = Math.max(1, ...boxes.map((b) => b.high - b.low));
  return Math.min((WIDE - 2 * MARGIN) / wide, (TALL - 2 * MARGIN) / tall);
}

/** The look that is nearest to a part after so many rounds: open at the next round that was settled, else the finished one. */
export function lookAt(finished: Stages, open: OpenStage[], done: number, all: number): Stages {
  if (done >= all) return finished;
  return open.find((stage) => stage.after >= done)?.look ?? finished;
}

/** Draws all faces up to a round; later ones as a faint outline of what is to come. */
export function drawStages(
  draw: CanvasRenderingContext2D,
  stages: Stages,
  done: number,
  all: number,
  scale: number,
): void {
  const { left, right, low, high } = boxOf(stages);
  const x = (v: number) => WIDE / 2 + (v - (left + right) / 2) * scale;
  const y = (v: number) => TALL / 2 - (v - (low + high) / 2) * scale;
  draw.clearRect(0, 0, WIDE, TALL);
  const finished = done >= all;
  const each = stages.corners.length > FEW ? 3 : 1;
  stages.corners.forEach((c, i) => {
    const round = stages.rounds[i] ?? 0;
    const shown = round <= done || (finished && round > all);
    if (!shown && (i % each !== 0 || round > all)) return;
    draw.beginPath();
    for (let k = 0; k < 8; k += 2) draw.lineTo(x(c[k] ?? 0), y(c[k + 1] ?? 0));
    draw.closePath();
    if (shown) {
      draw.globalAlpha = 1;
      draw.fillStyle = lit(stages.colours[stages.fills[i] ?? 0] ?? "#a9744f", stages.shades[i] ?? 80);
      draw.fill();
      draw.lineWidth = 0.6;
      draw.strokeStyle = "rgb(0 0 0 / 22%)";
      draw.stroke();
    } else {
      draw.globalAlpha = 0.18;
      draw.lineWidth = 0.6;
      draw.strokeStyle = getComputedStyle(draw.canvas).color;
      draw.stroke();
    }
  });
  draw.globalAlpha = 1;
}

export function FigureNow({
  stages,
  open = NONE_OPEN,
  done,
  all,
  label,
}: {
  stages: Stages;
  /** The part on its way, fewest rounds first. */
  open?: OpenStage[];
  done: number;
  all: number;
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = lookAt(stages, open, done, all);
  const scale = useMemo(() => scaleOf([stages, ...open.map((o) => o.look)]), [stages, open]);
  useEffect(() => {
    const draw = canvas.current?.getContext("2d");
    if (draw) drawStages(draw, look, done, all, scale);
  }, [look, done, all, scale]);
  return (
    <canvas
      ref={canvas}
      width={WIDE}
      height={TALL}
      role="img"
      data-look={look === stages ? "finished" : "open"}
      aria-label={label}
      className="h-full w-full object-contain text-ink"
    />
  );
}
