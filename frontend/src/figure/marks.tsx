/** The face on the figure: points and lines of thread, and what covers the fabric: felt, satin stitch, brushed colour. */
import { useEffect, useMemo } from "react";
import { BufferAttribute, BufferGeometry, DoubleSide, Line, LineBasicMaterial } from "three";
import type { Scene } from "./types";

type Mark = Scene["marks"][number];

export function Marks({ marks }: { marks: readonly Mark[] }) {
  return marks.map((mark) => (
    <group key={mark.key}>
      {mark.patches.map((patch, i) => (
        <Patch key={i} patch={patch} colour={mark.colour} covers={mark.covers} />
      ))}
      {!mark.patches.length &&
        mark.points.map((at, i) => {
          const end = mark.ends[i];
          return end ? (
            <Stroke key={i} points={[at, end]} colour={mark.colour} />
          ) : (
            <mesh key={i} position={at}>
              <sphereGeometry args={[2.2, 10, 8]} />
              <meshLambertMaterial color={mark.colour} />
            </mesh>
          );
        })}
    </group>
  ));
}

/** Brushed colour lets the stitches show through; felt and satin stitch hide them. */
function Patch({
  patch,
  colour,
  covers,
}: {
  patch: Mark["patches"][number];
  colour: string;
  covers: number;
}) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute("position", new BufferAttribute(new Float32Array(patch.points.flat()), 3));
    made.setAttribute("normal", new BufferAttribute(new Float32Array(patch.out.flat()), 3));
    made.setIndex(patch.triangles.flat());
    return made;
  }, [patch]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const veil = covers < 1;
  return (
    <mesh geometry={geometry} renderOrder={veil ? 2 : 1}>
      <meshLambertMaterial
        color={colour}
        side={DoubleSide}
        transparent={veil}
        opacity={covers}
        depthWrite={!veil}
        polygonOffset
        polygonOffsetFactor={-4}
        polygonOffsetUnits={-40}
      />
    </mesh>
  );
}

function Stroke({ points, colour }: { points: [number, number, number][]; colour: string }) {
  const line = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute("position", new BufferAttribute(new Float32Array(points.flat()), 3));
    return new Line(made, new LineBasicMaterial({ color: colour, depthTest: false }));
  }, [points, colour]);
  useEffect(() => () => line.geometry.dispose(), [line]);
  return <primitive object={line} renderOrder={2} />;
}
