/** The next release: what blocks it, what is different, in which editions and files it comes. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, Check, Field, inputClass } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { type Asked, DIFFERENCE, ENDINGS } from "./edition";
import { EditionFields } from "./edition-fields";
import { Findings } from "./proof";
import { useReleaseActs } from "./use-releases";
import { Errata } from "./what-is-new";

export function NextRelease({
  design,
  next,
  first,
  again = false,
  onClose,
}: {
  design: Design;
  next: Schemas["NextRelease"];
  /** The edition that is on screen. */
  first: Asked;
  /** Whether the last release has the same version. */
  again?: boolean;
  onClose: () => void;
}) {
  const acts = useReleaseActs(design);
  const [prints, setPrints] = useState<Asked[]>([first]);
  const [changes, setChanges] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const change = (at: number, more: Partial<Asked>) =>
    setPrints(prints.map((p, i) => (i === at ? { ...p, ...more } : p)));
  // Rounds of others that may not be published again are in no edition that tells only what differs.
  const whole = prints.some((p) => p.edition !== DIFFERENCE);
  const blocking = next.findings.filter((f) => f.blocks && (whole || f.code !== "terms-rounds"));
  const blocked = blocking.length > 0;
  const forbidden = blocking.filter((f) => f.forbids);
  const refused = forbidden.length > 0 || (blocked && reason.trim() === "");
  return (
    <Dialog
      open
      wide
      onOpen={(open) => !open && onClose()}
      title={`Release ${next.number} of ${design.name}: version ${next.version}`}
      about="It keeps the pattern as it is now. Its number, date and digest stand on every page."
    >
      <Forbidden design={design} found={forbidden} />
      {blocking.length > forbidden.length && (
        <Blocking
          design={design}
          found={blocking.filter((f) => !f.forbids)}
          reason={reason}
          onReason={setReason}
        />
      )}
      {again && (
        <p className="mb-3 border-l-4 border-weld bg-weld-ground px-2 py-1">
          Version {next.version} is released already. Give this one another version, under “What it says”, so
          that readers can tell them apart.
        </p>
      )}
      <h3 className="mb-1 text-lg">Editions</h3>
      <ul className="mb-3 flex flex-col gap-3">
        {prints.map((p, at) => (
          <OneEdition
            key={at}
            design={design}
            number={at + 1}
            asked={p}
            onAsked={(more) => change(at, more)}
            onRemove={prints.length > 1 ? () => setPrints(prints.filter((_, i) => i !== at)) : undefined}
          />
        ))}
      </ul>
      <Button onClick={() => setPrints([...prints, { ...first }])} disabled={prints.length >= 12}>
        Another edition
      </Button>
      {next.number > 1 && (
        <section className="mt-4" aria-label="What is new">
          <h3 className="mb-1 text-lg">What is new since release {next.number - 1}</h3>
          {next.unchanged && <p className="text-soft">Nothing of what is worked is different.</p>}
          <Errata found={next.errata} />
          <Field label="List of changes" hint="It writes itself; say it otherwise if you like.">
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-24`}
                maxLength={20_000}
                value={changes ?? next.changes}
                onChange={(e) => setChanges(e.target.value)}
              />
            )}
          </Field>
        </section>
      )}
      <Refused error={acts.error} />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button
          weight={blocked && !forbidden.length ? "danger" : "main"}
          disabled={refused || acts.isPending || prints.some((p) => p.files.length === 0)}
          onClick={() =>
            acts.mutate({ do: "release", release: { prints, reason, changes } }, { onSuccess: onClose })
          }
        >
          {blocked && !forbidden.length ? "Release it all the same" : `Make release ${next.number}`}
        </Button>
      </div>
    </Dialog>
  );
}

type Found = Schemas["NextRelease"]["findings"];

/** What terms of others forbid, and the two ways out. */
function Forbidden({ design, found }: { design: Design; found: Found }) {
  if (!found.length) return null;
  return (
    <div className="mb-3">
      <Findings design={design} title="Terms of others forbid it" found={found} bad />
      <p className="max-w-prose">
        No reason passes them over. Print only what differs, where that is allowed; or, where its designer has
        allowed you more, note that under Bases, Credits.
      </p>
    </div>
  );
}

/** What blocks it, and her reason to release it all the same. */
function Blocking({
  design,
  found,
  reason,
  onReason,
}: {
  design: Design;
  found: Found;
  reason: string;
  onReason: (said: string) => void;
}) {
  return (
    <div className="mb-3">
      <Findings design={design} title="Blocks the release" found={found} bad />
      <Field
        label="Release it all the same, because"
        hint="The release keeps this reason, with what blocked it."
      >
        {(ids) => (
          <textarea
            {...ids}
            className={`${inputClass} min-h-14`}
            maxLength={1000}
            value={reason}
            onChange={(e) => onReason(e.target.value)}
          />
        )}
      </Field>
    </div>
  );
}

function OneEdition({
  design,
  number,
  asked,
  onAsked,
  onRemove,
}: {
  design: Design;
  number: number;
  asked: Asked;
  onAsked: (more: Partial<Asked>) => void;
  onRemove: (() => void) | undefined;
}) {
  const toggle = (ending: Asked["files"][number], on: boolean) =>
    onAsked({ files: ENDINGS.map(([e]) => e).filter((e) => (e === ending ? on : asked.files.includes(e))) });
  return (
    <li className="rounded-md border border-line p-2" aria-label={`Edition ${number}`}>
      <EditionFields design={design} asked={asked} onAsked={onAsked} columns="sm:grid-cols-5" />
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line pt-2">
        {ENDINGS.map(([ending, name]) => (
          <Check
            key={ending}
            label={name}
            checked={asked.files.includes(ending)}
            onChecked={(on) => toggle(ending, on)}
          />
        ))}
        {onRemove && (
          <Button weight="quiet" onClick={onRemove} aria-label={`Leave edition ${number} out`}>
            Leave out
          </Button>
        )}
      </div>
    </li>
  );
}
