/** CodeMirror for written rounds: coloured and faulted by the server's spans. */
import { autocompletion, type Completion, type CompletionContext } from "@codemirror/autocomplete";
import {
  copyLineDown,
  defaultKeymap,
  deleteLine,
  history,
  historyKeymap,
  moveLineDown,
  moveLineUp,
} from "@codemirror/commands";
import { type Diagnostic, lintGutter, setDiagnostics } from "@codemirror/lint";
import {
  Annotation,
  EditorSelection,
  type Extension,
  RangeSetBuilder,
  StateEffect,
  StateField,
  type Transaction,
  type TransactionSpec,
} from "@codemirror/state";
import {
  type Command,
  Decoration,
  type DecorationSet,
  drawSelection,
  EditorView,
  GutterMarker,
  gutter,
  highlightActiveLine,
  hoverTooltip,
  keymap,
} from "@codemirror/view";
import words from "../api/words.json";
import type { Preview } from "./ask";
import { difference } from "./difference";
import { toUnits } from "./positions";

type Word = { word: string; name: string; how: string; takes: number; gives: number };
export type Terms = keyof typeof words;

const setSpans = StateEffect.define<DecorationSet>();
const spans = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects) if (effect.is(setSpans)) return effect.value;
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const setLit = StateEffect.define<number | null>();
const litLine = Decoration.line({ class: "spirrel-lit" });
const lit = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setLit)) {
        const line = effect.value;
        if (line === null || line < 1 || line > transaction.state.doc.lines) return Decoration.none;
        return Decoration.set([litLine.range(transaction.state.doc.line(line).from)]);
      }
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

class Count extends GutterMarker {
  constructor(readonly text: string) {
    super();
  }
  override eq(other: Count) {
    return other.text === this.text;
  }
  override toDOM() {
    return document.createTextNode(this.text);
  }
}

const setCounts = StateEffect.define<Map<number, string>>();
const counts = StateField.define<Map<number, string>>({
  create: () => new Map(),
  update(value, transaction) {
    for (const effect of transaction.effects) if (effect.is(setCounts)) return effect.value;
    return value;
  },
});

const countGutter = gutter({
  class: "cm-counts",
  lineMarker(view, line) {
    const text = view.state.field(counts).get(view.state.doc.lineAt(line.from).number);
    return text ? new Count(text) : null;
  },
  lineMarkerChange: (update) => update.transactions.some((t) => t.effects.some((e) => e.is(setCounts))),
  initialSpacer: () => new Count("000"),
});

const MARKS = Object.fromEntries(
  [
    "label",
    "stitch",
    "increase",
    "decrease",
    "number",
    "count",
    "colour",
    "step",
    "heading",
    "head",
    "note",
  ].map((kind) => [kind, Decoration.mark({ class: `tok-${kind}` })]),
);

const setRepeats = StateEffect.define<[number, number, string][]>();
const repeats = StateField.define<[number, number, string][]>({
  create: () => [],
  update(value, transaction) {
    for (const effect of transaction.effects) if (effect.is(setRepeats)) return effect.value;
    return transaction.docChanged ? [] : value;
  },
});

/** What a word means and what a repeat comes to, on pointing at them. */
function meaning(terms: Terms) {
  const known = new Map((words[terms] as Word[]).map((w) => [w.word.toLowerCase(), w]));
  return hoverTooltip((view, pos) => {
    const line = view.state.doc.lineAt(pos);
    const at = pos - line.from;
    const repeat = view.state
      .field(repeats)
      .filter(([from, to]) => from <= pos && pos <= to)
      .sort((a, b) => a[1] - a[0] - (b[1] - b[0]))[0];
    const word = [...line.text.matchAll(/[A-Za-z][A-Za-z0-9]*(?: st| dec| inc)?/g)].find(
      (m) => m.index <= at && at <= m.index + m[0].length,
    );
    const found =
      word && (known.get(word[0].toLowerCase()) ?? known.get(word[0].split(" ")[0]?.toLowerCase() ?? ""));
    if (!repeat && !found) return null;
    const from = found && word ? line.from + word.index : (repeat?.[0] ?? pos);
    return {
      pos: from,
      end: found && word ? from + word[0].length : repeat?.[1],
      above: true,
      create: () => {
        const dom = document.createElement("div");
        dom.className = "spirrel-meaning";
        const lines = [
          found && `${found.word}: ${found.name}. Takes ${found.takes}, gives ${found.gives}.`,
          found?.how,
          repeat && `This repeat ${repeat[2]}.`,
        ];
        for (const text of lines.filter((l): l is string => Boolean(l))) {
          const p = document.createElement("p");
          p.textContent = text;
          dom.append(p);
        }
        return { dom };
      },
    };
  });
}

