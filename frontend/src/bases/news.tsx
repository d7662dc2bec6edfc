/** What is new in the base: taken part by part, a conflict with both sides beside each other. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import { type Design, useAct } from "../design/design";
import { Button, Check } from "../ui/controls";
import { Refused } from "../ui/refused";
import { type BaseNews, useBase } from "./ask";
import { Fit } from "./worn";

type Change = Schemas["ChangeOut"];

function Lines({ title, lines }: { title: string; lines: readonly string[] }) {
  return (
    <div className="min-w-0 flex-1 basis-64">
      <p className="text-sm text-soft">{title}</p>
      <pre className="overflow-auto rounded bg-sunk px-2 py-1 text-sm whitespace-pre-wrap">
        {lines.join("\n") || "—"}
      </pre>
    </div>
  );
}

function Both({ change }: { change: Change }) {
  if (!change.before.length && !change.after.length) return null;
  return (
    <div className="mt-1 flex flex-wrap gap-2 pl-6">
      <Lines title="as it was" lines={change.before} />
      <Lines title="as it is in the base now" lines={change.after} />
    </div>
  );
}

function Row({ change, taken, onTaken }: { change: Change; taken: boolean; onTaken: (on: boolean) => void }) {
  return (
    <li className="border-t border-line py-2">
      <Check label={change.said} checked={taken} onChecked={onTaken} />
      <Both change={change} />
    </li>
  );
}

function Conflict({
  n,
  news,
  taken,
  onTaken,
}: {
  n: number;
  news: BaseNews;
  taken: boolean;
  onTaken: (on: boolean) => void;
}) {
  const theirs = news.changes.filter((c) => c.conflict === n);
  const hers = news.conflicts[n]?.hers ?? [];
  const side = (title: string, changes: readonly Change[], on: boolean, choose: () => void) => (
    <label
      className={`flex min-w-0 flex-1 basis-72 cursor-pointer flex-col gap-1 rounded border p-2 ${on ? "border-woad bg-woad-ground" : "border-line"}`}
    >
      <span className="flex items-center gap-2 font-semibold">
        <input
          type="radio"
          name={`conflict-${n}`}
          className="size-4 accent-woad"
          checked={on}
          onChange={choose}
        />
        {title}
      </span>
      {changes.map((c) => (
        <span key={c.key}>
          {c.said}
          {c.after.length > 0 && (
            <pre className="overflow-auto rounded bg-panel px-2 py-1 text-sm whitespace-pre-wrap">
              {c.after.join("\n")}
            </pre>
          )}
        </span>
      ))}
    </label>
  );
  return (
    <li className="border-t border-line py-2">
      <fieldset>
        <legend className="border-l-4 border-weld bg-weld-ground px-2">
          {theirs[0]?.part ?? "Both"}: changed on both sides
        </legend>
        <div className="mt-1 flex flex-wrap gap-2">
          {side("Keep yours", hers, !taken, () => onTaken(false))}
          {side("Take the base's", theirs, taken, () => onTaken(true))}
        </div>
      </fieldset>
    </li>
  );
}

export function News({ design }: { design: Design }) {
  const news = useBase(design);
  if (!design.origin)
    return (
      <p className="text-soft">
        This design was made from nothing else. A copy, or a size made a design, has a base.
      </p>
    );
  if (!design.origin.id)
    return (
      <p className="text-soft">
        {design.origin.name}, which it was made from, is not there any more; nothing new can come from it.
      </p>
    );
  if (news.error) return <Refused error={news.error} />;
  if (!news.data)
    return (
      <p role="status" className="text-soft">
        Looking at the base …
      </p>
    );
  const { fits } = news.data;
  return (
    <>
      {fits && (
        <section className="mb-3 max-w-prose" aria-label="What it fits">
          <h2 className="text-lg">
            On {fits.host} of {news.data.name}, as it is now
          </h2>
          <Fit worn={fits} />
        </section>
      )}
      <Choices key={`${news.data.now} ${design.revision}`} design={design} news={news.data} />
    </>
  );
}

function Choices({ design, news }: { design: Design; news: BaseNews }) {
  const act = useAct(design.id, () => true);
  const free = news.changes.filter((c) => c.conflict === null);
  const [taken, setTaken] = useState(new Set(free.map((c) => c.key)));
  const [done, setDone] = useState(false);
  const put = (keys: string[], on: boolean) => {
    const now = new Set(taken);
    for (const key of keys) on ? now.add(key) : now.delete(key);
    setTaken(now);
  };
  const size = news.size ? ` at the size ${news.size}` : "";
  if (!news.changes.length)
    return (
      <p>
        Nothing is new in {news.name}
        {size} since it was taken in (step {news.taken}).
      </p>
    );
  const left = news.changes.length - taken.size;
  return (
    <div>
      <p>
        {news.name}
        {size} went on from step {news.taken} to {news.now}: {news.changes.length}{" "}
        {news.changes.length === 1 ? "change is" : "changes are"} new
        {news.conflicts.length > 0 && `, ${news.conflicts.length} of them where you changed something, too`}.
      </p>
      <div className="my-2 flex flex-wrap gap-2">
        <Button onClick={() => setTaken(new Set(news.changes.map((c) => c.key)))}>Choose all</Button>
        <Button onClick={() => setTaken(new Set(free.map((c) => c.key)))}>
          Choose what is in nobody's way
        </Button>
        <Button onClick={() => setTaken(new Set())}>Choose none</Button>
      </div>
      <ul>
        {free.map((c) => (
          <Row key={c.key} change={c} taken={taken.has(c.key)} onTaken={(on) => put([c.key], on)} />
        ))}
        {news.conflicts.map((conflict, n) => {
          const theirs = news.changes.filter((c) => c.conflict === n).map((c) => c.key);
          return (
            <Conflict
              key={conflict.hers.map((h) => h.key).join()}
              n={n}
              news={news}
              taken={theirs.some((t) => taken.has(t))}
              onTaken={(on) => put(theirs, on)}
            />
          );
        })}
      </ul>
      <Refused error={act.error} />
      <div className="mt-3 flex flex-wrap items-center gap-4">
        {left > 0 && <Check label="Do not show the others again" checked={done} onChecked={setDone} />}
        <Button
          weight="main"
          disabled={act.isPending || (!taken.size && !done)}
          onClick={() =>
            act.mutate({ do: "take", take: { take: [...taken], now: news.now, done: done || !left } })
          }
        >
          {taken.size ? `Take ${taken.size} of ${news.changes.length}` : "Leave them all"}
        </Button>
      </div>
    </div>
  );
}
