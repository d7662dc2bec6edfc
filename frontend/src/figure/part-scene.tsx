/** One part in 3D. */
import Stage from "./stage";
import { Stitches } from "./stitches";
import type { FigurePart } from "./types";

export default function PartScene({
  part,
  label,
  lit,
  onLit,
  mirrored = false,
}: {
  part: FigurePart;
  label: string;
  lit?: number | null;
  onLit?: (round: number | null) => void;
  mirrored?: boolean;
}) {
  const width = 2 * Math.max(...part.rounds.map((r) => r.radius));
  const height = Math.max(...part.rounds.map((r) => r.z));
  return (
    <Stage box={{ width, depth: width, height }} label={label}>
      <group scale={[mirrored ? -1 : 1, 1, 1]}>
        <Stitches part={part} lit={lit} onLit={onLit} />
      </group>
    </Stage>
  );
}
