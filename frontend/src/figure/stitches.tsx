/** A part's stitches in their estimated places, drawn in one call. */
import { useThree } from "@react-three/fiber";
import { useLayoutEffect, useMemo, useRef } from "react";
import { Color, DoubleSide, type InstancedMesh, Matrix4 } from "three";
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
  return (
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
      <meshLambertMaterial vertexColors side={DoubleSide} />
    </instancedMesh>
  );
}
