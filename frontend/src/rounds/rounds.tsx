/** Rounds: the bench. Written rounds, ladder and figure show the same part and light each other. */
import { Trash2 } from "lucide-react";
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useSession } from "../accounts/session";
import { sentence } from "../api/client";
import { type Design, type Part, useAct } from "../design/design";
import { useShownDesign } from "../design/layout";
import { SaveMark } from "../design/save-state";
import { Ladder } from "../figure/ladder";
import { useLatest } from "../figure/use-latest";
import { PartFigure } from "../figure/views";
import { Button, Empty, IconButton, NumberField, SelectField, TextField } from "../ui/controls";
import { useCommands } from "../ui/keys";
import { Confirm, Dialog, Guess, useSay } from "../ui/overlays";
import { cm, rounded } from "../ui/units";
import { askPreview, askTidy, type Preview, partPicture, type Question } from "./ask";
import { ConflictDialog } from "./conflict";
import { Editor, type EditorHandle } from "./editor";
import { toUnits } from "./positions";
import { ProblemList, roundFaults } from "./problems";
import { usePartText } from "./use-part-text";

function same(a: Question, b: Question): boolean {
  const gist = (q: Question) => JSON.stringify([q.design.gauge_now, q.design.gauge.yarns, q.design.terms]);
  return a.text === b.text && a.colour === b.colour && gist(a) === gist(b);
}

export function Rounds() {
  const design = useShownDesign();
  const [params, setParams] = useSearchParams();
  const part = design.parts.find((p) => p.key === params.get("part")) ?? design.parts[0];
  const [adding, setAdding] = useState(false);
  if (!part)
    return (
      <div className="p-10">
        <h1 className="sr-only">Rounds</h1>
        <Empty title="No rounds yet">
          <p>
            Draft a shape and its rounds appear here, or write the first part yourself: “R1: 6 sc in ring
            [6]”.
          </p>
          <div className="flex gap-2">
            <Button weight="main" asChild>
              <Link to="../shapes">Draft a shape</Link>
            </Button>
            <Button onClick={() => setAdding(true)}>Write a part</Button>
          </div>
        </Empty>
        <NewPart
          design={design}
          open={adding}
          onOpen={setAdding}
          onMade={(key) => setParams({ part: key })}
        />
      </div>
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2 p-3">
      <h1 className="sr-only">Rounds</h1>
      <div className="flex flex-wrap items-center gap-1">
        <nav aria-label="Parts" className="flex flex-wrap gap-1">
          {design.parts.map((p) => (
            <button
              key={p.key}
              type="button"
              aria-current={p.key === part.key}
              onClick={() => setParams({ part: p.key })}
              className={`rounded-md border px-2.5 py-1 ${p.key === part.key ? "border-woad bg-woad-ground font-semibold" : "border-line bg-panel hover:bg-sunk"}`}
            >
              {p.name}
              {p.make > 1 && ` × ${p.make}`}
              {p.faults > 0 && (
                <span className="ml-1.5 rounded-full bg-madder-ground px-1.5 text-sm">
                  {p.faults}
                  <span className="sr-only"> faults</span>
                </span>
              )}
            </button>
          ))}
        </nav>
        <Button weight="quiet" onClick={() => setAdding(true)}>
          + Part
        </Button>
      </div>
      <Bench key={part.key} design={design} part={part} />
      <NewPart design={design} open={adding} onOpen={setAdding} onMade={(key) => setParams({ part: key })} />
    </div>
  );
}

function NewPart({
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
  const [name, setName] = useState("");
  const act = useAct(design.id);
  return (
    <Dialog open={open} onOpen={onOpen} title="A part written by hand">
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.mutate(
            {
              do: "add-part",
              name: name.trim(),
              make: 1,
              colour: null,
              text: "R1: 6 sc in ring [6]\n",
              recipe: null,
            },
            {
              onSuccess: (made) => {
                onOpen(false);
                setName("");
                onMade(made.parts.at(-1)?.key ?? "");
              },
            },
          );
        }}
      >
        <TextField
          label="Call it"
          required
          maxLength={40}
          placeholder="Tail"
          value={name}
          onChange={(e) => setName(e.target.value)}
          error={act.error ? sentence(act.error) : null}
        />
        <Button type="submit" weight="main" className="self-end">
          Add it
        </Button>
      </form>
    </Dialog>
  );
}

function PartHead({ design, part }: { design: Design; part: Part }) {
  const act = useAct(design.id);
  const [name, setName] = useState(part.name);
  useEffect(() => setName(part.name), [part.name]);
  const yarns = design.gauge.yarns ?? [];
  const set = (change: Partial<Pick<Part, "name" | "make" | "colour">>) => {
    const next = { name: part.name, make: part.make, colour: part.colour, ...change };
    act.mutate({ do: "change-part", key: part.key, ...next }, { onError: () => setName(part.name) });
  };
  const save = () => {
    if (name.trim() && name.trim() !== part.name) set({ name: name.trim() });
    else setName(part.name);
  };
  return (
    <div className="flex items-end gap-2">
      <TextField
        label="Part"
        className="min-w-0 flex-1"
        maxLength={40}
        value={name}
        onChange={(e) => setName(e.target.value)}
        onBlur={save}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      />
      <NumberField
        label="Make"
        className="w-16"
        least={1}
        most={50}
        value={part.make}
        onValue={(n) => n && n !== part.make && set({ make: n })}
      />
      {yarns.length > 0 && (
        <SelectField
          label="Begin with"
          className="w-36"
          value={part.colour ?? ""}
          onValue={(colour) => set({ colour: colour || null })}
          options={[
            ["", `${yarns[0]?.name} (main)`],
            ...yarns.slice(1).map((y) => [y.name, y.name] as const),
          ]}
        />
      )}
      <Confirm
        trigger={
          <IconButton label={`Remove ${part.name}`}>
            <Trash2 size={16} />
          </IconButton>
        }
        title={`Remove ${part.name}?`}
        about="Undo brings it back."
        yes="Remove it"
        onYes={() => act.mutate({ do: "remove-part", key: part.key })}
      />
    </div>
  );
}

