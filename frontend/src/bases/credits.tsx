/** What a figure was made from: whose it is, on what terms, and what of them does not go together. */
import { sentence } from "../api/client";
import type { Design } from "../design/design";
import { useCredits } from "./ask";

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

export function Credits({ design }: { design: Design }) {
  const credits = useCredits(design);
  if (credits.error)
    return (
      <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
        {sentence(credits.error)}
      </p>
    );
  if (!credits.data)
    return (
      <p role="status" className="text-soft">
        Adding up …
      </p>
    );
  const { sources, conflicts, blocked, advice } = credits.data;
  if (!sources.length)
    return <p className="text-soft">Everything in this figure was made here, from nothing else.</p>;
  return (
    <div className="max-w-3xl">
      {blocked.length > 0 && (
        <>
          <h3 className="text-lg">In the way of publishing it with all its rounds</h3>
          <Told said={blocked} bad />
        </>
      )}
      {conflicts.length > 0 && (
        <>
          <h3 className="text-lg">Terms that do not go together</h3>
          <Told said={conflicts} bad={false} />
        </>
      )}
      <ul>
        {sources.map((s) => (
          <li key={`${s.called} ${s.parts.join()}`} className="border-t border-line py-2">
            <p className="font-semibold">
              {s.called}
              {s.own && <span className="ml-2 font-normal text-soft">your own</span>}
            </p>
            {s.parts.length > 0 && <p>Came of it: {s.parts.join(", ")}.</p>}
            <p className="text-sm text-soft">{s.terms.join(" ") || "Its terms are not noted."}</p>
          </li>
        ))}
      </ul>
      <p className="mt-3 text-sm text-soft">{advice}</p>
    </div>
  );
}
