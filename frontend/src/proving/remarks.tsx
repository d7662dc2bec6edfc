/** Remarks of testers, the same ones together, as a queue to be answered. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, TextField } from "../ui/controls";
import { Refused } from "../ui/refused";
import { type Call, useMakingActs, useTestActs } from "./use-proving";

type Group = Call["groups"][number];
type State = Schemas["AnswerIn"]["state"];

const KINDS: Record<string, string> = {
  unclear: "unclear",
  "wrong-count": "the count is wrong",
  liked: "liked",
  otherwise: "did otherwise",
};
const ANSWERED: Record<State, string> = { changed: "Changed", stays: "Stays as it is", open: "Still open" };

export function Remarks({ design, call, version }: { design: Design; call: Call; version: string }) {
  const asking = call.groups.filter((g) => g.asks);
  const praise = call.groups.filter((g) => !g.asks);
  const open = asking.filter((g) => g.answers.length < g.said.length);
  if (call.groups.length === 0) return null;
  return (
    <section aria-label="Remarks" className="mb-3 border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">
        Remarks ({open.length ? `${open.length} to answer` : "all answered"})
      </h3>
      <ul className="flex flex-col gap-2">
        {asking.map((g) => (
          <OneGroup key={g.key} design={design} group={g} version={version} />
        ))}
      </ul>
      {praise.length > 0 && (
        <p className="mt-2 text-sm text-soft">
          Liked:{" "}
          {praise.map((g) => `${g.place} (${g.said.map((s) => s.text || s.by).join(", ")})`).join("; ")}
        </p>
      )}
    </section>
  );
}

function OneGroup({ design, group, version }: { design: Design; group: Group; version: string }) {
  const { reply } = useTestActs(design.id);
  const { decide } = useMakingActs(design.id);
  const [text, setText] = useState(group.answers[0]?.text ?? "");
  const done = group.answers.length >= group.said.length;
  const answer = (state: State) =>
    reply.mutate({
      events: group.said.map((s) => s.event),
      state,
      text: text.trim(),
      version: state === "changed" ? version : "",
    });
  return (
    <li className={`border-l-4 px-2 py-1 ${done ? "border-moss" : "border-weld bg-weld-ground"}`}>
      <p>
        <strong>{group.place}</strong>: {KINDS[group.what] ?? group.what}
        {group.testers > 1 && `, ${group.testers} testers`}
        {group.says && <span className="text-soft"> · {group.says}</span>}
      </p>
      <ul className="text-sm">
        {group.said.map((s) => (
          <li key={s.event}>
            {s.by}
            {s.text && `: “${s.text}”`}
          </li>
        ))}
      </ul>
      {group.answers[0] && (
        <p className="text-sm text-soft">
          {ANSWERED[group.answers[0].state]}
          {group.answers[0].version && ` in version ${group.answers[0].version}`}
          {group.answers[0].text && `: ${group.answers[0].text}`}
        </p>
      )}
      {group.writes.length > 0 && (
        <ul className="mt-1 flex flex-col gap-1 text-sm">
          {group.writes.map((w) => (
            <li key={w.key} className="flex flex-wrap items-center gap-2">
              <span className="min-w-56 flex-1">{w.told}</span>
              <Button
                disabled={decide.isPending || reply.isPending}
                onClick={() =>
                  decide.mutate(
                    { id: w.making, key: w.key, verdict: "text" },
                    { onSuccess: () => answer("changed") },
                  )
                }
              >
                Into the text<span className="sr-only">: {w.told}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-1 flex flex-wrap items-end gap-2">
        <TextField
          label={`What you answer on ${group.place}`}
          maxLength={1000}
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="min-w-56 flex-1"
        />
        <Button disabled={reply.isPending} onClick={() => answer("changed")}>
          Changed{version && ` in ${version}`}
          <span className="sr-only">: {group.place}</span>
        </Button>
        <Button disabled={reply.isPending} onClick={() => answer("stays")}>
          Stays as it is<span className="sr-only">: {group.place}</span>
        </Button>
      </div>
      <Refused error={decide.error ?? reply.error} />
    </li>
  );
}
