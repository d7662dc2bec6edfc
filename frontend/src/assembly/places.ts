/** Places in rounds: where a stitch lies from the front, and how far apart two eyes are. */
import type { Settled } from "../figure/settled";
import type { Scene } from "./use-scene";

/** Stitches from the front middle, positive to the viewer's left, of a stitch of a round (from 0). */
export function fromFront(scene: Scene, part: string, settled: Settled, stitch: number): number {
  const round = settled.round[stitch] ?? 0;
  const front = scene.centre[part]?.place[round] ?? 0;
  const many = settled.counts[round] ?? 1;
  const away = (settled.place[stitch] ?? 1) - 1 - front;
  const wrapped = ((((away + many / 2) % many) + many) % many) - many / 2;
  return Math.round(wrapped * 2) / 2;
}

/** Stitches visible between two eyes, one of them as far from the front: even on an even round, at least one. */
export function gapOf(away: number, count: number): number {
  const wanted = Math.max(Math.round(Math.abs(away) * 2), 1);
  if (count % 2 === 0) return Math.max(2 * Math.round(wanted / 2), 2);
  return wanted;
}
