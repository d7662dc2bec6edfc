/** A piece under a hand is shown where the studio puts it; figures are those of craft/figure/placement. */
import { Matrix4, Vector3 } from "three";
import { describe, expect, it } from "vitest";
import { seatFrame, turnedMatrix } from "./turned";

const HOST = new Matrix4().makeTranslation(10, 20, 30);
const SEAM = [0, 0, 2, 0, 0, 1];

/** A piece that sits at a point of its host and stands away from it. */
function seated(at: Vector3, out: Vector3): Matrix4 {
  const standing = new Matrix4().makeTranslation(0, 0, -2);
  return HOST.clone().multiply(seatFrame(at, out)).multiply(standing);
}

const near = (a: Matrix4, b: Matrix4) =>
  a.elements.forEach((v, i) => {
    expect(v).toBeCloseTo(b.elements[i] ?? Number.NaN, 9);
  });

describe("a piece under a hand", () => {
  const at = new Vector3(0, -30, 5);
  const out = new Vector3(Math.sin(0.4), -Math.cos(0.4), 0.3).normalize();

  it("stands still while nothing is done, and where nothing is known of its seam", () => {
    near(turnedMatrix(seated(at, out), HOST, SEAM, { tilt: 0, turn: 0 }, false), seated(at, out));
    const matrix = seated(at, out);
    expect(turnedMatrix(matrix, HOST, null, { tilt: 30, turn: 0 }, false)).toBe(matrix);
  });

  it("tilts up from the level, its seam where it was", () => {
    const up = out
      .clone()
      .applyAxisAngle(new Vector3().crossVectors(out, new Vector3(0, 0, 1)).normalize(), 0.5);
    const found = turnedMatrix(seated(at, out), HOST, SEAM, { tilt: (0.5 / Math.PI) * 180, turn: 0 }, false);
    near(found, seated(at, up));
    expect(up.z).toBeGreaterThan(out.z);
  });

  it("turns about the way it stands; the second of a pair the other way", () => {
    const turned = (mirrored: boolean) =>
      turnedMatrix(seated(at, out), HOST, SEAM, { tilt: 0, turn: 40 }, mirrored);
    const side = (m: Matrix4) => new Vector3(1, 0, 0).transformDirection(m);
    const before = side(seated(at, out));
    expect(side(turned(false)).angleTo(before)).toBeCloseTo((40 / 180) * Math.PI, 9);
    expect(side(turned(false)).angleTo(side(turned(true)))).toBeCloseTo((80 / 180) * Math.PI, 9);
    const seam = new Vector3(0, 0, 2);
    expect(
      seam
        .clone()
        .applyMatrix4(turned(false))
        .distanceTo(seam.clone().applyMatrix4(seated(at, out))),
    ).toBeCloseTo(0, 9);
  });

  it("has the frame that the studio gives it", () => {
    // place() of craft/figure/placement for out = (0.6, 0, 0.8) and for (0, -0.9, 0.4359)
    const a = new Vector3(1, 0, 0).transformDirection(seatFrame(new Vector3(), new Vector3(0.6, 0, 0.8)));
    expect([a.x, a.y, a.z].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([0.8, 0, -0.6]);
    const b = new Vector3(1, 0, 0).transformDirection(seatFrame(new Vector3(), new Vector3(0, -0.9, 0.4359)));
    expect([b.x, b.y, b.z].map((v) => Math.round(v * 1e4) / 1e4 + 0)).toEqual([-1, 0, 0]);
  });
});
