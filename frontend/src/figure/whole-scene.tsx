/** All pieces of a design in one scene, each in its place, with eyes, face, and lines to place them by. */
import { type DragEvent, useCallback, useEffect, useMemo, useState } from "react";
import {
  Box3,
  BufferAttribute,
  BufferGeometry,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Quaternion,
  Vector3,
} from "three";
import { type Grabbed, Handles, useHolding, useStill } from "./by-hand";
import { Marks } from "./marks";
import { Relief } from "./relief";
import { givenWay, type Settled, stitchAt, stitchBeside, stitchName } from "./settled";
import Stage from "./stage";
import { Stitches } from "./stitches";
import { type Turned, turnedMatrix } from "./turned";
import type { Scene } from "./types";

export type Picked = { part: string; stitch: number; settled: Settled };

type Pointed = { part: string; stitch: number };

/** A placed piece moved by hand. step: the one that places it; mirrored: it is the second of a pair. */
export type Moved = { step: string; part: string; mirrored: boolean; picked: Picked | null };

type Props = {
  scene: Scene;
  label: string;
  settled: ReadonlyMap<string, Settled>;
  palette: Record<string, string>;
  names: Record<string, string>;
  lines?: boolean;
  /** What the next click places, in words. */
  aim?: string | null;
  /** Parts that are put off. */
  without?: ReadonlySet<string>;
  /** The part that keys walk on. */
  active?: string | null;
  onPick?: (picked: Picked) => void;
  /** The kind of thing that can be dropped on the figure, and what happens when one is. */
  takes?: string;
  onDropped?: (what: string, picked: Picked | null) => void;
  /** As a left-hander makes it. */
  mirrored?: boolean;
  /** Pieces can be dragged to another stitch; one that is clicked is chosen, and tilts and turns by its handles. */
  byHand?: {
    chosen: { step: string; host: string } | null;
    onChosen: (step: string) => void;
    onMoved: (moved: Moved) => void;
    onTurned: (step: string, by: Turned) => void;
  };
};

export default function WholeScene(of: Props) {
  const { scene, label, settled, names, aim = null, mirrored = false } = of;
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [turning, setTurning] = useState<Turned | null>(null);
  const still = usePieces(scene, of.without);
  const pieces = useTurned(still, of.byHand?.chosen ?? null, turning);
  const middle = useMiddle(still, settled, mirrored);
  const onKey = useWalking(of, pieces, pointed, setPointed);
  const said = pointed && settled.get(pointed.part);
  const drop = useDropping(of, pointed, setPointed);
  const hand = useHand(of, pointed);
  return (
    <div className={`flex h-full flex-col ${drop.over ? "outline-2 outline-woad" : ""}`} {...drop.handlers}>
      <div className="min-h-0 flex-1">
        <Stage
          box={{ width: scene.width_mm, depth: scene.depth_mm, height: scene.height_mm, middle }}
          label={label}
          from="front"
          help="Arrow keys turn it; F, B, S and T look from front, back, side and top, Q from between front and side; comma and full stop walk along a round, brackets between rounds; Enter places what is aimed."
          onKey={onKey}
        >
          <group scale={[mirrored ? -1 : 1, 1, 1]}>
            {pieces.map((piece, i) => (
              <PlacedPiece
                key={i}
                {...of}
                piece={piece}
                pointed={pointed}
                onPoint={setPointed}
                held={hand.held?.piece === i && hand.held.far}
                onGrab={aim === null ? hand.grabbing(i, piece) : undefined}
              />
            ))}
            <Still still={hand.held !== null} />
            <ChosenHandles {...of} pieces={pieces} onTurning={setTurning} />
          </group>
        </Stage>
      </div>
      <p className="min-h-7 border-t border-line px-3 py-1 text-sm" aria-live="polite" data-testid="pointed">
        {aim && <strong className="font-semibold">{aim} </strong>}
        {hand.held?.far && (
          <strong className="font-semibold">
            {names[hand.held.part] ?? "The part"}: let go where it is to sit; Escape leaves it.{" "}
          </strong>
        )}
        {turning && <strong className="font-semibold">{turnedWords(turning)} </strong>}
        {said && pointed
          ? `${names[pointed.part] ?? ""} ${stitchName(said, pointed.stitch)}`
          : !aim && <span className="text-soft">Point at a stitch to have it named.</span>}
      </p>
    </div>
  );
}

