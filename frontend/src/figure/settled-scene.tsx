/** A settled part on the stage, with what helps to read it: section, stretch, ruler, a hand, what it was before. */
import { useThree } from "@react-three/fiber";
import { useCallback, useEffect, useMemo, useState } from "react";
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  LatheGeometry,
  LineBasicMaterial,
  LineSegments,
  Plane,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
} from "three";
import { Relief } from "./relief";
import { boxOf, type Settled, type Surface, stitchAt, stitchBeside, stitchName } from "./settled";
import Stage from "./stage";
import { type Tool, ToolBar } from "./tool-bar";

const MIDDLE = [new Plane(new Vector3(1, 0, 0), 0)];
const HAND_MM = 185;

type Props = {
  settled: Settled;
  before?: Settled | null;
  palette: Record<string, string>;
  label: string;
  lit?: number | null;
  onLit?: (round: number | null) => void;
  target?: [number, number][];
  overlay?: Settled | null;
  /** Whose hand makes it, until she looks at the other's. */
  leftHanded?: boolean;
};

export default function SettledScene({ before = null, leftHanded = false, ...of }: Props) {
  const { settled, label, target } = of;
  const [tools, setTools] = useState<ReadonlySet<Tool>>(() => new Set(leftHanded ? ["left"] : []));
  const { pointed, point, onKey } = usePointed(of);
  const box = useMemo(() => boxOf(settled.x), [settled]);
  return (
    <div className="flex h-full flex-col">
      <ToolBar
        tools={tools}
        onTools={setTools}
        able={{
          before: before !== null,
          target: Boolean(target || settled.aim),
          distance: Boolean(settled.off),
        }}
      />
      <div className="min-h-0 flex-1">
        <Stage
          box={sizeWith(box, tools.has("hand"))}
          label={label}
          help="Arrow keys turn it; F, B, S and T look from front, back, side and top; comma and full stop walk along a round, brackets between rounds."
          onKey={onKey}
        >
          <Shown {...of} before={before} tools={tools} pointed={pointed} onPoint={point} box={box} />
        </Stage>
      </div>
      <p className="min-h-7 border-t border-line px-3 py-1 text-sm" aria-live="polite" data-testid="pointed">
        {pointed !== null && pointed < settled.stitches ? (
          stitchName(settled, pointed)
        ) : (
          <span className="text-soft">Point at a stitch to have it named.</span>
        )}
        {MEANINGS.filter(([tool]) => tools.has(tool)).map(([tool, meaning]) => (
          <span key={tool} className="float-right text-soft">
            {meaning}
          </span>
        ))}
      </p>
    </div>
  );
}

const MEANINGS: readonly (readonly [Tool, string])[] = [
  ["ruler", "a mark a centimetre"],
  ["distance", "red outside the target, blue inside, by up to a stitch"],
  ["stretch", "green at rest, red pulled, blue pushed together"],
];

type Box = ReturnType<typeof boxOf>;

/** The stitch that is pointed at, by mouse or by keys. */
function usePointed({ settled, lit, onLit }: Pick<Props, "settled" | "lit" | "onLit">) {
  const [pointed, setPointed] = useState<number | null>(null);
  useEffect(() => {
    setPointed((at) => (at !== null && at < settled.stitches ? at : null));
  }, [settled]);
  const point = useCallback(
    (stitch: number) => {
      setPointed(stitch);
      const round = settled.round[stitch] ?? -1;
      onLit?.(round < 0 ? null : round);
    },
    [settled, onLit],
  );
  const onKey = useCallback(
    (key: string) => {
      const by = { ",": [-1, 0], ".": [1, 0], "[": [0, -1], "]": [0, 1] }[key];
      if (!by) return false;
      const now = pointed ?? stitchAt(settled, lit ?? 0, 1) ?? 0;
      point(pointed === null ? now : stitchBeside(settled, now, by[0] ?? 0, by[1] ?? 0));
      return true;
    },
    [pointed, settled, lit, point],
  );
  return { pointed, point, onKey };
}

/** Room for the figure, and for a hand beside it. */
function sizeWith(box: Box, hand: boolean) {
  const tall = box.high[2] - box.low[2];
  const beside = hand ? 110 : 0;
  const height = hand ? Math.max(tall, HAND_MM) : tall;
  return {
    width: box.high[0] - box.low[0] + beside,
    depth: box.high[1] - box.low[1],
    height,
    middle: [
      (box.low[0] + box.high[0] + beside) / 2,
      (box.low[1] + box.high[1]) / 2,
      box.low[2] + height / 2,
    ] as [number, number, number],
  };
}

