/** Changes of whole lines of rounds: one repeat more or less, numbers in order, plain text in and out. */

const LABEL =
  /^(\s*(?:[-•*]\s+)?(?:R|Rnd|Rd|Round|Row)\.?\s*)(\d+)(\s*(?:-|–|to)\s*(?:R|Rnd|Round)?\s*)?(\d+)?/i;
const TIMES = /((?:[x×*])\s*)(\d+)(?!.*(?:[x×*])\s*\d)|(\d+)(\s*times)/i;
const PLAIN = /(\d+)(\s*(?:sc|dc|hdc|htr|tr|X)\b)/;

/** The line with its repeat (or its only number of stitches) changed by `by`; null when there is none to change. */
export function withRepeat(line: string, by: number): string | null {
  const label = LABEL.exec(line)?.[0] ?? "";
  const body = line.slice(label.length);
  const change = (digits: string) => Math.max(1, Number(digits) + by);
  const times = TIMES.exec(body);
  if (times) {
    const made =
      times[2] !== undefined ? `${times[1]}${change(times[2])}` : `${change(times[3] ?? "1")}${times[4]}`;
    return label + body.slice(0, times.index) + made + body.slice(times.index + times[0].length);
  }
  const plain = PLAIN.exec(body);
  if (!plain) return null;
  return (
    label +
    body.slice(0, plain.index) +
    change(plain[1] ?? "1") +
    plain[2] +
    body.slice(plain.index + plain[0].length)
  );
}

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

/** The text with its rounds numbered in order from the first one's number; ranges keep their length. */
export function renumbered(text: string): string {
  let next: number | null = null;
  return text
    .split("\n")
    .map((line) => {
      const found = LABEL.exec(line);
      if (!found) return line;
      const [whole, word, first, dash, last] = found;
      const length = last ? Math.max(0, Number(last) - Number(first)) : 0;
      const start: number = next ?? Math.min(Number(first), 1);
      next = start + length + 1;
      return `${word}${start}${last ? `${dash}${start + length}` : ""}${line.slice(whole.length)}`;
    })
    .join("\n");
}

/** Whether any line stands for several rounds. */
export function isFolded(text: string): boolean {
  return /^\s*(?:R|Rnd|Round)s?\.?\s*\d+\s*(?:-|–|to)\s*(?:R|Rnd|Round)?\s*\d+/im.test(text);
}
