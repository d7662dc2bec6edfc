/** What is new in a release: as readers are told it, and held against any other one. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, Field, inputClass, SelectField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { useAgainst, useReleaseActs } from "./use-releases";

type Release = Schemas["ReleaseOut"];

export function WhatIsNew({
  design,
  release,
  others,
  onClose,
}: {
  design: Design;
  release: Release;
  others: readonly number[];
  onClose: () => void;
}) {
  const acts = useReleaseActs(design);
  const [changes, setChanges] = useState(release.changes);
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      title={`New in release ${release.number}`}
      about="Whoever has an earlier release reads this by your link. The files keep what was printed in them."
    >
      {others.length > 0 ? (
        <HeldAgainst design={design} number={release.number} others={others} />
      ) : (
        <p className="mb-3 text-soft">There is no other release to hold it against.</p>
      )}
      <Field label="As readers see it">
        {(ids) => (
          <textarea
            {...ids}
            className={`${inputClass} min-h-32`}
            maxLength={20_000}
            value={changes}
            onChange={(e) => setChanges(e.target.value)}
          />
        )}
      </Field>
      <Refused error={acts.error} />
      <div className="mt-3 flex justify-end gap-2">
        <Button
          weight="main"
          disabled={acts.isPending}
          onClick={() =>
            acts.mutate({ do: "changes", number: release.number, changes }, { onSuccess: onClose })
          }
        >
          Save
        </Button>
      </div>
    </Dialog>
  );
}

/** A release held against any other one, the earlier first. */
function HeldAgainst({
  design,
  number,
  others,
}: {
  design: Design;
  number: number;
  others: readonly number[];
}) {
  const [other, setOther] = useState(others.find((n) => n < number) ?? others[0] ?? number);
  const found = useAgainst(design, Math.min(number, other), Math.max(number, other));
  return (
    <section aria-label={`Held against release ${other}`} className="mb-3">
      <SelectField
        label="Held against"
        value={String(other)}
        onValue={(n) => setOther(Number(n))}
        options={others.map((n): [string, string] => [String(n), `release ${n}`])}
        className="mb-2"
      />
      <Refused error={found.error} />
      {found.data?.errata.length === 0 && (
        <p className="text-soft">Nothing of what is worked is different.</p>
      )}
      <Errata found={found.data?.errata ?? []} />
    </section>
  );
}

/** Old beside new, by part and round. */
export function Errata({ found }: { found: readonly Schemas["ErratumOut"][] }) {
  if (found.length === 0) return null;
  return (
    <div className="mb-3 max-h-60 overflow-auto" tabIndex={0} role="region" aria-label="What is different">
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left">
            <th className="pr-2">Where</th>
            <th className="pr-2">Was</th>
            <th>Is now</th>
          </tr>
        </thead>
        <tbody>
          {found.map((e) => (
            <tr key={`${e.part} ${e.at} ${e.before} ${e.after}`} className="border-t border-line align-top">
              <td className="pr-2 font-semibold">{[e.part, e.at].filter(Boolean).join(", ") || "Figure"}</td>
              <td className="pr-2">{e.before || "–"}</td>
              <td>{e.after || "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
