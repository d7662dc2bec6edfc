/** A mesh to turn about, with the place where its first round begins: pointed at, or taken from what faces her. */
import { useThree } from "@react-three/fiber";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { BufferAttribute, BufferGeometry, type Camera, Vector3 } from "three";
import { boxOf, type Surface } from "../figure/settled";
import Stage from "../figure/stage";
import { unpackMesh } from "./mesh-data";
import type { Mesh } from "./recipe";

export default function MeshPole({ form, onPole }: { form: Mesh; onPole: (corner: number) => void }) {
  const [surface, setSurface] = useState<Surface | null>(null);
  useEffect(() => {
    let going = true;
    unpackMesh(form)
      .then((found) => going && setSurface(found))
      .catch(() => going && setSurface(null));
    return () => {
      going = false;
    };
  }, [form]);
  const camera = useRef<Camera | null>(null);
  const box = useMemo(() => (surface ? boxOf(surface.x) : null), [surface]);
  const onKey = useCallback(
    (key: string) => {
      if (key.toLowerCase() !== "p" || !surface || !camera.current || !box) return false;
      onPole(facing(surface, camera.current.position, middleOf(box)));
      return true;
    },
    [surface, box, onPole],
  );
  if (!surface || !box) return null;
  const tall = box.high[2] - box.low[2];
  const [x, y, z] = middleOf(box);
  // Room below for the buttons, which would lie over the dot at the foot.
  const middle: [number, number, number] = [x, y, z - 0.12 * tall];
  return (
    <div className="h-64">
      <Stage
        box={{
          width: box.high[0] - box.low[0],
          depth: box.high[1] - box.low[1],
          height: 1.35 * tall,
          middle,
        }}
        label="The mesh; rounds begin at the red dot"
        help="Click where they shall begin. Arrow keys turn it, P begins at what faces you."
        onKey={onKey}
      >
        <Eye of={camera} />
        <Skin surface={surface} pole={form.pole} onPole={onPole} />
      </Stage>
    </div>
  );
}

function middleOf(box: ReturnType<typeof boxOf>): [number, number, number] {
  return [0, 1, 2].map((i) => ((box.low[i] ?? 0) + (box.high[i] ?? 0)) / 2) as [number, number, number];
}

/** The corner that reaches farthest towards the eye, as near the line of sight as can be. */
export function facing(surface: Surface, eye: Vector3, middle: readonly [number, number, number]): number {
  const sight = eye
    .clone()
    .sub(new Vector3(...middle))
    .normalize();
  let best = 0;
  let most = -Infinity;
  const at = new Vector3();
  for (let i = 0; i < surface.x.length / 3; i++) {
    at.fromArray(surface.x, i * 3).sub(new Vector3(...middle));
    const along = at.dot(sight);
    const score = along - 2 * Math.sqrt(Math.max(at.lengthSq() - along * along, 0));
    if (score > most) [best, most] = [i, score];
  }
  return best;
}

/** Hands the camera out of the stage. */
function Eye({ of }: { of: { current: Camera | null } }) {
  const { camera } = useThree();
  useEffect(() => {
    of.current = camera;
  }, [camera, of]);
  return null;
}

function Skin({
  surface,
  pole,
  onPole,
}: {
  surface: Surface;
  pole: number;
  onPole: (corner: number) => void;
}) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute("position", new BufferAttribute(surface.x, 3));
    made.setIndex(new BufferAttribute(surface.triangles, 1));
    made.computeVertexNormals();
    made.computeBoundingSphere();
    return made;
  }, [surface]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const dot = [0, 1, 2].map((i) => surface.x[pole * 3 + i] ?? 0) as [number, number, number];
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a mesh of the scene, no element; P does it by key */}
      <mesh
        geometry={geometry}
        onClick={(e) => {
          // Turning it about is no choice.
          if (!e.face || e.delta > 4) return;
          e.stopPropagation();
          const corners = [e.face.a, e.face.b, e.face.c];
          const away = (corner: number) => new Vector3().fromArray(surface.x, corner * 3).distanceTo(e.point);
          onPole(corners.reduce((best, corner) => (away(corner) < away(best) ? corner : best)));
        }}
      >
        <meshLambertMaterial color="#cdb98f" />
      </mesh>
      <mesh position={dot}>
        <sphereGeometry args={[(geometry.boundingSphere?.radius ?? 50) / 22, 16, 12]} />
        <meshBasicMaterial color="#b5453f" />
      </mesh>
    </>
  );
}
