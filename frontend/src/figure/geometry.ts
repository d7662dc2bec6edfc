/** Where every stitch of a part sits, for drawing. The rings come computed; this only lays them out. */
import { Matrix4, Quaternion, Vector3 } from "three";
import type { FigurePart } from "./types";

export type Laid = {
  matrices: Float32Array;
  colours: Uint16Array;
  rounds: Uint16Array;
  count: number;
};

const X = new Vector3();
const Y = new Vector3();
const Z = new Vector3();
const AT = new Vector3();
const SIZE = new Vector3();
const TURN = new Quaternion();
const BASIS = new Matrix4();
const OUT = new Matrix4();

/** One matrix a stitch: x across it, y up the fabric, z outwards, scaled to its width and height (mm). */
export function layStitches(part: FigurePart): Laid {
  const drawn = part.rounds.filter((r) => r.drawn);
  const total = drawn.reduce((sum, r) => sum + r.live, 0);
  const laid: Laid = {
    matrices: new Float32Array(total * 16),
    colours: new Uint16Array(total),
    rounds: new Uint16Array(total),
    count: total,
  };
  let index = 0;
  let below = { radius: 0, z: (drawn[0]?.z ?? 0) - 0.3 * (drawn[0]?.height ?? 0) };
  drawn.forEach((ring, number) => {
    const dr = ring.radius - below.radius;
    const dz = ring.z - below.z;
    const length = Math.hypot(dr, dz) || 1;
    const radius = (ring.radius + below.radius) / 2;
    const width = (2 * Math.PI * Math.max(radius, ring.radius * 0.6)) / ring.live;
    for (let j = 0; j < ring.live; j++) {
      const angle = ring.turn + (2 * Math.PI * (j + 0.5)) / ring.live;
      const outX = -Math.sin(angle);
      const outY = -Math.cos(angle);
      Y.set((outX * dr) / length, (outY * dr) / length, dz / length);
      X.set(-Math.cos(angle), Math.sin(angle), 0);
      Z.crossVectors(X, Y);
      if (Z.x * outX + Z.y * outY < 0 || (Math.abs(dz) < 1e-6 && Z.z > 0 && number < drawn.length / 2)) {
        X.negate();
        Z.negate();
      }
      BASIS.makeBasis(X, Y, Z);
      TURN.setFromRotationMatrix(BASIS);
      AT.set(outX * radius, outY * radius, (ring.z + below.z) / 2);
      SIZE.set(width, Math.max(length, ring.height * 0.6), width);
      OUT.compose(AT, TURN, SIZE).toArray(laid.matrices, index * 16);
      laid.colours[index] = ring.colours[ring.colours.length > 1 ? j : 0] ?? 0;
      laid.rounds[index] = number;
      index++;
    }
    below = ring;
  });
  return laid;
}
