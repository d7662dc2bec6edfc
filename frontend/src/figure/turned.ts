/** Where a placed piece comes to sit while a hand tilts or turns it: as the studio places it, at once. */
import { Matrix4, Quaternion, Vector3 } from "three";

export type Turned = { tilt: number; turn: number };

/** The point of a part's own frame by which it sits, and the direction in which it stands there. */
export type Seam = readonly number[];

const UP = new Vector3(0, 0, 1);
const AHEAD = new Vector3(0, -1, 0);
/** How far ahead something stands from which its top, and not its front, stays where it is. */
const FORWARD = 0.7;

/** A rigid frame whose z runs along a direction, keeping the front in front (`craft/figure/placement/seats.py`). */
export function seatFrame(at: Vector3, out: Vector3): Matrix4 {
  const z = out.clone().normalize();
  const x = new Vector3().crossVectors(z, Math.abs(z.y) < FORWARD ? AHEAD : UP).normalize();
  return new Matrix4().makeBasis(x, new Vector3().crossVectors(z, x), z).setPosition(at);
}

/** The matrix of a piece that is tilted and turned by so many degrees; itself where that does not move it so. host: of what
 * it sits on. mirrored: it is the second of a pair, which turns the other way. */
export function turnedMatrix(
  matrix: Matrix4,
  host: Matrix4,
  seam: Seam | null,
  by: Turned,
  mirrored: boolean,
): Matrix4 {
  if (!seam) return matrix;
  const inHost = host.clone().invert().multiply(matrix);
  const at = new Vector3(seam[0], seam[1], seam[2]).applyMatrix4(inHost);
  const out = new Vector3(seam[3], seam[4], seam[5]).transformDirection(inHost);
  const before = seatFrame(at, out);
  const level = new Vector3().crossVectors(out, UP);
  const tilted = out.clone();
  if (level.lengthSq() > 1e-9)
    tilted.applyQuaternion(new Quaternion().setFromAxisAngle(level.normalize(), radians(by.tilt)));
  const turn = radians(mirrored ? -by.turn : by.turn);
  return seatFrame(at, tilted)
    .multiply(new Matrix4().makeRotationZ(turn))
    .multiply(before.invert())
    .premultiply(host)
    .multiply(inHost);
}

const radians = (degrees: number) => (degrees / 180) * Math.PI;
