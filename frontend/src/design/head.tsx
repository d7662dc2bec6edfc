/** The head of a design: its name, where it came from, and the terms it is written in. */
import { useState } from "react";
import { Link } from "react-router";
import { sentence } from "../api/client";
import { Button, boxClass } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { useName } from "../ui/use-name";
import { type Design, useAct } from "./design";
import { TERMS } from "./terms";

export const MOST_NAME = 60;

export function DesignName({ design }: { design: Design }) {
  const act = useAct(design.id, () => true);
  const { name, setName, error, leave, press } = useName(design.name, "A design", (next, answers) =>
    act.mutate({ do: "rename", name: next, terms: design.terms }, answers),
  );
  return (
    <span className="min-w-0 flex-1 basis-48">
      <input
        aria-label="Name of the design"
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? "design-name-error" : undefined}
        className="w-full min-w-0 rounded border border-transparent bg-transparent px-1 font-title text-xl font-semibold hover:border-line focus:border-strong aria-invalid:border-madder"
        value={name}
        maxLength={MOST_NAME}
        onChange={(e) => setName(e.target.value)}
        onBlur={leave}
        onKeyDown={press}
      />
      {error && (
        <span
          id="design-name-error"
          role="alert"
          className="block border-l-4 border-madder bg-madder-ground px-2 text-sm"
        >
          {error}
        </span>
      )}
    </span>
  );
}

export function Origin({ origin }: { origin: NonNullable<Design["origin"]> }) {
  return (
    <span className="text-sm text-soft">
      copied from{" "}
      {origin.id ? (
        <Link className="underline" to={`/designs/${origin.id}`}>
          {origin.name}
        </Link>
      ) : (
        origin.name
      )}
      , step {origin.revision}
    </span>
  );
}

type Terms = Design["terms"];
const NAMES = Object.fromEntries(TERMS) as Record<Terms, string>;

/** Other terms: rounds that are there are put into them, or stay as they were typed; she says which. */
export function TermsChoice({ design }: { design: Design }) {
  const act = useAct(design.id, () => true);
  const [wanted, setWanted] = useState<Terms | null>(null);
  const written = design.parts.some((p) => p.text.trim());
  const set = (terms: Terms, convert: boolean) =>
    act.mutate({ do: "rename", name: design.name, terms, convert }, { onSuccess: () => setWanted(null) });
  return (
    <>
      <select
        aria-label="Terms of this design"
        className={boxClass}
        value={design.terms}
        onChange={(e) => {
          const terms = e.target.value as Terms;
          if (written) {
            act.reset();
            setWanted(terms);
          } else set(terms, false);
        }}
      >
        {TERMS.map(([key, label]) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
      <Dialog
        open={wanted !== null}
        onOpen={(open) => !open && setWanted(null)}
        title={wanted ? `From ${NAMES[design.terms]} to ${NAMES[wanted]}` : ""}
        about="The rounds of this design are typed already. The same word can mean another stitch in other terms."
      >
        {act.error && (
          <p role="alert" className="mb-3 border-l-4 border-madder bg-madder-ground px-2 py-1">
            {sentence(act.error)}
          </p>
        )}
        <div className="flex flex-col items-stretch gap-2">
          <Button weight="main" disabled={act.isPending} onClick={() => wanted && set(wanted, true)}>
            Put the rounds into {wanted && NAMES[wanted]}: every stitch stays what it is
          </Button>
          <Button disabled={act.isPending} onClick={() => wanted && set(wanted, false)}>
            Keep the words as typed, and read them in {wanted && NAMES[wanted]}
          </Button>
        </div>
      </Dialog>
    </>
  );
}