function Shown({
  settled,
  before = null,
  palette,
  lit,
  target,
  overlay = null,
  tools,
  pointed,
  onPoint,
  box,
}: Props & {
  tools: ReadonlySet<Tool>;
  pointed: number | null;
  onPoint: (stitch: number) => void;
  box: Box;
}) {
  const showing = useMemo(
    () => ({
      stretch: tools.has("stretch"),
      section: tools.has("section"),
      distance: tools.has("distance"),
    }),
    [tools],
  );
  return (
    <>
      <group scale={[tools.has("left") ? -1 : 1, 1, 1]}>
        <Relief
          settled={settled}
          palette={palette}
          lit={lit}
          pointed={pointed}
          showing={showing}
          cut={MIDDLE}
          onPoint={onPoint}
        />
        {overlay && <Ghost settled={overlay} />}
        {tools.has("before") && before && <Ghost settled={before} />}
        {tools.has("target") && settled.aim && <Ghost settled={settled.aim} colour="#b5453f" />}
      </group>
      {tools.has("target") && target && !settled.aim && <Target outline={target} />}
      {tools.has("ruler") && <Ruler box={box} />}
      {tools.has("hand") && <Hand x={box.high[0] + 15} z={box.low[2]} />}
    </>
  );
}

function Ghost({ settled, colour = "#3f86b3" }: { settled: Surface; colour?: string }) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute("position", new BufferAttribute(settled.x, 3));
    made.setIndex(new BufferAttribute(settled.triangles, 1));
    return made;
  }, [settled]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial color={colour} wireframe transparent opacity={0.45} />
    </mesh>
  );
}

function Target({ outline }: { outline: [number, number][] }) {
  const geometry = useMemo(() => {
    const made = new LatheGeometry(
      outline.map(([r, z]) => new Vector2(Math.max(r, 0.01), z)),
      36,
    );
    made.rotateX(Math.PI / 2);
    return made;
  }, [outline]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial color="#b5453f" wireframe transparent opacity={0.35} />
    </mesh>
  );
}

/** A rule beside the figure: a mark a centimetre, a longer one every five. */
function Ruler({ box }: { box: ReturnType<typeof boxOf> }) {
  const lines = useMemo(() => {
    const points: number[] = [];
    const x = box.low[0] - 8;
    const high = box.high[2];
    points.push(x, 0, box.low[2], x, 0, high);
    for (let cm = 0; cm * 10 <= high - box.low[2] + 0.01; cm++) {
      const z = box.low[2] + cm * 10;
      points.push(x, 0, z, x - (cm % 5 ? 3 : 7), 0, z);
    }
    const made = new BufferGeometry();
    made.setAttribute("position", new BufferAttribute(new Float32Array(points), 3));
    return new LineSegments(made, new LineBasicMaterial({ color: "#7a6a58" }));
  }, [box]);
  useEffect(() => () => lines.geometry.dispose(), [lines]);
  return <primitive object={lines} />;
}

/** A flat hand, 18.5 cm from wrist to fingertip, to see the size by. */
function Hand({ x, z }: { x: number; z: number }) {
  const invalidate = useThree((s) => s.invalidate);
  const geometry = useMemo(() => {
    const palm = new Shape();
    const fingers: [number, number, number][] = [
      [4, 60, 150],
      [25, 80, 172],
      [46, 85, 185],
      [67, 80, 174],
    ];
    palm.moveTo(18, 0);
    palm.lineTo(4, 60);
    for (const [left, foot, tip] of fingers) {
      palm.lineTo(left, foot + 25);
      palm.lineTo(left, tip - 9);
      palm.absarc(left + 9, tip - 9, 9, Math.PI, 0, true);
      palm.lineTo(left + 18, foot + 25);
    }
    palm.lineTo(87, 78);
    palm.lineTo(104, 96);
    palm.absarc(110, 88, 9, Math.PI * 0.75, -Math.PI * 0.25, true);
    palm.lineTo(88, 40);
    palm.lineTo(74, 0);
    palm.closePath();
    const made = new ShapeGeometry(palm);
    made.rotateX(Math.PI / 2);
    return made;
  }, []);
  useEffect(() => {
    invalidate();
    return () => geometry.dispose();
  }, [geometry, invalidate]);
  return (
    <mesh geometry={geometry} position={[x, 0, z]}>
      <meshBasicMaterial color="#b9a58c" side={DoubleSide} transparent opacity={0.7} />
    </mesh>
  );
}
