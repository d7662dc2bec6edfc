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

type Ring = FigurePart["rounds"][number];
type Edge = { radius: number; z: number };

/** How far the layers of a tube that is pressed flat lie apart, as a share of a stitch's width. */
const APART = 0.5;

/** The matrix of a stitch of what lies flat: a row's lie in one plane, a pressed tube's half in front, half behind. */
function layFlat(ring: Ring, j: number, layers: number) {
  const across = ring.live / layers;
  const width = (2 * ring.radius) / across;
  const front = j < across;
  const along = front ? ring.radius - width * (j + 0.5) : width * (j - across + 0.5) - ring.radius;
  const aside = layers > 1 ? (front ? -1 : 1) * width * APART : 0;
  BASIS.makeBasis(X.set(front ? 1 : -1, 0, 0), Y.set(0, 0, 1), Z.set(0, front ? -1 : 1, 0));
  TURN.setFromRotationMatrix(BASIS);
  AT.set(along, aside, ring.z - ring.height / 2);
  SIZE.set(width, ring.height, width);
  OUT.compose(AT, TURN, SIZE);
}

/** The matrix of a stitch of a round, on the wall between its edge and the one below. */
function layInRound(ring: Ring, below: Edge, j: number, lower: boolean) {
  const dr = ring.radius - below.radius;
  const dz = ring.z - below.z;
  const length = Math.hypot(dr, dz) || 1;
  const radius = (ring.radius + below.radius) / 2;
  const width = (2 * Math.PI * Math.max(radius, ring.radius * 0.6)) / ring.live;
  const angle = ring.turn + (2 * Math.PI * (j + 0.5)) / ring.live;
  const outX = -Math.sin(angle);
  const outY = -Math.cos(angle);
  Y.set((outX * dr) / length, (outY * dr) / length, dz / length);
  X.set(-Math.cos(angle), Math.sin(angle), 0);
  Z.crossVectors(X, Y);
  if (Z.x * outX + Z.y * outY < 0 || (Math.abs(dz) < 1e-6 && Z.z > 0 && lower)) {
    X.negate();
    Z.negate();
  }
  BASIS.makeBasis(X, Y, Z);
  TURN.setFromRotationMatrix(BASIS);
  AT.set(outX * radius, outY * radius, (ring.z + below.z) / 2);
  SIZE.set(width, Math.max(length, ring.height * 0.6), width);
  OUT.compose(AT, TURN, SIZE);
}

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
  let below: Edge = { radius: 0, z: (drawn[0]?.z ?? 0) - 0.3 * (drawn[0]?.height ?? 0) };
  drawn.forEach((ring, number) => {
    for (let j = 0; j < ring.live; j++) {
      if (part.layers) layFlat(ring, j, part.layers);
      else layInRound(ring, below, j, number < drawn.length / 2);
      OUT.toArray(laid.matrices, index * 16);
      laid.colours[index] = ring.colours[ring.colours.length > 1 ? j : 0] ?? 0;
      laid.rounds[index] = number;
      index++;
    }
    below = ring;
  });
  return laid;
}