const signed = (degrees: number) => `${degrees < 0 ? "−" : "+"}${Math.abs(degrees)}°`;

const turnedWords = ({ tilt, turn }: Turned) =>
  tilt ? `Tilts by ${signed(tilt)}.` : turn ? `Turns by ${signed(turn)}.` : "Drag to tilt or turn it.";

/** A hand on the figure: what it holds, and what happens where it lets go. */
function useHand({ byHand, settled }: Props, pointed: Pointed | null) {
  const { held, grab } = useHolding(
    ({ part, step, mirrored }) => {
      const on = pointed && pointed.part !== part ? settled.get(pointed.part) : undefined;
      byHand?.onMoved({ step, part, mirrored, picked: pointed && on ? { ...pointed, settled: on } : null });
    },
    (step) => byHand?.onChosen(step),
  );
  const grabbing = (i: number, { key, step, mirrored }: Piece) =>
    byHand && step
      ? (at: { x: number; y: number }) => grab({ piece: i, part: key, step, mirrored } satisfies Grabbed, at)
      : undefined;
  return { held, grabbing };
}

function Still({ still }: { still: boolean }) {
  useStill(still);
  return null;
}

/** Handles at the first piece of the chosen step. */
function ChosenHandles({
  byHand,
  scene,
  settled,
  pieces,
  onTurning,
}: Props & { pieces: Piece[]; onTurning: (by: Turned | null) => void }) {
  const chosen = byHand?.chosen;
  const piece = pieces.find((p) => p.step === chosen?.step);
  const own = piece && settled.get(piece.key);
  const host = pieces.find((p) => p.key === chosen?.host);
  const from = useMemo(() => {
    const on = host && settled.get(host.key);
    const middle = new Vector3();
    if (!host || !on) return middle;
    const at = new Vector3();
    for (let i = 0; i < on.stitches; i++) middle.add(at.fromArray(on.x, i * 3).applyMatrix4(host.matrix));
    return middle.divideScalar(Math.max(on.stitches, 1));
  }, [host, settled]);
  if (!byHand || !chosen || !piece || !own) return null;
  return (
    <Handles
      settled={own}
      matrix={piece.matrix}
      from={from}
      reach={Math.max(scene.height_mm, scene.width_mm)}
      onTurning={onTurning}
      onTurned={(by) => byHand.onTurned(chosen.step, by)}
    />
  );
}

function usePieces(scene: Scene, without: ReadonlySet<string> | undefined) {
  return useMemo(
    () =>
      scene.placed
        .filter((p) => !without?.has(p.part))
        .map((p, i, shown) => ({
          key: p.part,
          first: shown.findIndex((q) => q.part === p.part) === i,
          step: p.step ?? null,
          mirrored: shown.findIndex((q) => q.step === p.step && q.part === p.part) !== i,
          estimate: scene.parts[p.part],
          givesWay: p.gives_way,
          seam: p.seam ?? null,
          host: p.host ?? null,
          matrix: new Matrix4().fromArray(p.matrix).transpose(),
        })),
    [scene, without],
  );
}

type Piece = ReturnType<typeof usePieces>[number];

