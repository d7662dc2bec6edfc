/**
 * The body of one stitch, a small V on a dark plate; coarser where many are drawn, so that a figure stays quick
 * to turn. The plates of neighbours overlap and close the fabric, so a part needs no other surface to be drawn.
 */
import {
  BufferAttribute,
  type BufferGeometry,
  IcosahedronGeometry,
  OctahedronGeometry,
  PlaneGeometry,
} from "three";
import { mergeGeometries } from "three/examples/jsm/utils/BufferGeometryUtils.js";

function lobe(side: 1 | -1, detail: number): BufferGeometry {
  const shape = new IcosahedronGeometry(0.5, detail);
  // Low and broad: the legs touch each other and those of the neighbours, as fabric does, and no braid stands out.
  shape.scale(0.6, 1.62, 0.3);
  shape.rotateZ(side * -0.17);
  shape.translate(side * 0.24, 0.03, -0.03);
  return shape;
}

/** How much of its yarn's light the fabric behind a stitch keeps. */
const SHADE = 0.62;

function plate(): BufferGeometry {
  const flat = new PlaneGeometry(1.2, 1.3).toNonIndexed();
  flat.translate(0, 0, -0.12);
  return flat;
}

/** Light of every corner: the stitch's own, or the shade's behind it. */
function lightened(shape: BufferGeometry, light: number): BufferGeometry {
  const many = shape.getAttribute("position").count;
  shape.setAttribute("color", new BufferAttribute(new Float32Array(many * 3).fill(light), 3));
  return shape;
}

const MADE = new Map<number, BufferGeometry>();

/** Triangles stay below 200,000: 162 a stitch up to 1,200 stitches, 42 up to 5,000, 10 beyond. */
export function stitchShape(stitches: number): BufferGeometry {
  const detail = stitches <= 1200 ? 1 : stitches <= 5000 ? 0 : -1;
  let made = MADE.get(detail);
  if (!made) {
    if (detail < 0) {
      const bead = new OctahedronGeometry(0.62);
      bead.scale(1, 1.2, 0.6);
      made = mergeGeometries([lightened(bead, 1), lightened(plate(), SHADE)]);
    } else
      made = mergeGeometries([
        lightened(lobe(1, detail), 1),
        lightened(lobe(-1, detail), 1),
        lightened(plate(), SHADE),
      ]);
    MADE.set(detail, made);
  }
  return made;
}
