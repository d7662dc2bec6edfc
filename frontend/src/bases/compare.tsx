/** This design held against another one, an earlier step of itself, or one of its sizes. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { SelectField } from "../ui/controls";
import { Refused } from "../ui/refused";
import { cm } from "../ui/units";
import { type Against, type Comparison, useComparison } from "./ask";
import { LaidOver } from "./laid-over";
import { Overlaid } from "./overlaid";

/** What it can be compared with, each by a key: `d7`, `r12`, `sabcd`. */
function useChoices(design: Design): [string, string][] {
  const shelf = useQuery({
    queryKey: ["shelf"],
    queryFn: () => answer<Schemas["DesignRow"][]>(api.GET("/api/designs")),
  });
  const history = useQuery({
    queryKey: ["history", design.id],
    queryFn: () =>
      answer<Schemas["RevisionRow"][]>(
        api.GET("/api/designs/{design_id}/history", { params: { path: { design_id: design.id } } }),
      ),
  });
  const base = design.origin?.id;
  const others = (shelf.data ?? []).filter((d) => d.id !== design.id);
  others.sort((a, b) => Number(b.id === base) - Number(a.id === base));
  return [
    ...others.map((d): [string, string] => [`d${d.id}`, d.id === base ? `Its base: ${d.name}` : d.name]),
    ...(design.sizes.sizes ?? []).map((s): [string, string] => [`s${s.key}`, `Its size ${s.name}`]),
    ...(history.data ?? [])
      .filter((r) => !r.shown)
      .map((r): [string, string] => [`r${r.number}`, `Step ${r.number}: ${r.label}`]),
  ];
}

function against(design: Design, key: string): Against | null {
  const rest = key.slice(1);
  if (key.startsWith("d")) return { other: Number(rest) };
  if (key.startsWith("s")) return { other: design.id, size: rest };
  return key ? { other: design.id, revision: Number(rest) } : null;
}

function Comes({ found }: { found: Comparison }) {
  const rows: [string, (c: Schemas["ComesOut"]) => string][] = [
    ["Stitches", (c) => c.stitches.toLocaleString("en")],
    ["Height, estimated", (c) => cm(c.height_mm)],
    ["Yarn, about", (c) => `${Math.round(c.metres)} m`],
    ["Filling, about", (c) => `${Math.round(c.filling_g)} g`],
    ["Work, about", (c) => `${c.hours.toFixed(1)} h`],
  ];
  return (
    <table className="w-auto self-start text-sm">
      <thead>
        <tr>
          <td />
          <th scope="col" className="px-3 text-left">
            {found.a === found.b ? `${found.a}, that one` : found.a}
          </th>
          <th scope="col" className="px-3 text-left">
            {found.a === found.b ? "this one" : found.b}
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name} className="border-t border-line">
            <th scope="row" className="pr-3 text-left font-normal text-soft">
              {name}
            </th>
            <td className="px-3">{of(found.a_comes)}</td>
            <td className={`px-3 ${of(found.a_comes) === of(found.b_comes) ? "" : "font-semibold"}`}>
              {of(found.b_comes)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Part({ part }: { part: Comparison["parts"][number] }) {
  return (
    <li className="flex flex-wrap items-start gap-4 border-t border-line py-3">
      <Overlaid rounds={part.rounds} label={`${part.name}: both ladders over each other`} />
      <div className="min-w-56 flex-1">
        <h2 className="text-lg">{part.name}</h2>
        <ul className="list-disc pl-5">
          {part.words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
    </li>
  );
}

export function Compare({ design }: { design: Design }) {
  const choices = useChoices(design);
  const [chosen, setChosen] = useState("");
  const now = choices.some(([k]) => k === chosen) ? chosen : (choices[0]?.[0] ?? "");
  const found = useComparison(design, against(design, now));
  if (!choices.length)
    return (
      <p className="text-soft">There is nothing to compare with yet: it has one step and no other design.</p>
    );
  const changed = found.data?.parts.filter((p) => p.words.length) ?? [];
  const same = found.data?.parts.filter((p) => !p.words.length) ?? [];
  return (
    <div className="flex flex-col gap-3">
      <SelectField
        label="Compare with"
        className="max-w-md"
        value={now}
        onValue={setChosen}
        options={choices}
        hint="What differs is said of this design, beside that one."
      />
      {found.isFetching && (
        <p role="status" className="text-soft">
          Comparing …
        </p>
      )}
      <Refused error={found.error} />
      {found.data && (
        <>
          <p className="text-lg">
            {found.data.sums.length ? `${found.data.sums.join(", ")}.` : "Neither takes more than the other."}
          </p>
          <Comes found={found.data} />
          {changed.length > 0 && (
            <p className="text-sm text-soft">
              Ladders: outlined in red as it is there, filled as it is here; green rounds are new, blue ones
              have more stitches, ochre ones fewer, brown ones as many worked otherwise, dashed ones are gone.
            </p>
          )}
          {changed.length > 0 && (
            <ul>
              {changed.map((p) => (
                <Part key={p.key} part={p} />
              ))}
            </ul>
          )}
          {changed.length > 0 && <LaidOver design={design} against={against(design, now)} />}
          {same.length > 0 && (
            <p className="text-soft">Worked alike: {same.map((p) => p.name).join(", ")}.</p>
          )}
          {found.data.words.length > 0 && (
            <section>
              <h2 className="text-lg">Beside the rounds</h2>
              <ul className="list-disc pl-5">
                {found.data.words.map((w) => (
                  <li key={w}>{w}</li>
                ))}
              </ul>
            </section>
          )}
        </>
      )}
    </div>
  );
}
