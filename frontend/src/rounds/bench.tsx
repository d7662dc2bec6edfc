/** The bench for one part: written rounds, ladder, and figure, chart or dry run, all lighting each other. */
import { startTransition, useMemo, useRef, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { sentence } from "../api/client";
import { type Design, gaugeOf, type Part } from "../design/design";
import { SaveMark } from "../design/save-state";
import type { SaveState } from "../design/use-page";
import { Ladder, type Range } from "../figure/ladder";
import { useLatest } from "../figure/use-latest";
import { Button } from "../ui/controls";
import { askPreview, type Preview, type Question } from "./ask";
import { ConflictDialog } from "./conflict";
import { Editor, type EditorHandle } from "./editor";
import { PartHead } from "./part-head";
import { toUnits } from "./positions";
import { ProblemList, roundFaults } from "./problems";
import { ShapingMenu } from "./shaping-menu";
import { TrialBar, useTrial } from "./trial";
import { useArrival } from "./use-arrival";
import { usePartText } from "./use-part-text";
import { useRoundChanges } from "./use-round-changes";
import { Views } from "./views";

function same(a: Question, b: Question): boolean {
  const gist = (q: Question) =>
    JSON.stringify([
      gaugeOf(q.design, q.part),
      q.design.gauge.yarns,
      q.design.terms,
      q.design.assembly.eyes,
      q.design.parts.map((p) => p.key !== q.part && [p.name, p.make, p.text, p.colour]),
    ]);
  return a.text === b.text && a.colour === b.colour && gist(a) === gist(b);
}

/** What the studio reads in the text, with the text that it read. */
function useRead(asked: Question) {
  return useLatest<Question, { answer: Preview; asked: string }>(
    asked,
    async (q) => ({ answer: await askPreview(q), asked: q.text }),
    same,
  );
}

/** What the studio would not do, or why nothing was read. */
function Trouble({ problem, error }: { problem: { detail: string } | null; error: unknown }) {
  if (problem === null && error === null) return null;
  return (
    <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
      {problem?.detail ?? sentence(error)}
    </p>
  );
}

export function Bench({
  design,
  part,
  arriveAt = null,
}: {
  design: Design;
  part: Part;
  /** The round that is gone to first, where one is. */
  arriveAt?: number | null;
}) {
  const leftHanded = useLeftHanded();
  const editor = useRef<EditorHandle>(null);
  const show = (next: string) => editor.current?.show(next);
  const { text, type, state, conflict, problem, settle, keep } = usePartText(design, part, show);
  const asked = useMemo<Question>(
    () => ({ text, design, colour: part.colour, part: part.key }),
    [text, design, part.colour, part.key],
  );
  const { answer: preview, error } = useRead(asked);
  const [lit, setLit] = useState<number | null>(null);
  const [range, setRange] = useState<Range | null>(null);
  const shown = preview?.answer ?? null;
  const rounds = shown?.part.rounds ?? NO_ROUNDS;
  const { tidy, reshape, lineCommand, widen, move } = useRoundChanges(design, editor, rounds, range, lit);
  const { trial, attempt, keep: keepTrial, leave } = useTrial(design, asked, editor);
  const laid = trial?.preview ?? shown;
  const faults = useMemo(() => (laid ? roundFaults(laid) : new Map()), [laid]);
  const toLine = (line: number) => {
    const at = rounds.findIndex((r) => r.line === line);
    setLit(at >= 0 ? at : null);
  };
  useArrival(arriveAt, shown, (line) => {
    editor.current?.goTo(line);
    toLine(line);
  });
  const named = useMemo(() => coloursIn(shown, text), [shown, text]);
  return (
    <div className="grid min-h-0 flex-1 gap-3 lg:grid-cols-[minmax(0,5fr)_minmax(0,3.4fr)_minmax(0,3.6fr)]">
      <section className="flex min-h-0 flex-col gap-2" aria-label="Written rounds">
        <PartHead design={design} part={part} />
        <div className="min-h-64 flex-1 lg:min-h-0">
          <Editor
            ref={editor}
            text={text}
            terms={design.terms}
            preview={preview}
            lit={lit === null ? null : (rounds[lit]?.line ?? null)}
            onText={type}
            onLine={(line) => startTransition(() => toLine(line))}
            onBlur={() => void keep()}
            onFold={() => void tidy(!shown?.folded)}
            onLineCommand={lineCommand}
          />
        </div>
        <Tidying state={state} folded={shown?.folded ?? false} onTidy={(fold) => void tidy(fold)} />
        <Trouble problem={problem} error={error} />
        {shown && (
          <ProblemList
            preview={shown}
            onGo={(p) => {
              editor.current?.goTo(p.line);
              toLine(p.line);
            }}
            onMend={(fix) => {
              if (preview?.asked !== text) return;
              const unit = toUnits(text);
              editor.current?.mend(unit(fix.start), unit(fix.end), fix.text);
            }}
          />
        )}
      </section>
      <section
        className="flex min-h-64 flex-col rounded-lg border border-line bg-panel lg:min-h-0"
        aria-label="Ladder"
      >
        <div className="border-b border-line px-1 py-0.5">
          <ShapingMenu
            rounds={rounds}
            range={range}
            colours={named}
            yarns={yarnsOf(design)}
            main={part.colour ?? yarnsOf(design)[0] ?? "Main"}
            onChange={reshape}
            onTry={(change, name) => void attempt(change, name)}
          />
        </div>
        {trial && <TrialBar trial={trial} now={shown} onKeep={keepTrial} onLeave={leave} />}
        {laid && (
          <Ladder
            part={laid.part}
            label={`Ladder of ${part.name}`}
            lit={lit}
            onLit={setLit}
            range={range}
            onRange={setRange}
            onWiden={trial ? undefined : widen}
            onMove={trial ? undefined : move}
            steps={laid.steps}
            faults={faults}
            mirrored={leftHanded !== laid.part.inside_out}
            className="min-h-0 flex-1 p-1"
          />
        )}
        <RoundSaid preview={laid} lit={lit} />
      </section>
      <Views asked={trial?.question ?? asked} part={part} preview={laid} lit={lit} onLit={setLit} />
      <ConflictDialog conflict={conflict} name={part.name} settle={settle} />
    </div>
  );
}

/** How it is saved, and the tidying of all rounds. */
function Tidying({
  state,
  folded,
  onTidy,
}: {
  state: SaveState;
  folded: boolean;
  onTidy: (fold: boolean) => void;
}) {
  return (
    <div className="flex items-center justify-between gap-2">
      <SaveMark state={state} />
      <span className="flex gap-1">
        <Button weight="quiet" onClick={() => onTidy(true)}>
          Tidy
        </Button>
        <Button weight="quiet" onClick={() => onTidy(!folded)}>
          {folded ? "Unfold" : "Fold"}
        </Button>
      </span>
    </div>
  );
}

const yarnsOf = (design: Design) => (design.gauge.yarns ?? []).map((y) => y.name);

const NO_ROUNDS: Preview["part"]["rounds"] = [];

/** Colours that the text names, as the server found them. */
function coloursIn(preview: Preview | null, text: string): string[] {
  if (!preview) return [];
  const points = [...text];
  const names = preview.spans
    .filter(([, , kind]) => kind === "colour")
    .map(([start, end]) => points.slice(start, end).join(""))
    .map((said) => said.replace(/^(?:change|switch)(?: colou?r)? to |^colou?r:? |^with |^in /i, "").trim());
  return [...new Set(names.map((n) => n.replace(/[.:,]+$/, "")))];
}

/** The lit round in a sentence, with what is to be done after it. */
function RoundSaid({ preview, lit }: { preview: Preview | null; lit: number | null }) {
  const round = lit === null ? undefined : preview?.part.rounds[lit];
  const then = lit === null ? [] : (preview?.steps.filter((s) => s.after === lit + 1) ?? []);
  return (
    <p className="min-h-12 border-t border-line px-3 py-1.5" aria-live="polite">
      {round ? (
        <>
          {round.sentence}
          {then.length > 0 && <span className="text-soft">. Then: {then.map((s) => s.text).join(" ")}</span>}
        </>
      ) : (
        <span className="text-soft">Point at a round to read it; pull its end to give it more stitches.</span>
      )}
    </p>
  );
}