/** The pieces with those of the chosen step where a hand turns them now, and what sits on the first of these with it. */
function useTurned(
  pieces: Piece[],
  chosen: { step: string; host: string } | null,
  by: Turned | null,
): Piece[] {
  return useMemo(() => {
    const host = pieces.find((p) => p.key === chosen?.host)?.matrix;
    const first = pieces.find((p) => p.step && p.step === chosen?.step);
    if (!by || !chosen || !host || !first) return pieces;
    const turned = (p: Piece) => turnedMatrix(p.matrix, host, p.seam, by, p.mirrored);
    const along = turned(first).multiply(first.matrix.clone().invert());
    const carried = new Set([first.key]);
    for (let more = true; more; ) {
      const found = pieces.filter((p) => p.host && carried.has(p.host) && !carried.has(p.key));
      for (const p of found) carried.add(p.key);
      more = found.length > 0;
    }
    return pieces.map((p) => {
      if (p.step === chosen.step) return { ...p, matrix: turned(p) };
      return p.host && carried.has(p.host) ? { ...p, matrix: along.clone().multiply(p.matrix) } : p;
    });
  }, [pieces, chosen, by]);
}

/** The middle of everything that is shown. */
function useMiddle(pieces: Piece[], settled: Props["settled"], mirrored: boolean) {
  return useMemo(() => {
    const box = new Box3();
    const at = new Vector3();
    for (const { key, estimate, matrix } of pieces) {
      const x = settled.get(key)?.x;
      if (x)
        for (let i = 0; i < x.length; i += 9)
          box.expandByPoint(at.fromArray(x, i).clone().applyMatrix4(matrix));
      else
        for (const r of estimate?.rounds ?? [])
          for (const [dx, dy] of [
            [r.radius, 0],
            [-r.radius, 0],
            [0, r.radius],
            [0, -r.radius],
          ] as const)
            box.expandByPoint(at.set(dx, dy, r.z).applyMatrix4(matrix));
    }
    const { x, y, z } = box.getCenter(new Vector3());
    return [mirrored ? -x : x, y, z] as [number, number, number];
  }, [pieces, settled, mirrored]);
}

/** Keys walk from stitch to stitch on a part, and place what is aimed. */
function useWalking(
  { settled, active, onPick }: Props,
  pieces: Piece[],
  pointed: Pointed | null,
  onPoint: (to: Pointed) => void,
) {
  const walk = pointed?.part ?? active ?? pieces[0]?.key ?? null;
  return useCallback(
    (key: string) => {
      const on = walk === null ? undefined : settled.get(walk);
      if (!on || walk === null) return false;
      if (key === "Enter" && pointed) {
        onPick?.({ ...pointed, settled: on });
        return true;
      }
      const by = { ",": [-1, 0], ".": [1, 0], "[": [0, -1], "]": [0, 1] }[key];
      if (!by) return false;
      const now = pointed?.part === walk ? pointed.stitch : null;
      const start = stitchAt(on, Math.floor(on.labels.length / 2), 1) ?? 0;
      onPoint({ part: walk, stitch: now === null ? start : stitchBeside(on, now, by[0] ?? 0, by[1] ?? 0) });
      return true;
    },
    [walk, pointed, settled, onPick, onPoint],
  );
}

/** What is dragged over the figure points at the stitch below it; dropped, it is told with that stitch. */
function useDropping(
  { settled, takes, onDropped }: Props,
  pointed: Pointed | null,
  onPoint: (to: Pointed | null) => void,
) {
  const [over, setOver] = useState(false);
  if (!takes || !onDropped) return { over: false, handlers: {} };
  const wanted = (e: DragEvent<HTMLElement>) => e.dataTransfer.types.includes(takes);
  const handlers = {
    onDragOver: (e: DragEvent<HTMLElement>) => {
      if (!wanted(e)) return;
      e.preventDefault();
      setOver(true);
      const { clientX, clientY } = e;
      const moved = new PointerEvent("pointermove", { clientX, clientY, bubbles: true });
      e.currentTarget.querySelector("canvas")?.dispatchEvent(moved);
    },
    onDragLeave: (e: DragEvent<HTMLElement>) => {
      if (e.currentTarget.contains(e.relatedTarget as Node | null)) return;
      setOver(false);
      onPoint(null);
    },
    onDrop: (e: DragEvent<HTMLElement>) => {
      if (!wanted(e)) return;
      e.preventDefault();
      setOver(false);
      const on = pointed && settled.get(pointed.part);
      onDropped(e.dataTransfer.getData(takes), pointed && on ? { ...pointed, settled: on } : null);
    },
  };
  return { over, handlers };
}