function Bench({ design, part }: { design: Design; part: Part }) {
  const user = useSession().data?.me?.username ?? "";
  const editor = useRef<EditorHandle>(null);
  const say = useSay();
  const { text, type, state, conflict, problem, settle, cut } = usePartText(design, part, user, (next) =>
    editor.current?.show(next),
  );
  const { answer: preview, error } = useLatest<Question, { answer: Preview; asked: string }>(
    { text, design, colour: part.colour },
    async (q) => ({ answer: await askPreview(q), asked: q.text }),
    same,
  );
  const [lit, setLit] = useState<number | null>(null);
  const shown = preview?.answer ?? null;
  const rounds = shown?.part.rounds ?? [];
  const tidy = useCallback(
    async (fold: boolean) => {
      try {
        const { text: tidied } = await askTidy(text, design, fold);
        editor.current?.replace(tidied);
      } catch (e) {
        say(sentence(e), true);
      }
    },
    [text, design, say],
  );
  const commands = useMemo(
    () => [
      { name: "Tidy the rounds and fold equal ones", run: () => void tidy(true) },
      { name: "Tidy the rounds, no folding", run: () => void tidy(false) },
    ],
    [tidy],
  );
  useCommands(commands);
  const faults = useMemo(() => (shown ? roundFaults(shown) : new Map()), [shown]);
  const litLine = lit === null ? null : (rounds[lit]?.line ?? null);
  const toLine = (line: number) => {
    const at = rounds.findIndex((r) => r.line === line);
    setLit(at >= 0 ? at : null);
  };
  const flat = useMemo(
    () => () => partPicture({ text, design, colour: part.colour }),
    [text, design, part.colour],
  );
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
            lit={litLine}
            onText={type}
            onLine={(line) => startTransition(() => toLine(line))}
            onBlur={() => void cut()}
            onFold={() => void tidy(!isFolded(text))}
          />
        </div>
        <div className="flex items-center justify-between gap-2">
          <SaveMark state={state} />
          <span className="flex gap-1">
            <Button weight="quiet" onClick={() => void tidy(true)}>
              Tidy
            </Button>
            <Button weight="quiet" onClick={() => void tidy(!isFolded(text))}>
              {isFolded(text) ? "Unfold" : "Fold"}
            </Button>
          </span>
        </div>
        {(problem !== null || error !== null) && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
            {problem?.detail ?? sentence(error)}
          </p>
        )}
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
        {shown && (
          <Ladder
            part={shown.part}
            label={`Ladder of ${part.name}`}
            lit={lit}
            onLit={(i) => {
              setLit(i);
            }}
            faults={faults}
            className="min-h-0 flex-1 p-1"
          />
        )}
        <p className="min-h-12 border-t border-line px-3 py-1.5" aria-live="polite">
          {lit !== null && rounds[lit] ? (
            rounds[lit].sentence
          ) : (
            <span className="text-soft">Point at a round to read it.</span>
          )}
        </p>
      </section>
      <section
        className="flex min-h-80 flex-col rounded-lg border border-line bg-panel lg:min-h-0"
        aria-label="Figure"
      >
        <div className="min-h-0 flex-1">
          {shown && (
            <PartFigure
              part={shown.part}
              label={`Figure of ${part.name}`}
              lit={lit}
              onLit={setLit}
              flat={flat}
            />
          )}
        </div>
        {shown?.size && (
          <dl className="grid grid-cols-[auto_1fr] gap-x-3 border-t border-line px-3 py-2">
            <dt className="text-soft">Stuffed</dt>
            <dd>
              <Guess of={shown.size.height} format={cm} /> tall, <Guess of={shown.size.width} format={cm} />{" "}
              wide
            </dd>
            <dt className="text-soft">Yarn, each</dt>
            <dd>
              <Guess of={shown.size.metres} format={(m) => `${rounded(m, 1)} m`} />, {shown.size.stitches}{" "}
              stitches
            </dd>
            <dt className="text-soft">Filling, each</dt>
            <dd>
              <Guess of={shown.size.filling_g} format={(g) => `${rounded(g, g < 10 ? 1 : 0)} g`} />
            </dd>
          </dl>
        )}
      </section>
      <ConflictDialog conflict={conflict} name={part.name} settle={settle} />
    </div>
  );
}

/** Whether any line stands for several rounds. */
export function isFolded(text: string): boolean {
  return /^\s*(?:R|Rnd|Round)s?\.?\s*\d+\s*(?:-|–|to)\s*(?:R|Rnd|Round)?\s*\d+/im.test(text);
}
