/** A reference picture with the parts drawn on it as boxes: drag to draw one. */
import { type PointerEvent, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import type { Planned } from "./plan";

type Picture = Schemas["PictureOut"];
export type Box = NonNullable<Planned["box"]>;

type Drawn = { left: number; top: number; wide: number; tall: number };

/** Share of the picture below which a drag is no box. */
const LEAST = 0.02;

export function PictureBoard({
  picture,
  alt,
  plan,
  onDrawn,
}: {
  picture: Picture;
  alt: string;
  plan: readonly Planned[];
  onDrawn: (box: Box) => void;
}) {
  const board = useRef<HTMLDivElement>(null);
  const [start, setStart] = useState<{ x: number; y: number } | null>(null);
  const [now, setNow] = useState<Drawn | null>(null);
  const at = (e: PointerEvent) => {
    const r = board.current?.getBoundingClientRect();
    const share = (v: number, from: number, size: number) =>
      Math.min(1, Math.max(0, (v - from) / (size || 1)));
    return r
      ? { x: share(e.clientX, r.left, r.width), y: share(e.clientY, r.top, r.height) }
      : { x: 0, y: 0 };
  };
  const end = () => {
    if (now && now.wide > LEAST && now.tall > LEAST) onDrawn({ picture: picture.id, ...now });
    setStart(null);
    setNow(null);
  };
  return (
    <div
      ref={board}
      className="relative cursor-crosshair touch-pan-y select-none"
      onPointerDown={(e) => {
        // A finger scrolls the page; a mouse or a pen draws.
        if (e.button !== 0 || e.pointerType === "touch") return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setStart(at(e));
      }}
      onPointerMove={(e) => start && setNow(between(start, at(e)))}
      onPointerUp={end}
      onPointerCancel={() => {
        setStart(null);
        setNow(null);
      }}
    >
      <img
        src={picture.url}
        width={picture.width}
        height={picture.height}
        alt={alt}
        draggable={false}
        className="h-auto w-full rounded-md border border-line"
      />
      {plan.flatMap((p) =>
        p.box?.picture === picture.id ? [<Outline key={p.key} drawn={p.box} name={p.name} />] : [],
      )}
      {now && <Outline drawn={now} name="" />}
    </div>
  );
}

function Outline({ drawn, name }: { drawn: Drawn; name: string }) {
  const percent = (v: number) => `${v * 100}%`;
  return (
    <span
      className="pointer-events-none absolute border-2 border-woad bg-woad-ground/30"
      style={{
        left: percent(drawn.left),
        top: percent(drawn.top),
        width: percent(drawn.wide),
        height: percent(drawn.tall),
      }}
    >
      {name && <span className="absolute -top-0.5 left-0 bg-panel/90 px-1 text-sm">{name}</span>}
    </span>
  );
}

/** The box between two corners. */
export function between(a: { x: number; y: number }, b: { x: number; y: number }): Drawn {
  return {
    left: Math.min(a.x, b.x),
    top: Math.min(a.y, b.y),
    wide: Math.abs(a.x - b.x),
    tall: Math.abs(a.y - b.y),
  };
}

/** Millimetres of a box: all boxes of a picture together are as tall as the figure is wished to be. */
export function sizeOf(box: Box, all: readonly Box[], picture: Picture, height_mm: number) {
  const top = Math.min(...all.map((b) => b.top));
  const bottom = Math.max(...all.map((b) => b.top + b.tall));
  const mm = height_mm / ((bottom - top) * picture.height);
  return { wide: box.wide * picture.width * mm, tall: box.tall * picture.height * mm };
}