/** Show what the server found in a text; nothing happens when the text has moved on. */
export function showPreview(view: EditorView, preview: Preview, asked: string): void {
  const text = view.state.doc.toString();
  if (text !== asked) return;
  const unit = toUnits(text);
  const marks = new RangeSetBuilder<Decoration>();
  for (const [start, end, kind] of preview.spans) {
    const mark = MARKS[kind];
    if (mark && end > start) marks.add(unit(start), unit(end), mark);
  }
  const live = new Map<number, string>();
  for (const r of preview.part.rounds) live.set(r.line, String(r.live));
  const severities = { fault: "error", warning: "warning", hint: "info" } as const;
  const problems: Diagnostic[] = preview.problems.map((p) => {
    const { fix } = p;
    return {
      from: unit(p.start),
      to: Math.max(unit(p.end), Math.min(unit(p.start) + 1, text.length)),
      severity: severities[p.severity],
      message: p.message,
      actions: fix
        ? [
            {
              name: fix.label,
              apply: (target: EditorView) => applyFix(target, unit(fix.start), unit(fix.end), fix.text),
            },
          ]
        : [],
    };
  });
  const said = preview.repeats.map(([start, end, words]): [number, number, string] => [
    unit(start),
    unit(end),
    words,
  ]);
  view.dispatch({ effects: [setSpans.of(marks.finish()), setCounts.of(live), setRepeats.of(said)] });
  view.dispatch(setDiagnostics(view.state, problems));
}

export function applyFix(view: EditorView, from: number, to: number, insert: string): void {
  view.dispatch({ changes: { from, to, insert }, userEvent: "input.mend" });
}

export function lightLine(view: EditorView, line: number | null): void {
  view.dispatch({ effects: setLit.of(line) });
}

function completions(terms: Terms) {
  const options: Completion[] = (words[terms] as Word[]).map((w) => ({
    label: w.word,
    detail: w.name,
    info: `${w.how} Takes ${w.takes}, gives ${w.gives}.`,
    type: "keyword",
  }));
  const more: Completion[] = [
    { label: "around", detail: "to the end of the round" },
    { label: "in ring", detail: "the start: 6 sc in ring" },
    { label: "join", detail: "close the round with a slip stitch" },
    { label: "BLO: ", detail: "the whole round in back loops only" },
    { label: "FLO: ", detail: "the whole round in front loops only" },
    { label: "Change to ", detail: "another colour from here on" },
    { label: "turn", detail: "go back in a row" },
    { label: "skip ", detail: "pass stitches: skip 12" },
    { label: "leave the rest", detail: "end the round early" },
    { label: "shift ", detail: "stitches that only move the start" },
    { label: "in same st", detail: "into the place of the last stitch" },
    { label: "along the other side of the chain", detail: "the underside of a starting chain" },
    { label: "through both layers", detail: "close a limb pressed flat" },
    { label: "on the held stitches", detail: "go on where stitches wait" },
    { label: "in the free front loops of R", detail: "a skirt, a brim" },
    { label: "from 2nd ch", detail: "begin along a chain" },
    { label: "repeat R", detail: "earlier rounds once more: repeat R3-R4" },
  ];
  return (context: CompletionContext) => {
    const word = context.matchBefore(/[A-Za-z]+/);
    if (!word && !context.explicit) return null;
    return { from: word?.from ?? context.pos, options: [...options, ...more] };
  };
}

/** What a line command wants of the studio: the text to put in order, or the line whose repeat changes. */
export type LineQuestion =
  | { do: "number"; text: string }
  | { do: "repeat"; text: string; line: number; by: number };

/** Asks the studio; null when it cannot say, or nothing is to change. */
export type LineCommand = (question: LineQuestion) => Promise<string | null>;

