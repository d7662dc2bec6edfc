/** The stage: camera, light, turning by mouse and keys. Drawn only when something changes. */
import { Canvas, useThree } from "@react-three/fiber";
import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { PerspectiveCamera, Vector3 } from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { Button } from "../ui/controls";

export type Box = { width: number; depth: number; height: number; middle?: [number, number, number] };
export type Side = "front" | "back" | "left" | "three-quarter" | "top";

/** Straight from where they say: what is in the middle of the front view lies on the front middle. */
const FROM: Record<Side, [number, number, number]> = {
  front: [0, -1, 0],
  back: [0, 1, 0],
  left: [-1, 0, 0],
  "three-quarter": [-0.35, -1, 0.28],
  top: [0, -0.02, 1],
};

const FIELD = 32;
/** Room around the figure, as a share of it. */
const ROOM = 1.1;

/** How long a figure is along a slant, by its shares of both sides: between a ball's length and a drum's. */
const between = (a: number, b: number) => (Math.hypot(a, b) + a + b) / 2;

/** How far away the whole figure is in sight, from a side and in a stage of so much width to its height. */
export function distance({ width, depth, height }: Box, side: Side, aspect: number): number {
  const [x, y, z] = new Vector3(...FROM["three-quarter"]).normalize().toArray();
  const level = Math.hypot(x, y);
  // What is round lies in an ellipse, and not in its box.
  const aslant = Math.hypot((width * x) / level, (depth * y) / level);
  const [wide, tall, deep] = {
    front: [width, height, depth],
    back: [width, height, depth],
    left: [depth, height, width],
    top: [width, depth, height],
    "three-quarter": [
      Math.hypot((width * y) / level, (depth * x) / level),
      between(height * level, aslant * z),
      between(aslant * level, height * z),
    ],
  }[side] as [number, number, number];
  const share = Math.tan(((FIELD / 2) * Math.PI) / 180);
  return (ROOM * Math.max(tall, wide / aspect, 1)) / (2 * share) + deep / 2;
}

function Camera({ box, side, turn }: { box: Box; side: Side; turn: { x: number; y: number } }) {
  const { camera, gl, invalidate, set } = useThree();
  const aspect = useThree((s) => s.size.width / Math.max(s.size.height, 1));
  const controls = useMemo(() => new OrbitControls(camera, gl.domElement), [camera, gl]);
  const middle = box.middle ?? [0, 0, box.height / 2];
  const [x, y, z] = middle;
  const { width, depth, height } = box;
  const far = distance({ width, depth, height }, side, Math.max(aspect, 0.1));
  useEffect(() => {
    controls.enableDamping = false;
    controls.addEventListener("change", () => invalidate());
    set({ controls });
    return () => controls.dispose();
  }, [controls, invalidate, set]);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    const way = new Vector3(...FROM[side]).normalize().multiplyScalar(far);
    camera.position.set(x, y, z).add(way);
    if (camera instanceof PerspectiveCamera) {
      camera.near = far / 100;
      camera.far = far * 10;
      camera.updateProjectionMatrix();
    }
    controls.target.set(x, y, z);
    controls.update();
    invalidate();
  }, [camera, controls, invalidate, side, far, x, y, z]);
  useEffect(() => {
    if (!turn.x && !turn.y) return;
    const away = camera.position.clone().sub(controls.target);
    const flat = Math.atan2(away.y, away.x) + turn.x;
    const high = Math.max(-1.5, Math.min(1.5, Math.asin(away.z / away.length()) + turn.y));
    const length = away.length();
    camera.position
      .set(
        Math.cos(flat) * Math.cos(high) * length,
        Math.sin(flat) * Math.cos(high) * length,
        Math.sin(high) * length,
      )
      .add(controls.target);
    controls.update();
    invalidate();
  }, [turn, camera, controls, invalidate]);
  return null;
}

/** Tells the page when the first frame has been drawn. */
function Drawn({ onDrawn }: { onDrawn: () => void }) {
  const { gl, scene, camera } = useThree();
  useEffect(() => {
    gl.render(scene, camera);
    onDrawn();
  }, [gl, scene, camera, onDrawn]);
  return null;
}

const SIDE_KEYS: Record<string, Side> = { f: "front", b: "back", s: "left", t: "top", q: "three-quarter" };

export default function Stage({
  box,
  label,
  from = "three-quarter",
  help = "Arrow keys turn it; F, B, S and T look from front, back, side and top, Q from between front and side.",
  onKey,
  children,
}: {
  box: Box;
  label: string;
  /** Where it is looked at from at first. */
  from?: Side;
  help?: string;
  /** Keys that the figure itself does not use; true when one was taken. */
  onKey?: (key: string) => boolean;
  children: ReactNode;
}) {
  const [side, setSide] = useState<Side>(from);
  const [turn, setTurn] = useState({ x: 0, y: 0 });
  const [drawn, setDrawn] = useState(false);
  const tell = useRef(() => setDrawn(true));
  return (
    <div className="relative h-full min-h-40">
      <div
        className="absolute inset-x-0 top-0 bottom-9 rounded"
        role="img"
        aria-label={`${label}. ${help}`}
        tabIndex={0}
        data-testid="figure"
        data-drawn={drawn}
        onKeyDown={(e) => {
          const by = {
            ArrowLeft: [-0.2, 0],
            ArrowRight: [0.2, 0],
            ArrowUp: [0, 0.15],
            ArrowDown: [0, -0.15],
          }[e.key];
          if (e.ctrlKey || e.metaKey || e.altKey) return;
          const other = SIDE_KEYS[e.key.toLowerCase()];
          if (other) setSide(other);
          if (other || onKey?.(e.key)) {
            e.preventDefault();
            return;
          }
          if (!by) return;
          e.preventDefault();
          setTurn({ x: by[0] ?? 0, y: by[1] ?? 0 });
        }}
      >
        <Canvas
          frameloop="demand"
          dpr={1}
          gl={{ antialias: false, powerPreference: "low-power" }}
          camera={{ fov: FIELD }}
          flat
          onCreated={({ gl }) => {
            gl.localClippingEnabled = true;
          }}
        >
          <hemisphereLight args={["#fffaf0", "#8d7d6b", 2.3]} />
          <directionalLight position={[-120, -200, 220]} intensity={2.2} />
          <directionalLight position={[200, 120, 60]} intensity={0.6} />
          <Camera box={box} side={side} turn={turn} />
          {children}
          <Drawn onDrawn={tell.current} />
        </Canvas>
      </div>
      <div className="absolute bottom-1 left-1 flex gap-1" role="group" aria-label="Look from">
        {(["front", "left", "back", "top", "three-quarter"] as const).map((s) => (
          <Button
            key={s}
            weight="quiet"
            className="bg-panel/80 px-2 py-0.5 text-sm"
            aria-pressed={side === s}
            aria-label={s}
            onClick={() => setSide(s)}
          >
            {s === "three-quarter" ? "¾" : s}
          </Button>
        ))}
      </div>
    </div>
  );
}
