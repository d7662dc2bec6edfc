/** Bringing rounds in from a file or the clipboard: what was understood is shown first, line by line. */
import { useState } from "react";
import { type Schemas, sentence } from "../api/client";
import { type Design, useAct } from "../design/design";
import { Button, Check, Field, inputClass } from "../ui/controls";
import { Dialog, useSay } from "../ui/overlays";
import { askImport, type Import } from "./ask";

export const ENDINGS = ".txt,.md,.json,.csv,text/plain,text/markdown,application/json,text/csv";
const MOST_BYTES = 20_000_000;
const GROUNDS = {
  fault: "border-madder bg-madder-ground",
  warning: "border-weld bg-weld-ground",
  hint: "border-woad bg-woad-ground",
};
const KINDS: Record<string, string> = {
  head: "head",
  heading: "part",
  round: "round",
  work: "work",
  step: "direction",
  colour: "colour",
  note: "note",
};

/** What a text holds, from the moment it is chosen until its parts are in the design. */
function useBringIn(design: Design, onOpen: (open: boolean) => void, onMade: (key: string) => void) {
  const [found, setFound] = useState<Import | null>(null);
  // Kept here, so that it is still there when she comes back from what was found in it.
  const [typed, setTyped] = useState("");
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const act = useAct(design.id, () => true);
  const say = useSay();
  const close = (next: boolean) => {
    onOpen(next);
    if (!next) {
      setFound(null);
      setError(null);
      setTyped("");
    }
  };
  const look = async (file: File) => {
    setError(null);
    if (file.size > MOST_BYTES) {
      setError(`${file.name} is too large: a text is at most 5,000,000 characters long.`);
      return;
    }
    setBusy(true);
    try {
      const read = await askImport(file, design.terms);
      setFound(read);
      if (!read.parts.length)
        setError("No round was found in it. A round begins like “R1: 6 sc in ring [6]”.");
    } catch (e) {
      setError(sentence(e));
    } finally {
      setBusy(false);
    }
  };
  const bring = (chosen: Import["parts"]) => {
    const parts = chosen.map(({ name, make, text }) => ({ name, make, text }));
    act.mutate(
      { do: "add-parts", parts, brought: true },
      {
        onSuccess: (made) => {
          say(`Brought in ${parts.length} part${parts.length === 1 ? "" : "s"}. Undo takes them out again.`);
          onMade(made.parts.at(-parts.length)?.key ?? "");
          close(false);
        },
        onError: (refused) => setError(sentence(refused)),
      },
    );
  };
  const other = () => setFound(null);
  return { found, typed, setTyped, error, busy: busy || act.isPending, look, bring, close, other };
}

export function BringIn({
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
  const bringing = useBringIn(design, onOpen, onMade);
  const { found, error, busy, bring, close, other } = bringing;
  return (
    <Dialog
      open={open}
      onOpen={close}
      wide
      title="Bring in rounds"
      about="From a text, Markdown, JSON or CSV file, or pasted, in English, German, French, Spanish, Italian or Dutch. Nothing is kept before you have seen what was understood."
    >
      {error && (
        <p role="alert" className="mb-3 border-l-4 border-madder bg-madder-ground px-2 py-1">
          {error}
        </p>
      )}
      {found?.parts.length ? (
        <Found found={found} design={design} busy={busy} onBring={bring} onOther={other} />
      ) : (
        <Asking
          busy={busy}
          typed={bringing.typed}
          onTyped={bringing.setTyped}
          onText={(file) => void bringing.look(file)}
        />
      )}
    </Dialog>
  );
}

/** A file, or a text pasted. */
function Asking({
  busy,
  typed,
  onTyped,
  onText,
}: {
  busy: boolean;
  typed: string;
  onTyped: (text: string) => void;
  onText: (file: File) => void;
}) {
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <Field label="A file" hint="Ends in .txt, .md, .json or .csv">
        {(ids) => (
          <input
            {...ids}
            type="file"
            accept={ENDINGS}
            className={inputClass}
            disabled={busy}
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file) onText(file);
            }}
          />
        )}
      </Field>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          onText(new File([typed], "pasted.txt", { type: "text/plain" }));
        }}
      >
        <Field label="Or pasted">
          {(ids) => (
            <textarea
              {...ids}
              rows={8}
              className={inputClass}
              value={typed}
              placeholder={"Ears (make 2)\nR1: 6 sc in MR [6]\n…"}
              onChange={(e) => onTyped(e.target.value)}
            />
          )}
        </Field>
        <Button type="submit" weight="main" className="mt-2" disabled={busy || !typed.trim()}>
          {busy ? "Reading …" : "Read it"}
        </Button>
      </form>
    </div>
  );
}

