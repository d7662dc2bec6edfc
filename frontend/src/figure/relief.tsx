/** A settled part, drawn in one call: every stitch in its place, with the fabric behind it. */
import { useThree } from "@react-three/fiber";
import { type RefObject, useLayoutEffect, useRef } from "react";
import { Color, DoubleSide, InstancedMesh, Matrix4, type Plane } from "three";
import { between, placeStitch, type Settled } from "./settled";
import { stitchShape } from "./stitch-shape";
import { LIT } from "./stitches";

const UNNAMED = "#b99c6b";
const POINTED = new Color("#d98a2b");
const CALM = new Color("#77834b");
const TIGHT = new Color("#b5453f");
const SLACK = new Color("#4b6a83");
/** Millimetres off the target at which the colour is full. */
const ABOUT_A_STITCH = 5;
const TRAVEL = 700;
const MOST_MOVING = 4000;

/** Colour of a strain in thousandths: moss at rest, madder where it is pulled, woad where it is pushed. */
export function strainColour(thousandths: number): Color {
  const share = Math.max(-1, Math.min(1, thousandths / 150));
  return share >= 0 ? CALM.clone().lerp(TIGHT, share) : CALM.clone().lerp(SLACK, -share);
}

export type Showing = { stretch: boolean; section: boolean; distance?: boolean };

export function Relief({
  settled,
  palette,
  lit = null,
  pointed = null,
  showing = PLAIN,
  cut,
  travels = true,
  ghost = false,
  onPoint,
  onPick,
  onGrab,
}: {
  settled: Settled;
  palette: Record<string, string>;
  lit?: number | null;
  pointed?: number | null;
  showing?: Showing;
  cut?: Plane[];
  travels?: boolean;
  /** It is held in a hand: seen through, and nothing points at it. */
  ghost?: boolean;
  onPoint?: (stitch: number) => void;
  onPick?: (stitch: number) => void;
  onGrab?: (at: { x: number; y: number }) => void;
}) {
  const mesh = useRef<InstancedMesh>(null);
  const invalidate = useThree((s) => s.invalidate);
  useLaid(mesh, settled, travels);
  useColours(mesh, { settled, palette, lit, pointed, showing });
  useLayoutEffect(() => {
    if (mesh.current) mesh.current.raycast = ghost ? () => {} : InstancedMesh.prototype.raycast;
    invalidate();
  }, [ghost, invalidate]);
  const planes = showing.section ? cut : undefined;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a mesh of the scene, no element; keys walk to it, see the stage
    <instancedMesh
      key={settled.stitches}
      ref={mesh}
      args={[stitchShape(settled.stitches), undefined, settled.stitches]}
      onPointerMove={
        onPoint
          ? (e) => {
              e.stopPropagation();
              if (e.instanceId !== undefined) onPoint(e.instanceId);
            }
          : undefined
      }
      onPointerDown={
        onGrab
          ? (e) => {
              if (e.button !== 0) return;
              e.stopPropagation();
              onGrab({ x: e.nativeEvent.clientX, y: e.nativeEvent.clientY });
            }
          : undefined
      }
      onClick={
        onPick
          ? (e) => {
              e.stopPropagation();
              if (e.instanceId !== undefined && e.delta < 4) onPick(e.instanceId);
            }
          : undefined
      }
    >
      <meshLambertMaterial
        vertexColors
        side={DoubleSide}
        clippingPlanes={planes ?? null}
        transparent={ghost}
        opacity={ghost ? 0.4 : 1}
      />
    </instancedMesh>
  );
}

/** Every stitch in its place: at once, or on its way there from the start. */
function useLaid(mesh: RefObject<InstancedMesh | null>, settled: Settled, travels: boolean) {
  const invalidate = useThree((s) => s.invalidate);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    const matrix = new Matrix4();
    const lay = (x: Float32Array) => {
      for (let i = 0; i < settled.stitches; i++) {
        placeStitch(settled, x, i, matrix);
        m.setMatrixAt(i, matrix);
      }
      m.instanceMatrix.needsUpdate = true;
      invalidate();
    };
    const still = !travels || settled.stitches > MOST_MOVING || prefersStill();
    if (still) {
      lay(settled.x);
      m.computeBoundingSphere();
      return;
    }
    let frame = 0;
    const begin = performance.now();
    const step = (now: number) => {
      const share = Math.min((now - begin) / TRAVEL, 1);
      lay(between(settled, share));
      if (share < 1) frame = requestAnimationFrame(step);
      else m.computeBoundingSphere();
    };
    lay(between(settled, 0));
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [mesh, settled, travels, invalidate]);
}

type Coloured = {
  settled: Settled;
  palette: Record<string, string>;
  lit: number | null;
  pointed: number | null;
  showing: Showing;
};

/** Every stitch in its yarn's colour, or in that of its strain or its distance; what is pointed at and what is lit stand out. */
function useColours(
  mesh: RefObject<InstancedMesh | null>,
  { settled, palette, lit, pointed, showing }: Coloured,
) {
  const invalidate = useThree((s) => s.invalidate);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    const main = palette.Main ?? UNNAMED;
    const colours = settled.colours.map((name) => new Color(palette[name] ?? main));
    for (let i = 0; i < settled.stitches; i++) {
      const own = showing.distance
        ? strainColour(((settled.off?.[i] ?? 0) / 100 / ABOUT_A_STITCH) * 150)
        : showing.stretch
          ? strainColour(settled.stretch[i] ?? 0)
          : (colours[settled.colour[i] ?? 0] ?? new Color(main));
      m.setColorAt(i, i === pointed ? POINTED : settled.round[i] === lit && lit !== null ? LIT : own);
    }
    if (m.instanceColor) m.instanceColor.needsUpdate = true;
    invalidate();
  }, [mesh, settled, palette, lit, pointed, showing.stretch, showing.distance, invalidate]);
}

const PLAIN: Showing = { stretch: false, section: false };

function prefersStill(): boolean {
  return window.matchMedia?.("(prefers-reduced-motion: reduce)").matches ?? false;
}
