/** A part's counts as a small silhouette, at the same scale as its neighbours, so that sizes compare by eye. */
export function Silhouette({
  counts,
  width,
  height,
  widest,
  label,
}: {
  counts: number[];
  width: number;
  height: number;
  widest: number;
  label: string;
}) {
  const scale = 70 / widest;
  const most = Math.max(...counts, 1);
  const w = Math.max(width * scale, 3);
  const h = Math.max(height * scale, 3);
  const step = h / counts.length;
  const tall = Math.max(h, 12);
  const edge = (side: 1 | -1) =>
    counts.map((n, i) => {
      const x = ((side * n) / most) * (w / 2);
      return `${x.toFixed(1)} ${(-i * step).toFixed(1)}L${x.toFixed(1)} ${(-(i + 1) * step).toFixed(1)}`;
    });
  const right = edge(1).join("L");
  const left = counts
    .map(
      (n, i) =>
        `${((-n / most) * (w / 2)).toFixed(1)} ${(-(i + 1) * step).toFixed(1)}L${((-n / most) * (w / 2)).toFixed(1)} ${(-i * step).toFixed(1)}`,
    )
    .reverse()
    .join("L");
  return (
    <svg
      width={72}
      height={tall + 2}
      viewBox={`-36 ${-tall - 1} 72 ${tall + 2}`}
      role="img"
      aria-label={label}
      className="shrink-0"
    >
      <path d={`M${right}L${left}Z`} fill="var(--weld-ground)" stroke="var(--rung-line)" strokeWidth="1" />
    </svg>
  );
}