/** What was understood, and which of it is to be brought in. */
function Found({
  found,
  design,
  busy,
  onBring,
  onOther,
}: {
  found: Import;
  design: Design;
  busy: boolean;
  onBring: (parts: Import["parts"]) => void;
  onOther: () => void;
}) {
  const [chosen, setChosen] = useState(() => new Set(found.parts.map((_, i) => i)));
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onBring(found.parts.filter((_, i) => chosen.has(i)));
      }}
      className="flex flex-col gap-3"
    >
      <p>
        Read in {found.terms === "letters" ? "letter notation" : `${found.terms.toUpperCase()} terms`}:{" "}
        {found.terms_how}.{" "}
      </p>
      <TermsSaid found={found} design={design} />
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
        <legend className="mb-1 font-semibold">Parts found</legend>
        {found.parts.map((p, i) => (
          <Check
            key={`${p.name}-${i}`}
            checked={chosen.has(i)}
            onChecked={(on) =>
              setChosen((now) => {
                const next = new Set(now);
                if (on) next.add(i);
                else next.delete(i);
                return next;
              })
            }
            label={`${p.name}${p.make > 1 ? ` × ${p.make}` : ""}: ${p.rounds} rounds, ${p.stitches} stitches${p.faults ? `, ${p.faults} fault${p.faults === 1 ? "" : "s"}` : ""}`}
          />
        ))}
      </fieldset>
      <Lines found={found} />
      <div className="flex justify-end gap-2">
        <Button onClick={onOther}>Another text</Button>
        <Button type="submit" weight="main" disabled={!chosen.size || busy || found.unconverted !== null}>
          Bring in {chosen.size} part{chosen.size === 1 ? "" : "s"}
        </Button>
      </div>
    </form>
  );
}

const NAMES = { us: "US terms", uk: "UK terms", letters: "letters" };

/** Whether the parts were put into the design's own terms, so that no word changes its meaning unseen. */
function TermsSaid({ found, design }: { found: Import; design: Design }) {
  if (found.terms === design.terms) return null;
  if (found.unconverted)
    return (
      <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
        The text is written in {NAMES[found.terms]}, this design in {NAMES[design.terms]}, and it could not be
        put into them. {found.unconverted} Mend the text and read it again, or change the terms of this design
        first.
      </p>
    );
  return (
    <p className="border-l-4 border-woad bg-woad-ground px-2 py-1">
      The text is written in {NAMES[found.terms]}; its rounds are put into {NAMES[found.into]}, as this design
      is. Every stitch stays what it was.
    </p>
  );
}

/** Every line with what it was taken for. */
function Lines({ found }: { found: Import }) {
  return (
    <section
      className="max-h-[44dvh] overflow-auto rounded border border-line"
      tabIndex={0}
      aria-label="Line by line"
    >
      <table className="w-full border-collapse text-sm">
        <thead className="sticky top-0 bg-panel text-left">
          <tr>
            <th className="px-2 py-1 font-semibold">Line</th>
            <th className="px-2 py-1 font-semibold">As written</th>
            <th className="px-2 py-1 font-semibold">Taken for</th>
          </tr>
        </thead>
        <tbody>
          {found.lines.map((line) => (
            <tr
              key={line.number}
              className={`border-t border-line align-top ${line.severity ? `border-l-4 ${GROUNDS[line.severity]}` : ""}`}
            >
              <td className="px-2 py-1 tabular-nums text-soft">{line.number}</td>
              <td className="px-2 py-1">{line.text}</td>
              <td className="px-2 py-1">
                <span className="mr-1 rounded bg-sunk px-1 text-soft">{KINDS[line.kind]}</span>
                <Taken line={line} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.more_lines > 0 && <p className="p-2 text-soft">and {found.more_lines} more lines</p>}
    </section>
  );
}

/** What a line was taken for; a hint stands under it with its evidence, a fault in its place. */
function Taken({ line }: { line: Schemas["ReadLineOut"] }) {
  if (line.severity !== "hint" || !line.understood) return line.message || line.understood;
  return (
    <>
      {line.understood}
      <span className="block text-soft">{line.message}</span>
    </>
  );
}
