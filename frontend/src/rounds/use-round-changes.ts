/** Changes of the rounds by way of the studio: tidied, reshaped on the ladder, moved line by line. */
import { type RefObject, useCallback, useMemo, useRef } from "react";
import { sentence } from "../api/client";
import type { Design } from "../design/design";
import type { Range } from "../figure/ladder";
import { useCommands } from "../ui/keys";
import { useSay } from "../ui/overlays";
import { askReshape, askTidy, type Preview, type Reshape } from "./ask";
import type { EditorHandle } from "./editor";
import type { LineCommand } from "./setup";
import { changeOf, NO_CHANGE } from "./shaping-menu";

export function useRoundChanges(
  design: Design,
  editor: RefObject<EditorHandle | null>,
  rounds: Preview["part"]["rounds"],
  range: Range | null,
  lit: number | null,
) {
  const say = useSay();
  const queue = useRef<Promise<void>>(Promise.resolve());
  /** Change the text by way of the studio; one change after the other, each on what stands there then. */
  const write = useCallback(
    (change: (now: string) => Promise<{ text: string }>) => {
      queue.current = queue.current.then(async () => {
        const before = editor.current?.text() ?? "";
        try {
          const { text: next } = await change(before);
          // What she typed while the studio thought is newer than its answer.
          if (editor.current?.text() === before) editor.current.replace(next);
        } catch (e) {
          say(sentence(e), true);
        }
      });
      return queue.current;
    },
    [say, editor],
  );
  const tidy = useCallback((fold: boolean) => write((now) => askTidy(now, design, fold)), [design, write]);
  const reshape = useCallback(
    (change: Reshape) =>
      void write((now) => askReshape(now, design, { ...change, lean: design.gauge_now.lean })),
    [design, write],
  );
  const lineCommand = useCallback<LineCommand>(
    async (command) => {
      const { text: now, ...change } = command;
      const asked = "line" in change ? { do: change.do, first: change.line, by: change.by } : change;
      try {
        return (await askReshape(now, design, { ...NO_CHANGE, ...asked })).text;
      } catch (e) {
        say(sentence(e), true);
        return null;
      }
    },
    [design, say],
  );
  const widen = useCallback(
    (round: number, by: number) => reshape(changeOf(rounds, { from: round, to: round }, { do: "widen", by })),
    [reshape, rounds],
  );
  const move = useCallback(
    (by: number) => {
      const chosen = range ?? (lit === null ? null : { from: lit, to: lit });
      if (chosen) reshape(changeOf(rounds, chosen, { do: "move", by }));
    },
    [reshape, rounds, range, lit],
  );
  const commands = useMemo(
    () => [
      { name: "Tidy the rounds and fold equal ones", run: () => void tidy(true) },
      { name: "Tidy the rounds, no folding", run: () => void tidy(false) },
    ],
    [tidy],
  );
  useCommands(commands);
  return { tidy, reshape, lineCommand, widen, move };
}
