/** The editor of written rounds. Text goes in once; what is typed comes out through `onText`. */
import { EditorState } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { type Ref, useEffect, useImperativeHandle, useRef } from "react";
import type { Preview } from "./ask";
import { difference } from "./difference";
import {
  applyFix,
  extensions,
  fromElsewhere,
  type LineCommand,
  lightLine,
  showPreview,
  type Terms,
} from "./setup";

export type EditorHandle = {
  /** Write another text, as a command of hers does. */
  replace: (text: string) => void;
  /** Show a text that was saved elsewhere. */
  show: (text: string) => void;
  /** What stands in it now, ahead of what the screen has followed to. */
  text: () => string;
  mend: (from: number, to: number, text: string) => void;
  goTo: (line: number) => void;
};

type Props = {
  text: string;
  /** Text that a line command makes, put right by the studio: numbers in order, or one repeat more. */
  onLineCommand: LineCommand;
  terms: Terms;
  preview: { answer: Preview; asked: string } | null;
  lit: number | null;
  onText: (text: string) => void;
  onLine: (line: number) => void;
  onBlur: () => void;
  onFold: () => void;
  ref?: Ref<EditorHandle>;
};

export function Editor({ text, terms, preview, lit, ref, ...asked }: Props) {
  const home = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const hooks = useRef(asked);
  hooks.current = asked;
  const first = useRef(text);
  useEffect(() => {
    if (!home.current) return;
    const made = new EditorView({
      parent: home.current,
      state: EditorState.create({
        doc: first.current,
        extensions: extensions(terms, {
          onText: (t) => hooks.current.onText(t),
          onLine: (n) => hooks.current.onLine(n),
          onBlur: () => hooks.current.onBlur(),
          onFold: () => hooks.current.onFold(),
          onLineCommand: (command) => hooks.current.onLineCommand(command),
        }),
      }),
    });
    view.current = made;
    return () => {
      first.current = made.state.doc.toString();
      made.destroy();
    };
  }, [terms]);
  useEffect(() => {
    if (view.current && preview) showPreview(view.current, preview.answer, preview.asked);
  }, [preview]);
  useEffect(() => {
    if (view.current) lightLine(view.current, lit);
  }, [lit]);
  useImperativeHandle(ref, () => ({
    replace(next) {
      const v = view.current;
      if (v) v.dispatch({ changes: difference(v.state.doc.toString(), next), userEvent: "input.reshape" });
    },
    show(next) {
      const v = view.current;
      if (v && v.state.doc.toString() !== next)
        v.dispatch({
          changes: { from: 0, to: v.state.doc.length, insert: next },
          annotations: fromElsewhere.of(true),
        });
    },
    text() {
      return view.current?.state.doc.toString() ?? first.current;
    },
    mend(from, to, insert) {
      if (view.current) applyFix(view.current, from, to, insert);
    },
    goTo(line) {
      const v = view.current;
      if (!v || line < 1 || line > v.state.doc.lines) return;
      v.dispatch({ selection: { anchor: v.state.doc.line(line).from }, scrollIntoView: true });
      v.focus();
    },
  }));
  return <div ref={home} className="h-full overflow-hidden rounded border border-strong" />;
}
