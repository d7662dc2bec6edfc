/** Bringing a written pattern in: read, corrected on the board, and only then taken into a design, or made one. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Redo2, Undo2 } from "lucide-react";
import { type KeyboardEvent, useCallback, useEffect, useRef, useState } from "react";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import { type Design, useAct } from "../design/design";
import { Button, IconButton } from "../ui/controls";
import { isTyping } from "../ui/keys";
import { Dialog, useSay } from "../ui/overlays";
import { type Board, bodyOf } from "./ask";
import { Asking } from "./asking";
import { type Choice, Outcome } from "./outcome";
import type { Terms } from "./said";
import { Source, useRows } from "./source";
import { type BoardState, useBoard } from "./use-board";
import { useText } from "./use-text";

const ALL: Choice = { out: new Set(), sections: true, theirs: null };

type Taking = {
  /** What the button says for so many parts. */
  label: (parts: number) => string;
  busy: boolean;
  error: string | null;
  take: (text: Schemas["BringIn"]) => void;
};

/** The board with all that can be done on it. */
function Desk({
  state,
  board,
  taking,
  onOther,
}: {
  state: BoardState;
  board: Board;
  taking: Taking;
  onOther: () => void;
}) {
  const rows = useRows(board);
  const [choice, setChoice] = useState(ALL);
  const first = useRef(board.lines[0]);
  // The first line has the focus when the board appears: its keys work at once.
  useEffect(() => {
    if (first.current) rows.go(first.current);
  }, [rows.go]);
  const parts = board.parts.map((_, i) => i).filter((i) => !choice.out.has(i));
  const error = taking.error ?? (state.error ? sentence(state.error) : null);
  const press = (e: KeyboardEvent) => {
    if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== "z" || isTyping(e.target)) return;
    e.preventDefault();
    if (e.shiftKey) state.redo?.();
    else state.undo?.();
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: undo and redo hold on the whole board
    <div className="flex flex-col gap-2 md:min-h-0 md:flex-1" onKeyDown={press}>
      {error && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
          {error}
        </p>
      )}
      {state.written?.notes.map((note) => (
        <p key={note} className="border-l-4 border-woad bg-woad-ground px-2 py-0.5 text-sm">
          {note}
        </p>
      ))}
      <div className="grid gap-4 md:min-h-0 md:flex-1 md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <section
          aria-label="As it is written"
          aria-busy={state.reading}
          className="rounded border border-line md:min-h-0 md:overflow-auto"
        >
          <Source state={state} board={board} rows={rows} />
        </section>
        <div className="md:min-h-0 md:overflow-auto md:pr-1">
          <Outcome state={state} board={board} choice={choice} onChoice={setChoice} onGo={rows.go} />
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-2 border-t border-line pt-2">
        <IconButton label="Undo the last correction" disabled={!state.undo} onClick={() => state.undo?.()}>
          <Undo2 size={18} />
        </IconButton>
        <IconButton label="Do it again" disabled={!state.redo} onClick={() => state.redo?.()}>
          <Redo2 size={18} />
        </IconButton>
        <span className="hidden text-sm text-soft md:inline">
          Arrows walk the lines; one letter says what a line is: h heading, r round, d direction, n note, x
          left out …
        </span>
        <span className="flex-1" />
        <Button onClick={onOther}>Another text</Button>
        <Button
          weight="main"
          disabled={!parts.length || taking.busy || state.reading || board.unconverted !== null}
          onClick={() =>
            state.written &&
            taking.take({
              ...bodyOf(state.written, state.said),
              parts,
              sections: choice.sections,
              theirs: choice.theirs,
            })
          }
        >
          {taking.busy ? "Bringing it in …" : taking.label(parts.length)}
        </Button>
      </div>
    </div>
  );
}

