/** A part's counts as a small ladder, at the same scale as its neighbours, so that sizes compare by eye. */
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
  const [w, h] = [Math.max(width * scale, 2), Math.max(height * scale, 2)];
  const step = h / counts.length;
  return (
    <svg
      width={72}
      height={Math.max(h, 12)}
      viewBox={`-36 ${-Math.max(h, 12)} 72 ${Math.max(h, 12)}`}
      role="img"
      aria-label={label}
      className="shrink-0"
    >
      {counts.map((n, i) => (
        <rect
          key={i}
          x={(-n / most) * (w / 2)}
          y={-(i + 1) * step}
          width={(n / most) * w}
          height={Math.max(step - 0.4, 0.6)}
          fill="var(--weld-ground)"
          stroke="var(--rung-line)"
          strokeWidth="0.5"
        />
      ))}
    </svg>
  );
}
