/** A placed piece moved on the figure by hand: dragged to another stitch, tilted and turned by its handles. */
import { type ThreeEvent, useThree } from "@react-three/fiber";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Intersection, type Matrix4, Mesh, type Raycaster, Vector3 } from "three";
import type { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Settled } from "./settled";
import type { Turned } from "./turned";

/** A piece by its place in the scene. mirrored: it is the second of a pair. */
export type Grabbed = { piece: number; part: string; step: string; mirrored: boolean };

type Held = Grabbed & { far: boolean };

/** Pixels that a hand may tremble before it drags. */
const TREMBLE = 6;

/** What is held, and what to call when a piece is taken hold of. Let go far away it is dropped, at once it is chosen; Escape leaves it. */
export function useHolding(onDropped: (held: Grabbed) => void, onChosen: (step: string) => void) {
  const [held, setHeld] = useState<Held | null>(null);
  const latest = useRef({ onDropped, onChosen });
  latest.current = { onDropped, onChosen };
  const grab = useCallback((what: Grabbed, at: { x: number; y: number }) => {
    let now: Held = { ...what, far: false };
    setHeld(now);
    const done = () => {
      window.removeEventListener("pointermove", onMove);
      window.removeEventListener("pointerup", onUp);
      window.removeEventListener("pointercancel", done);
      window.removeEventListener("keydown", onKey, true);
      setHeld(null);
    };
    const onMove = (e: PointerEvent) => {
      if (now.far || Math.hypot(e.clientX - at.x, e.clientY - at.y) < TREMBLE) return;
      now = { ...now, far: true };
      setHeld(now);
    };
    const onUp = () => {
      if (now.far) latest.current.onDropped(what);
      else latest.current.onChosen(what.step);
      done();
    };
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== "Escape") return;
      e.stopPropagation();
      done();
    };
    window.addEventListener("pointermove", onMove);
    window.addEventListener("pointerup", onUp);
    window.addEventListener("pointercancel", done);
    window.addEventListener("keydown", onKey, true);
  }, []);
  return { held, grab };
}

/** Keeps the stage still while a hand is on a piece. */
export function useStill(still: boolean) {
  const controls = useThree((s) => s.controls) as OrbitControls | null;
  useEffect(() => {
    if (!controls || !still) return;
    controls.enabled = false;
    return () => {
      controls.enabled = true;
    };
  }, [controls, still]);
}

/** Degrees for each pixel that a handle is dragged, and what they snap to. */
const DEGREES = 0.6;
const SNAP = 5;

const snapped = (pixels: number) => Math.round((pixels * DEGREES) / SNAP) * SNAP || 0;

/** Two handles at the free end of a piece: up and down tilts it, left and right turns it. */
export function Handles({
  settled,
  matrix,
  from,
  reach,
  onTurning,
  onTurned,
}: {
  settled: Settled;
  matrix: Matrix4;
  /** The middle of what it sits on. */
  from: Vector3;
  /** Size of the figure in mm. */
  reach: number;
  onTurning: (by: Turned | null) => void;
  onTurned: (by: Turned) => void;
}) {
  const [on, setOn] = useState<"tilt" | "turn" | null>(null);
  useStill(on !== null);
  const invalidate = useThree((s) => s.invalidate);
  const [tip, beside] = useMemo(() => ends(settled, matrix, from), [settled, matrix, from]);
  const r = Math.max(reach * 0.022, 2);
  useEffect(() => invalidate(), [invalidate]);
  const begin = (kind: "tilt" | "turn") => (e: ThreeEvent<PointerEvent>) => {
    e.stopPropagation();
    const start = e.nativeEvent;
    const by = (at: PointerEvent): Turned =>
      kind === "tilt"
        ? { tilt: snapped(start.clientY - at.clientY), turn: 0 }
        : { tilt: 0, turn: snapped(at.clientX - start.clientX) };
    const onMove = (at: PointerEvent) => onTurning(by(at));
    const onUp = (at: PointerEvent) => {
      window.removeEventListener("pointermove", onMove);
      window.removeEventListener("pointerup", onUp);
      setOn(null);
      onTurning(null);
      const found = by(at);
      if (found.tilt || found.turn) onTurned(found);
    };
    setOn(kind);
    window.addEventListener("pointermove", onMove);
    window.addEventListener("pointerup", onUp);
  };
  return (
    <>
      <mesh position={tip} onPointerDown={begin("tilt")} renderOrder={3} raycast={inFront}>
        <sphereGeometry args={[r, 16, 12]} />
        <meshBasicMaterial
          color={on === "tilt" ? "#d98a2b" : "#3f86b3"}
          depthTest={false}
          transparent
          opacity={0.9}
        />
      </mesh>
      <mesh position={beside} onPointerDown={begin("turn")} renderOrder={3} raycast={inFront}>
        <octahedronGeometry args={[r * 1.2]} />
        <meshBasicMaterial
          color={on === "turn" ? "#d98a2b" : "#b5453f"}
          depthTest={false}
          transparent
          opacity={0.9}
        />
      </mesh>
    </>
  );
}

/** A handle is seen through everything, so it is taken hold of before anything. */
function inFront(this: Mesh, ray: Raycaster, hits: Intersection[]) {
  const own: Intersection[] = [];
  Mesh.prototype.raycast.call(this, ray, own);
  for (const hit of own) hits.push({ ...hit, distance: 0 });
}

/** Where the handles of a piece are: beyond the stitch furthest from what it sits on, and beside that. */
function ends(settled: Settled, matrix: Matrix4, from: Vector3): [Vector3, Vector3] {
  const at = new Vector3();
  const tip = from.clone();
  const middle = new Vector3();
  let most = -1;
  for (let i = 0; i < settled.stitches; i++) {
    at.fromArray(settled.x, i * 3).applyMatrix4(matrix);
    middle.add(at);
    const far = at.distanceToSquared(from);
    if (far > most) {
      most = far;
      tip.copy(at);
    }
  }
  middle.divideScalar(Math.max(settled.stitches, 1));
  const out = tip.clone().sub(middle);
  const long = Math.max(out.length(), 4);
  out.normalize();
  const side = new Vector3().crossVectors(out, new Vector3(0, -1, 0));
  if (side.lengthSq() < 0.01) side.set(1, 0, 0);
  side.normalize();
  return [
    tip.clone().addScaledVector(out, Math.min(long * 0.25, 8)),
    middle
      .clone()
      .addScaledVector(out, long * 0.7)
      .addScaledVector(side, long * 0.9),
  ];
}
