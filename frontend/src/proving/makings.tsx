/** Makings of a design: begun here, worked on a phone, and what comes back from them. */
import { useState } from "react";
import type { Design } from "../design/design";
import { Button, Empty, Panel, SelectField, TextField } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { BothFigures } from "./both-figures";
import { CountLadder } from "./count-ladder";
import { Deviations } from "./deviations";
import { Learned } from "./learned";
import { type Makings, type Summary, useMakingActs, useMakings } from "./use-proving";

export function MakingsPanel({ design }: { design: Design }) {
  const found = useMakings(design.id);
  const list = found.data?.makings ?? [];
  return (
    <div className="grid gap-5">
      <Refused error={found.error} />
      {found.data && <Begin design={design} found={found.data} />}
      {found.data && list.length === 0 && (
        <Empty title="Nothing is being made yet">
          A making keeps every round that is done, what was done otherwise, and what it measured, on the phone
          beside you. A figure whose notes are missing can never be published.
        </Empty>
      )}
      {list.map((one) => (
        <OneMaking key={one.id} design={design} one={one} />
      ))}
      {found.data && <Learned design={design} found={found.data} />}
    </div>
  );
}

const KINDS = [
  ["own", "for myself"],
  ["client", "for a client"],
] as const;

function Begin({ design, found }: { design: Design; found: Makings }) {
  const { begin } = useMakingActs(design.id);
  const [title, setTitle] = useState("");
  const [kind, setKind] = useState<"own" | "client">("own");
  const [of, setOf] = useState("draft");
  const [size, setSize] = useState("");
  const usual = ["First sample", "Second sample", "Third sample"][found.makings.length] ?? "Another one";
  const editions = [
    ["draft", "the pattern as it is now"],
    ...found.releases.map((n) => [String(n), `release ${n}`]),
  ] as [string, string][];
  const sizes = [["", "first size"], ...found.sizes] as [string, string][];
  const start = () =>
    begin.mutate(
      { title: title.trim() || usual, kind, release: of === "draft" ? null : Number(of), size },
      { onSuccess: () => setTitle("") },
    );
  return (
    <Panel title="Begin a making">
      <div className="flex flex-wrap items-end gap-3">
        <TextField
          label="Called"
          maxLength={120}
          placeholder={usual}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
          className="min-w-48 flex-1"
        />
        <SelectField label="Made" value={kind} onValue={setKind} options={KINDS} />
        <SelectField label="From" value={of} onValue={setOf} options={editions} />
        {sizes.length > 1 && <SelectField label="Size" value={size} onValue={setSize} options={sizes} />}
        <Button weight="main" disabled={begin.isPending} onClick={start}>
          Begin
        </Button>
      </div>
      <Refused error={begin.error} />
    </Panel>
  );
}

export function hours(minutes: number): string {
  return minutes < 90 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`;
}

function OneMaking({ design, one }: { design: Design; one: Summary }) {
  const { remove } = useMakingActs(design.id);
  const share = one.stitches ? Math.floor((100 * one.done) / one.stitches) : 0;
  return (
    <Panel
      title={one.title}
      aside={
        <div className="flex gap-2">
          <Button weight="main" asChild>
            <a href={`/make/own/${one.id}`}>{one.last ? "Go on making" : "Open the making page"}</a>
          </Button>
          <Confirm
            trigger={
              <Button weight="quiet" aria-label={`Remove ${one.title}`}>
                Remove
              </Button>
            }
            title={`Remove ${one.title}?`}
            about="Its log and its photographs go with it. Text that it changed stays changed."
            yes="Remove it"
            onYes={() => remove.mutate(one.id)}
          />
        </div>
      }
    >
      <Refused error={remove.error} />
      <p className="mb-2">
        {one.finished ? "Finished" : `${share} % of the stitches`}
        {one.at && !one.finished && `, ${one.at}`}; {hours(one.minutes)} at work
        {one.pauses > 0 && `, ${one.pauses} pauses left out`}
        {one.hook_mm && `; hook ${one.hook_mm} mm`}
        {one.skeins.length > 0 && `; ${one.skeins.join(", ")}`}
        <span className="text-soft"> · {one.edition}</span>
      </p>
      <ul aria-label={`Ladders of ${one.title}`} className="mb-2 flex flex-wrap items-end gap-5">
        {byPart(one.parts).map((pieces) => (
          <PartLadder key={pieces[0]?.part} pieces={pieces} />
        ))}
      </ul>
      <Deviations design={design} one={one} />
      <BothFigures design={design.id} one={one} />
      <Notes one={one} />
    </Panel>
  );
}

type Piece = Summary["parts"][number];

function byPart(pieces: readonly Piece[]): Piece[][] {
  const found = new Map<string, Piece[]>();
  for (const piece of pieces) found.set(piece.part, [...(found.get(piece.part) ?? []), piece]);
  return [...found.values()];
}

/** A part of a making: the piece in hand, with how many of it are done; beside it what was made, where that is otherwise. */
function PartLadder({ pieces }: { pieces: Piece[] }) {
  const whole = pieces.filter((p) => p.done >= p.counts.length).length;
  const shown = pieces.find((p) => p.done < p.counts.length) ?? pieces.at(-1);
  if (!shown) return null;
  const name = pieces.length > 1 ? shown.name.replace(/ \d+ of \d+$/, "") : shown.name;
  const told =
    pieces.length > 1
      ? `${whole} of ${pieces.length} done`
      : whole
        ? "done"
        : `R${shown.done} of ${shown.counts.length}`;
  return (
    <li className="text-center text-sm">
      <div className="flex items-end">
        <CountLadder
          counts={shown.counts}
          labels={shown.labels}
          fill={shown.fill}
          done={shown.done}
          label={`${shown.name} as it says: ${shown.done} of ${shown.counts.length} rounds are done`}
        />
        {shown.did.length > 0 && (
          <CountLadder
            counts={shown.did}
            labels={[]}
            fill="var(--woad)"
            done={shown.did.length}
            label={`${shown.name} as it was made: ${shown.did.length} rounds`}
          />
        )}
      </div>
      {name}
      <span className="block text-soft">
        {told}
        {shown.did.length > 0 && "; beside it as made"}
      </span>
    </li>
  );
}

function Notes({ one }: { one: Summary }) {
  if (one.notes.length === 0) return null;
  return (
    <section aria-label={`Notes of ${one.title}`} className="mt-3 border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Notes and photographs</h3>
      <ul className="flex flex-wrap gap-3 text-sm">
        {one.notes.map((note) => (
          <li key={note.picture ?? `${note.at}${note.text}`} className="max-w-xs">
            {note.picture && (
              <img
                className="mb-1 h-28 rounded-md"
                alt={note.text || `A photograph, ${note.place || "of the whole"}`}
                src={`/api/makings/${one.id}/pictures/${note.picture}`}
              />
            )}
            <span className="text-soft">
              {note.at.slice(0, 10)}
              {note.place && `, ${note.place}`}
            </span>{" "}
            {note.text}
          </li>
        ))}
      </ul>
    </section>
  );
}
