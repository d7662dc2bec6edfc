/** How one text becomes another. */

/** The one stretch in which two texts differ, so that cursor and marks elsewhere stay. */
export function difference(before: string, after: string): { from: number; to: number; insert: string }[] {
  if (before === after) return [];
  const most = Math.min(before.length, after.length);
  let from = 0;
  while (from < most && before[from] === after[from]) from++;
  let end = 0;
  while (end < most - from && before[before.length - 1 - end] === after[after.length - 1 - end]) end++;
  return [{ from, to: before.length - end, insert: after.slice(from, after.length - end) }];
}
