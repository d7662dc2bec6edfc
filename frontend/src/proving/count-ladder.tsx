/** A ladder of counts that shows more than counts: what is done, where testers stumbled. */
type Props = {
  counts: readonly number[];
  labels: readonly string[];
  fill: string;
  /** Rounds that are done: their rungs are filled. */
  done?: number;
  /** How many testers stumbled at each round. */
  heat?: readonly number[];
  label: string;
};

const WIDE = 100;
const ROOM = 14;
/** Pixels of a rung, and of the whole ladder. */
const RUNG = 9;
const MOST_TALL = 150;

export function CountLadder({ counts, labels, fill, done = 0, heat = [], label }: Props) {
  const many = Math.max(counts.length, 1);
  const most = Math.max(1, ...counts);
  const hottest = Math.max(1, ...heat);
  const tall = 100 / many;
  const wide = (n: number) => Math.max((WIDE * n) / most, 1.5);
  const y = (i: number) => 100 - (i + 1) * tall + tall * 0.12;
  return (
    <svg
      viewBox={`0 0 ${WIDE + ROOM} 100`}
      preserveAspectRatio="none"
      className="w-24"
      style={{ height: Math.min(MOST_TALL, many * RUNG) }}
      role="img"
      aria-label={label}
    >
      {counts.map((n, i) => {
        const stumbled = heat[i] ?? 0;
        return (
          <g key={i}>
            <title>{`${labels[i] ?? ""}: ${n} stitches${stumbled ? `, ${stumbled} stumbled` : ""}`}</title>
            <rect
              x={(WIDE - wide(n)) / 2}
              y={y(i)}
              width={wide(n)}
              height={tall * 0.76}
              fill={stumbled ? "var(--madder)" : i < done ? fill || "var(--moss)" : "transparent"}
              fillOpacity={stumbled ? 0.35 + (0.65 * stumbled) / hottest : 1}
              stroke="var(--rung-line)"
              vectorEffect="non-scaling-stroke"
            />
            {stumbled > 0 && (
              <line
                x1={(WIDE + wide(n)) / 2}
                x2={WIDE + ROOM}
                y1={y(i) + tall * 0.38}
                y2={y(i) + tall * 0.38}
                stroke="var(--madder)"
                strokeWidth={2}
                vectorEffect="non-scaling-stroke"
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