/** A part where it sits; eyes, marks and lines are drawn on its first piece. */
function PlacedPiece({
  scene,
  settled,
  palette,
  lines = false,
  onPick,
  piece: { key, first, estimate, givesWay, matrix },
  pointed,
  onPoint,
  held,
  onGrab,
}: Props & {
  piece: Piece;
  pointed: Pointed | null;
  onPoint: (to: Pointed) => void;
  held: boolean;
  onGrab?: (at: { x: number; y: number }) => void;
}) {
  const rest = settled.get(key);
  const own = useMemo(() => rest && givenWay(rest, givesWay), [rest, givesWay]);
  return (
    <group matrixAutoUpdate={false} matrix={matrix}>
      {own ? (
        <Relief
          settled={own}
          palette={palette}
          travels={false}
          ghost={held}
          onGrab={onGrab}
          pointed={pointed?.part === key ? pointed.stitch : null}
          onPoint={(stitch) => onPoint({ part: key, stitch })}
          onPick={onPick ? (stitch) => onPick({ part: key, stitch, settled: own }) : undefined}
        />
      ) : (
        estimate && <Stitches part={estimate} />
      )}
      {first && scene.eyes?.part === key && <EyePair eyes={scene.eyes} />}
      {first && <Marks marks={scene.marks.filter((m) => m.part === key)} />}
      {first && lines && scene.centre[key] && <CentreLines centre={scene.centre[key]} />}
    </group>
  );
}

const OUTWARD = new Vector3(0, 0, 1);

function EyePair({ eyes }: { eyes: NonNullable<Scene["eyes"]> }) {
  return eyes.points.map((at, i) => {
    const turn = new Quaternion().setFromUnitVectors(
      OUTWARD,
      new Vector3(...(eyes.out[i] ?? [0, -1, 0])).normalize(),
    );
    const r = eyes.eye_mm / 2;
    return (
      <mesh key={i} position={at} quaternion={turn} scale={[r, r, r * 0.62]} renderOrder={1}>
        <sphereGeometry args={[1, 20, 14]} />
        <meshPhongMaterial color="#17120f" shininess={90} specular="#8a8178" />
      </mesh>
    );
  });
}

type Spot = [number, number, number];
/** How much longer than most a step along a line may be; beyond, the rounds go on somewhere else. */
const BREAK = 4;

/** The steps of a line from round to round, without those that jump to another tube or across a short row. */
export function unbroken(points: readonly Spot[]): [Spot, Spot][] {
  const steps = points.slice(1).map((p, i): [Spot, Spot] => [points[i] ?? p, p]);
  const long = ([a, b]: [Spot, Spot]) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  const usual = steps.map(long).sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
  return steps.filter((step) => long(step) <= BREAK * usual);
}

/** The front middle, and where the rounds start. */
function CentreLines({ centre }: { centre: Scene["centre"][string] }) {
  const lines = useMemo(() => {
    const of = (points: Spot[], colour: string) => {
      const flat = unbroken(points).flat(2);
      const made = new BufferGeometry();
      made.setAttribute("position", new BufferAttribute(new Float32Array(flat), 3));
      return new LineSegments(made, new LineBasicMaterial({ color: colour, depthTest: false }));
    };
    return [of(centre.front as Spot[], "#3f86b3"), of(centre.starts as Spot[], "#b5453f")];
  }, [centre]);
  useEffect(
    () => () => {
      for (const line of lines) line.geometry.dispose();
    },
    [lines],
  );
  return lines.map((line, i) => <primitive key={i} object={line} renderOrder={2} />);
}
