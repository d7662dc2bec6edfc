/** A change of the rounds that is looked at before it is made: ladder and figure show it, the text does not yet. */
import { type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { sentence } from "../api/client";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { useSay } from "../ui/overlays";
import { cm } from "../ui/units";
import { askPreview, askReshape, type Preview, type Question, type Reshape } from "./ask";
import type { EditorHandle } from "./editor";

export type Trial = { name: string; question: Question; preview: Preview; was: string };

/** asked: the part as it is; the trial goes when it becomes another. */
export function useTrial(design: Design, asked: Question, editor: RefObject<EditorHandle | null>) {
  const say = useSay();
  const [tried, setTried] = useState<Trial | null>(null);
  const latest = useRef(0);
  const attempt = useCallback(
    async (change: Reshape, name: string) => {
      const turn = ++latest.current;
      const was = editor.current?.text() ?? asked.text;
      try {
        const { text } = await askReshape(was, design, { ...change, lean: design.gauge_now.lean });
        const question = { ...asked, text };
        const preview = await askPreview(question);
        if (turn === latest.current) setTried({ name, question, preview, was });
      } catch (e) {
        say(sentence(e), true);
      }
    },
    [design, asked, editor, say],
  );
  const leave = useCallback(() => {
    latest.current++;
    setTried(null);
  }, []);
  const keep = useCallback(() => {
    if (tried && editor.current?.text() === tried.was) editor.current.replace(tried.question.text);
    leave();
  }, [tried, editor, leave]);
  // What she types meanwhile is newer than the change that was tried.
  const stale = tried !== null && asked.text !== tried.was;
  useEffect(() => {
    if (stale) leave();
  }, [stale, leave]);
  return { trial: stale ? null : tried, attempt, keep, leave };
}

/** What the change would do, to be kept or left. */
export function TrialBar({
  trial,
  now,
  onKeep,
  onLeave,
}: {
  trial: Trial;
  now: Preview | null;
  onKeep: () => void;
  onLeave: () => void;
}) {
  const keep = useRef<HTMLButtonElement>(null);
  // The menu or dialog that asked for it gives the focus back first.
  useEffect(() => {
    const soon = setTimeout(() => keep.current?.focus(), 0);
    return () => clearTimeout(soon);
  }, []);
  return (
    <section
      aria-label="A change to look at"
      className="flex flex-wrap items-center gap-2 border-b border-weld bg-weld-ground px-2 py-1"
      onKeyDown={(e) => e.key === "Escape" && onLeave()}
    >
      <p className="min-w-40 flex-1 text-sm" role="status">
        <b>{trial.name}</b>: {told(trial, now)}
      </p>
      <Button ref={keep} weight="main" onClick={onKeep}>
        Keep it
      </Button>
      <Button onClick={onLeave}>Leave it as it was</Button>
    </section>
  );
}

/** In numbers: lines, rounds, stitches and height, before and after. */
export function told({ question, preview, was }: Trial, now: Preview | null): string {
  const before = was.split("\n");
  const after = question.text.split("\n");
  const gone = without(before, after);
  const fresh = without(after, before);
  const said = [`${fresh} ${fresh === 1 ? "line" : "lines"} new, ${gone} gone`];
  const pairs: [number | undefined, number | undefined, string][] = [
    [now?.part.rounds.length, preview.part.rounds.length, "rounds"],
    [now?.size?.stitches, preview.size?.stitches, "stitches"],
  ];
  for (const [a, b, what] of pairs)
    said.push(a === b ? `${b ?? 0} ${what} as before` : `${a ?? 0} → ${b ?? 0} ${what}`);
  if (now?.size && preview.size)
    said.push(`≈ ${cm(now.size.height.value)} → ${cm(preview.size.height.value)} tall`);
  const faults = preview.problems.filter((p) => p.severity === "fault").length;
  if (faults) said.push(`${faults} ${faults === 1 ? "fault" : "faults"}`);
  return said.join(", ");
}

/** How many lines of `a` are not in `b`. */
function without(a: string[], b: string[]): number {
  const left = new Map<string, number>();
  for (const line of b) left.set(line, (left.get(line) ?? 0) + 1);
  let many = 0;
  for (const line of a) {
    const have = left.get(line) ?? 0;
    if (have) left.set(line, have - 1);
    else many++;
  }
  return many;
}
