/** Figures for the screens: a single part, or the whole in one scene. Loaded apart, with a flat picture as fallback. */
import { type ComponentProps, lazy, memo, type ReactNode, Suspense, useEffect, useState } from "react";
import type { Settled } from "./settled";
import type { FigurePart } from "./types";
import type { Settling } from "./use-settled";

const PartScene = lazy(() => import("./part-scene"));
const SettledScene = lazy(() => import("./settled-scene"));
const WholeScene = lazy(() => import("./whole-scene"));

/** Whether this browser can draw in 3D. */
export function canDraw(): boolean {
  try {
    const canvas = document.createElement("canvas");
    return Boolean(canvas.getContext("webgl2"));
  } catch {
    return false;
  }
}

function Waiting() {
  return (
    <p className="grid h-full place-items-center text-soft" role="status">
      Drawing …
    </p>
  );
}

function Shown({ flat, children }: { flat: ReactNode; children: ReactNode }) {
  const [able] = useState(canDraw);
  return able ? <Suspense fallback={<Waiting />}>{children}</Suspense> : flat;
}

export const PartFigure = memo(function PartFigure({
  part,
  label,
  lit,
  onLit,
  flat,
  settling,
  palette = {},
  target,
  overlay,
  leftHanded = false,
}: {
  part: FigurePart;
  label: string;
  lit?: number | null;
  onLit?: (round: number | null) => void;
  flat: () => Promise<string>;
  settling?: Settling;
  palette?: Record<string, string>;
  target?: [number, number][];
  /** Another version of the part, shown as a net. */
  overlay?: Settled | null;
  leftHanded?: boolean;
}) {
  if (!part.rounds.length)
    return (
      <p className="grid h-full place-items-center p-4 text-soft">The figure appears with the first round.</p>
    );
  return (
    <Shown flat={<Flat ask={flat} label={label} />}>
      {settling?.settled ? (
        <SettledScene
          settled={settling.settled}
          before={settling.before}
          palette={palette}
          label={label}
          lit={lit}
          onLit={onLit}
          target={target}
          overlay={overlay}
          leftHanded={leftHanded}
        />
      ) : (
        <PartScene
          part={part}
          label={label}
          lit={lit}
          onLit={onLit}
          mirrored={leftHanded !== part.inside_out}
        />
      )}
    </Shown>
  );
});

/** A figure that is settled already. */
export function SettledFigure(shown: ComponentProps<typeof SettledScene>) {
  const none = <p className="grid h-full place-items-center p-4 text-soft">No 3D is shown on this device.</p>;
  return (
    <Shown flat={none}>
      <SettledScene {...shown} />
    </Shown>
  );
}

export function WholeFigure({ picture, ...shown }: ComponentProps<typeof WholeScene> & { picture: string }) {
  if (!shown.scene.placed.length)
    return (
      <p className="grid h-full place-items-center p-4 text-soft">The figure appears with the first part.</p>
    );
  return (
    <Shown flat={<img src={picture} alt={shown.label} className="h-full w-full object-contain" />}>
      <WholeScene {...shown} />
    </Shown>
  );
}

/** The craft's own picture, where there is no 3D. */
function Flat({ ask, label }: { ask: () => Promise<string>; label: string }) {
  const [url, setUrl] = useState("");
  useEffect(() => {
    let made = "";
    let gone = false;
    ask()
      .then((svg) => {
        if (gone) return;
        made = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
        setUrl(made);
      })
      .catch(() => setUrl(""));
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [ask]);
  return url ? <img src={url} alt={label} className="h-full w-full object-contain" /> : <Waiting />;
}
