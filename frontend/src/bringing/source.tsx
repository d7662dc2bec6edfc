/** The text as it was written, every row with what it was taken for. */
import { Fragment, useCallback, useEffect, useRef, useState } from "react";
import type { Board, BoardLine } from "./ask";
import { ExplainWord } from "./explain-word";
import { PartInTwo } from "./part-in-two";
import { Row, type RowAct } from "./row";
import { explained, joined, linesOf, type Place, partedAt, takenFor, wholeAgain } from "./said";
import type { BoardState } from "./use-board";

const nameOf = ({ line, column }: Place) => `${line} ${column}`;

/** Which row is looked at, and the way from row to row. */
export function useRows(board: Board) {
  const [current, setCurrent] = useState<string>("");
  const buttons = useRef(new Map<string, HTMLButtonElement>());
  const at = Math.max(
    0,
    board.lines.findIndex((l) => nameOf(l) === current),
  );
  const go = useCallback((place: Place) => {
    setCurrent(nameOf(place));
    const button = buttons.current.get(nameOf(place));
    button?.focus();
    button?.closest("li")?.scrollIntoView?.({ block: "nearest" });
  }, []);
  const walk = (key: string): boolean => {
    const last = board.lines.length - 1;
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, PageDown: at + 12, PageUp: at - 12, Home: 0, End: last }[
      key
    ];
    const next = to === undefined ? undefined : board.lines[Math.max(0, Math.min(last, to))];
    if (!next) return false;
    go(next);
    return true;
  };
  return { at, go, walk, setCurrent, buttons };
}

export type Rows = ReturnType<typeof useRows>;

type Open = { what: "part" | "explain"; place: string } | null;

export function Source({ state, board, rows }: { state: BoardState; board: Board; rows: Rows }) {
  const [open, setOpen] = useState<Open>(null);
  const raw = linesOf(state.written?.text ?? "");
  const back = useRef<string | null>(null);
  // A form over a row is gone: the row has the focus again, once it is there.
  useEffect(() => {
    if (open || !back.current) return;
    rows.buttons.current.get(back.current)?.focus();
    back.current = null;
  });
  const close = (line: BoardLine) => {
    back.current = nameOf(line);
    setOpen(null);
  };
  const act = (line: BoardLine, asked: RowAct) => {
    const { said, say } = state;
    if (asked.do === "take") say(takenFor(said, line, asked.taken));
    else if (asked.do === "join") say(joined(said, ending(line), true));
    else if (asked.do === "unjoin") say(apart(state, line));
    else if (asked.do === "whole") say(wholeAgain(said, line));
    else setOpen({ what: asked.do, place: nameOf(line) });
  };
  return (
    <ol aria-label="Line by line" className="flex flex-col">
      {board.lines.map((line, i) => {
        const name = nameOf(line);
        return (
          <Fragment key={name}>
            <Row
              line={line}
              current={i === rows.at}
              marker={(node) => {
                if (node) rows.buttons.current.set(name, node);
                else rows.buttons.current.delete(name);
              }}
              onCurrent={() => rows.setCurrent(name)}
              onAct={(asked) => act(line, asked)}
              onWalk={rows.walk}
            />
            {open?.place === name && (
              <li>
                {open.what === "part" ? (
                  <PartInTwo
                    raw={raw[line.line - 1] ?? ""}
                    column={line.column}
                    onPart={(column) => {
                      state.say(partedAt(state.said, { line: line.line, column }));
                      close(line);
                    }}
                    onCancel={() => close(line)}
                  />
                ) : (
                  <ExplainWord
                    text={line.text}
                    message={line.message}
                    onExplain={async (word, means) => {
                      await state.trySaying(explained(state.said, word, means));
                      close(line);
                    }}
                    onCancel={() => close(line)}
                  />
                )}
              </li>
            )}
          </Fragment>
        );
      })}
      {board.more_lines > 0 && <li className="p-2 text-soft">and {board.more_lines} more lines</li>}
    </ol>
  );
}

/** The last line of a row, on which it is said that it goes on. */
function ending(line: BoardLine): Place {
  return line.last_line === line.line ? line : { line: line.last_line, column: 0 };
}

/** The lines of a row that were joined, each for itself again. */
function apart(state: BoardState, line: BoardLine) {
  return state.said.corrections
    .filter((c) => c.joined && c.line >= line.line && c.line <= line.last_line)
    .reduce((said, c) => joined(said, c, false), state.said);
}
