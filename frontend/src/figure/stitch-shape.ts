/** The body of one stitch, a small V; coarser where many are drawn, so that a figure stays quick to turn. */
import { type BufferGeometry, IcosahedronGeometry, OctahedronGeometry } from "three";
import { mergeGeometries } from "three/examples/jsm/utils/BufferGeometryUtils.js";

function lobe(side: 1 | -1, detail: number): BufferGeometry {
  const shape = new IcosahedronGeometry(0.5, detail);
  shape.scale(0.5, 1.5, 0.46);
  shape.rotateZ(side * -0.34);
  shape.translate(side * 0.25, 0.04, 0.02);
  return shape;
}

const MADE = new Map<number, BufferGeometry>();

/** Triangles stay below 200,000: 160 a stitch up to 1,200 stitches, 40 up to 5,000, 8 beyond. */
export function stitchShape(stitches: number): BufferGeometry {
  const detail = stitches <= 1200 ? 1 : stitches <= 5000 ? 0 : -1;
  let made = MADE.get(detail);
  if (!made) {
    if (detail < 0) {
      made = new OctahedronGeometry(0.62);
      made.scale(1, 1.2, 0.6);
    } else made = mergeGeometries([lobe(1, detail), lobe(-1, detail)]);
    MADE.set(detail, made);
  }
  return made;
}
