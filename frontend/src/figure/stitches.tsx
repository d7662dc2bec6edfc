/** A part's stitches as one instanced mesh of small Vs over a dark inner surface. */
import { useThree } from "@react-three/fiber";
import { useEffect, useLayoutEffect, useMemo, useRef } from "react";
import { Color, type InstancedMesh, LatheGeometry, Matrix4, Vector2 } from "three";
import { layStitches } from "./geometry";
import { stitchShape } from "./stitch-shape";
import type { FigurePart } from "./types";

export const LIT = new Color("#3f86b3");

export function Stitches({
  part,
  lit,
  onLit,
}: {
  part: FigurePart;
  lit?: number | null;
  onLit?: (round: number) => void;
}) {
  const mesh = useRef<InstancedMesh>(null);
  const invalidate = useThree((s) => s.invalidate);
  const laid = useMemo(() => layStitches(part), [part]);
  const inner = useMemo(() => {
    const first = part.rounds[0];
    const points = [
      new Vector2(0.01, (first?.z ?? 0) - 0.3 * (first?.height ?? 0)),
      ...part.rounds.map((r) => new Vector2(r.radius * 0.985, r.z)),
    ];
    const last = part.rounds.at(-1);
    if (part.closed && last) points.push(new Vector2(0.01, last.z + 0.12 * last.height));
    const lathe = new LatheGeometry(points, 32);
    lathe.rotateX(Math.PI / 2);
    return lathe;
  }, [part]);
  useEffect(() => () => inner.dispose(), [inner]);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    const matrix = new Matrix4();
    for (let i = 0; i < laid.count; i++) m.setMatrixAt(i, matrix.fromArray(laid.matrices, i * 16));
    m.instanceMatrix.needsUpdate = true;
    m.computeBoundingSphere();
  }, [laid]);
  useLayoutEffect(() => {
    const m = mesh.current;
    if (!m) return;
    const colours = part.colours.map((c) => new Color(c));
    for (let i = 0; i < laid.count; i++) {
      const own = colours[laid.colours[i] ?? 0] ?? new Color("#b99c6b");
      m.setColorAt(i, laid.rounds[i] === lit ? LIT : own);
    }
    if (m.instanceColor) m.instanceColor.needsUpdate = true;
    invalidate();
  }, [laid, lit, part.colours, invalidate]);
  const main = part.colours[part.rounds[0]?.colours[0] ?? 0] ?? "#b99c6b";
  const dark = useMemo(() => new Color(main).multiplyScalar(0.45), [main]);
  return (
    <group>
      <mesh geometry={inner}>
        <meshLambertMaterial color={dark} side={2} />
      </mesh>
      <instancedMesh
        key={laid.count}
        ref={mesh}
        args={[stitchShape(laid.count), undefined, laid.count]}
        onPointerMove={
          onLit
            ? (e) => {
                e.stopPropagation();
                if (e.instanceId !== undefined) onLit(laid.rounds[e.instanceId] ?? 0);
              }
            : undefined
        }
      >
        <meshLambertMaterial />
      </instancedMesh>
    </group>
  );
}