function BringIn({
  place,
  into,
  open,
  onOpen,
  title,
  taking,
  onFile,
}: {
  place: string;
  into: Terms | null;
  open: boolean;
  onOpen: (open: boolean) => void;
  title: string;
  taking: (done: () => void) => Taking;
  onFile?: (file: File) => boolean;
}) {
  const state = useBoard(place, into);
  // Kept here, so that it is still there when she comes back from what was found in it.
  const [typed, setTyped] = useState("");
  const text = useText(useCallback((written) => state.start(written), [state.start]));
  const own = taking(() => {
    state.start(null);
    setTyped("");
    onOpen(false);
  });
  const said = text.error ?? (state.board ? null : state.error && sentence(state.error)) ?? own.error;
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      wide
      whole={state.board !== null}
      title={title}
      about={
        state.board
          ? undefined
          : "In English, German, French, Spanish, Italian or Dutch, in any manner. Nothing is kept before you have seen what was understood, and put right what was not."
      }
    >
      {!state.board && said && (
        <p role="alert" className="mb-3 border-l-4 border-madder bg-madder-ground px-2 py-1">
          {said}
        </p>
      )}
      {state.board ? (
        <Desk
          key={state.written?.text}
          state={state}
          board={state.board}
          taking={own}
          onOther={() => state.start(null)}
        />
      ) : state.written && !state.error ? (
        <p role="status" className="p-4 text-soft">
          Reading …
        </p>
      ) : (
        <Asking text={text} typed={typed} onTyped={setTyped} onFile={onFile} />
      )}
    </Dialog>
  );
}

const parts = (n: number) => `${n} part${n === 1 ? "" : "s"}`;

/** Parts of a written pattern into a design, as one step. */
export function BringIntoDesign({
  design,
  open,
  onOpen,
  onMade,
}: {
  design: Design;
  open: boolean;
  onOpen: (open: boolean) => void;
  onMade: (key: string) => void;
}) {
  const act = useAct(design.id, () => true);
  const say = useSay();
  return (
    <BringIn
      place={String(design.id)}
      into={design.terms}
      open={open}
      onOpen={onOpen}
      title="Bring in rounds"
      taking={(done) => ({
        label: (n) => `Bring in ${parts(n)}`,
        busy: act.isPending,
        error: act.error ? sentence(act.error) : null,
        take: (text) =>
          act.mutate(
            { do: "bring-in", text },
            {
              onSuccess: (made) => {
                const many = made.parts.length - design.parts.length;
                say(`Brought in ${parts(many)}. Undo takes them out again.`);
                onMade(made.parts.at(-many)?.key ?? "");
                done();
              },
            },
          ),
      })}
    />
  );
}

/** A design made of a written pattern, or of the file of a design. */
export function BringInDesign({
  open,
  onOpen,
  onMade,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  onMade: (made: Schemas["DesignOut"]) => void;
}) {
  const queries = useQueryClient();
  const say = useSay();
  const made = (design: Schemas["DesignOut"]) => {
    queries.invalidateQueries({ queryKey: ["shelf"] });
    say(`${design.name} is on the shelf, a design of its own.`);
    onOpen(false);
    onMade(design);
  };
  const whole = useMutation({
    mutationFn: (file: File) => postFile<Schemas["DesignOut"]>("/api/designs/from-file", file),
    onSuccess: made,
  });
  const make = useMutation({
    mutationFn: (text: Schemas["BringIn"]) =>
      answer<Schemas["DesignOut"]>(api.POST("/api/designs/brought", { body: text })),
  });
  const refused = make.error ?? whole.error;
  return (
    <BringIn
      place="shelf"
      into={null}
      open={open}
      onOpen={onOpen}
      title="Bring in a design"
      onFile={(file) => {
        // The file of a design is whole: there is nothing to correct in it.
        if (!file.name.toLowerCase().endsWith(".json")) return false;
        whole.mutate(file);
        return true;
      }}
      taking={(done) => ({
        label: (n) => `Make a design of ${parts(n)}`,
        busy: make.isPending || whole.isPending,
        error: refused ? sentence(refused) : null,
        take: (text) =>
          make.mutate(text, {
            onSuccess: (design) => {
              done();
              made(design);
            },
          }),
      })}
    />
  );
}
