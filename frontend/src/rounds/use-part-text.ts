/** A part's text with autosave: typed at once, saved after a breath, kept as a version when she rests. */
import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import { type Design, type Part, useAct } from "../design/design";
import { beforeActing, whenShownAnew } from "../design/pending";
import { holdUnsent } from "../design/unsent";
import { useLeaving } from "../design/use-leaving";
import { TextSaver } from "./text-saver";

export function usePartText(design: Design, part: Part, onOutside: (text: string) => void) {
  const [saver] = useState(() => new TextSaver(design.id, part.key, part));
  const [shown, setShown] = useState(saver.first);
  const act = useAct(design.id);
  saver.show = (change) => setShown((was) => ({ ...was, ...change }));
  saver.keepVersion = () => act.mutate({ do: "version", key: part.key });
  const outside = useRef(onOutside);
  outside.current = onOutside;

  const type = useCallback(
    (text: string) => {
      // "Not saved yet" is told at once. The editor has the text already, so the rest of the screen may
      // follow when it can, however fast she types.
      if (saver.type(text)) saver.show({ state: "unsaved" });
      startTransition(() => saver.show({ text }));
    },
    [saver],
  );

  // An undo or another shape: what it shows goes, since everything typed was sent before.
  useEffect(
    () =>
      whenShownAnew(design.id, (now) => {
        const mine = now.parts.find((p) => p.key === part.key);
        if (mine && saver.takeAnew(mine)) outside.current(mine.text);
      }),
    [design.id, part.key, saver],
  );

  // Another window changed the part. An answer with a tag that was passed already is only late.
  useEffect(() => {
    if (saver.hear(part)) outside.current(part.text);
  }, [part, saver]);

  useEffect(() => beforeActing(design.id, () => saver.flush()), [design.id, saver]);

  // While it is open this screen sends its text itself; afterwards any stop does.
  useEffect(() => holdUnsent(design.id, `text-${part.key}`), [design.id, part.key]);

  useLeaving(saver);

  const { conflict } = shown;
  const settle = useCallback(
    (keep: "mine" | "theirs") => {
      if (!conflict) return;
      saver.settle(conflict, keep);
      if (keep === "theirs") outside.current(conflict.theirs);
    },
    [conflict, saver],
  );
  const keep = useCallback(() => saver.keep(), [saver]);
  return { ...shown, type, settle, keep };
}
