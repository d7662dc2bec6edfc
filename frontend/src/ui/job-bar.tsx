/** How far a job is, and while it waits, its place in line. */
import type { ReactNode } from "react";

/** percent: how much is done. ahead: how many are worked out before it, null once it is at work. */
export type Way = { percent: number; ahead: number | null };

/** The place in line in words; nothing for what is at work or comes next. */
export function placeInLine(ahead: number | null): string {
  return ahead ? `${ahead} before it in line` : "";
}

export function JobBar({
  name,
  way,
  children,
  className = "",
}: {
  /** What is done, for whoever hears it. */
  name: string;
  way: Way;
  /** What is done, in words, and what can be done about it. */
  children: ReactNode;
  className?: string;
}) {
  const place = placeInLine(way.ahead);
  return (
    <p role="status" className={`flex items-center gap-2 ${className}`}>
      <progress className="h-1.5 flex-1 accent-woad" max={100} value={way.percent} aria-label={name} />
      {place && <span className="text-soft">{place}</span>}
      {children}
    </p>
  );
}
