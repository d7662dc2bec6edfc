/** All pieces of a design in one scene, each in its place. */
import { useMemo } from "react";
import { Box3, Matrix4, Vector3 } from "three";
import Stage from "./stage";
import { Stitches } from "./stitches";
import type { Scene } from "./types";

export default function WholeScene({ scene, label }: { scene: Scene; label: string }) {
  const pieces = useMemo(
    () =>
      scene.placed.map((p) => ({
        part: scene.parts[p.part],
        matrix: new Matrix4().fromArray(p.matrix).transpose(),
      })),
    [scene],
  );
  const middle = useMemo(() => {
    const box = new Box3();
    for (const { part, matrix } of pieces)
      for (const r of part?.rounds ?? [])
        for (const [x, y] of [
          [r.radius, 0],
          [-r.radius, 0],
          [0, r.radius],
          [0, -r.radius],
        ] as const)
          box.expandByPoint(new Vector3(x, y, r.z).applyMatrix4(matrix));
    return box.getCenter(new Vector3()).toArray();
  }, [pieces]);
  return (
    <Stage
      box={{ width: scene.width_mm, depth: scene.depth_mm, height: scene.height_mm, middle }}
      label={label}
    >
      {pieces.map(
        ({ part, matrix }, i) =>
          part && (
            <group key={i} matrixAutoUpdate={false} matrix={matrix}>
              <Stitches part={part} />
            </group>
          ),
      )}
    </Stage>
  );
}