function changeRepeat(by: number, ask: LineCommand) {
  return (view: EditorView) => {
    const before = view.state.doc.toString();
    const line = view.state.doc.lineAt(view.state.selection.main.head).number;
    void ask({ do: "repeat", text: before, line, by }).then((made) => {
      if (made === null || view.state.doc.toString() !== before) return;
      view.dispatch({ changes: difference(before, made), userEvent: "input.repeat" });
    });
    return true;
  };
}

/** What a command would do, without its being done. */
function triedOut(view: EditorView, command: Command): Transaction | null {
  let made: Transaction | null = null;
  const stand = Object.create(view, {
    dispatch: {
      value: (asked: Transaction | TransactionSpec) => {
        made = "newDoc" in asked ? asked : view.state.update(asked);
      },
    },
  }) as EditorView;
  command(stand);
  return made;
}

/** Run a line command, and have the numbers of the rounds put in order: one change, one undo. */
function thenNumber(command: Command, ask: LineCommand) {
  let queue: Promise<void> = Promise.resolve();
  return (view: EditorView) => {
    queue = queue.then(async () => {
      const made = triedOut(view, command);
      if (!made) return;
      const before = view.state;
      const moved = made.state.doc.toString();
      const numbered = (await ask({ do: "number", text: moved })) ?? moved;
      // What she typed while the studio thought stays: the command goes by what stands there then.
      if (!view.state.doc.eq(before.doc)) {
        command(view);
        return;
      }
      const head = made.state.doc.lineAt(made.state.selection.main.head).number;
      view.dispatch({ changes: difference(before.doc.toString(), numbered), userEvent: "input.line" });
      const target = view.state.doc.line(Math.min(head, view.state.doc.lines));
      view.dispatch({ selection: EditorSelection.cursor(target.from) });
    });
    return true;
  };
}

/** Marks a text that was saved already, elsewhere: showing it is no typing. */
export const fromElsewhere = Annotation.define<boolean>();

type Hooks = {
  onText: (text: string) => void;
  onLine: (line: number) => void;
  onBlur: () => void;
  onFold: () => void;
  onLineCommand: LineCommand;
};

/** Everything the editor is made of. */
export function extensions(terms: Terms, hooks: Hooks): Extension[] {
  return [
    history(),
    drawSelection(),
    highlightActiveLine(),
    EditorView.lineWrapping,
    spans,
    lit,
    counts,
    repeats,
    meaning(terms),
    lintGutter(),
    countGutter,
    autocompletion({ override: [completions(terms)], activateOnTyping: true }),
    keymap.of([
      { key: "Alt-ArrowUp", run: thenNumber(moveLineUp, hooks.onLineCommand) },
      { key: "Alt-ArrowDown", run: thenNumber(moveLineDown, hooks.onLineCommand) },
      { key: "Shift-Alt-ArrowDown", run: thenNumber(copyLineDown, hooks.onLineCommand) },
      { key: "Ctrl-Shift-k", run: thenNumber(deleteLine, hooks.onLineCommand) },
      { key: "Alt-=", run: changeRepeat(1, hooks.onLineCommand) },
      { key: "Alt-+", run: changeRepeat(1, hooks.onLineCommand) },
      { key: "Alt--", run: changeRepeat(-1, hooks.onLineCommand) },
      {
        key: "Alt-f",
        run: () => {
          hooks.onFold();
          return true;
        },
      },
      ...defaultKeymap,
      ...historyKeymap,
    ]),
    EditorView.contentAttributes.of({ "aria-label": "Written rounds", spellcheck: "false", tabindex: "0" }),
    EditorView.updateListener.of((update) => {
      const typed = update.transactions.some((t) => t.docChanged && !t.annotation(fromElsewhere));
      if (typed) hooks.onText(update.state.doc.toString());
      // A change made on the ladder leaves the choice there, wherever the cursor is.
      const reshaped = update.transactions.some((t) => t.isUserEvent("input.reshape"));
      if ((update.selectionSet || update.docChanged) && !reshaped)
        hooks.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
      if (update.focusChanged && !update.view.hasFocus) hooks.onBlur();
    }),
  ];
}
