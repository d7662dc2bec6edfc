/** What a figure was made from: whose it is, on what terms, and what of them does not go together. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { Refused } from "../ui/refused";
import { useCredits } from "./ask";
import { NoteSource } from "./note-source";

function Told({ said, bad }: { said: readonly string[]; bad: boolean }) {
  return (
    <ul className="mb-3 flex flex-col gap-1">
      {said.map((s) => (
        <li
          key={s}
          className={`border-l-4 px-2 py-0.5 ${bad ? "border-madder bg-madder-ground" : "border-weld bg-weld-ground"}`}
        >
          {s}
        </li>
      ))}
    </ul>
  );
}

function Row({
  source,
  onChange,
}: {
  source: Schemas["CreditRow"];
  /** Open the note of it; not given for what is no note, such as the base. */
  onChange?: () => void;
}) {
  return (
    <li className="border-t border-line py-2">
      <p className="flex items-center gap-2 font-semibold">
        {source.called}
        {source.own && <span className="font-normal text-soft">your own</span>}
        {onChange && (
          <Button weight="quiet" onClick={onChange} aria-label={`Change what is noted of ${source.called}`}>
            Change
          </Button>
        )}
      </p>
      {source.parts.length > 0 && <p>Came of it: {source.parts.join(", ")}.</p>}
      <p className="text-sm text-soft">{source.terms.join(" ") || "Its terms are not noted."}</p>
    </li>
  );
}

export function Credits({ design }: { design: Design }) {
  const credits = useCredits(design);
  const [noting, setNoting] = useState<number | null>(null);
  if (credits.error) return <Refused error={credits.error} />;
  if (!credits.data)
    return (
      <p role="status" className="text-soft">
        Adding up …
      </p>
    );
  const { sources, noted, conflicts, blocked, private: secret, advice } = credits.data;
  return (
    <div className="max-w-3xl">
      {blocked.length > 0 && (
        <>
          <h2 className="text-lg">In the way of publishing it with all its rounds</h2>
          <Told said={blocked} bad />
        </>
      )}
      {secret.length > 0 && (
        <>
          <h2 className="text-lg">In the way of publishing even the difference</h2>
          <Told said={secret} bad />
        </>
      )}
      {conflicts.length > 0 && (
        <>
          <h2 className="text-lg">Terms that do not go together</h2>
          <Told said={conflicts} bad={false} />
        </>
      )}
      {sources.length === 0 && (
        <p className="mb-2 text-soft">Everything in this figure was made here, from nothing else.</p>
      )}
      <ul>
        {sources.map((s) => (
          <Row
            key={`${s.called} ${s.parts.join()}`}
            source={s}
            onChange={s.noted === null ? undefined : () => setNoting(s.noted)}
          />
        ))}
      </ul>
      <Button className="mt-2" onClick={() => setNoting(noted.length)}>
        Note another source
      </Button>
      <p className="mt-3 text-sm text-soft">{advice}</p>
      {noting !== null && (
        <NoteSource design={design} noted={noted} at={noting} onClose={() => setNoting(null)} />
      )}
    </div>
  );
}
