/** Several figures made together, a family or a mobile: what they take, each so many times. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { NumberField } from "../ui/controls";
import { Dialog, Guess } from "../ui/overlays";
import { Refused } from "../ui/refused";

type Row = Schemas["DesignRow"];
const MOST_TIMES = 500;

function useTogether(times: ReadonlyMap<number, number>) {
  const figures = [...times].filter(([, n]) => n > 0).map(([design, n]) => ({ design, times: n }));
  return useQuery({
    queryKey: ["figure", "together", figures],
    enabled: figures.length > 0,
    placeholderData: (before) => (figures.length ? before : undefined),
    queryFn: () => answer<Schemas["TogetherOut"]>(api.POST("/api/designs/together", { body: { figures } })),
  });
}

function Taken({ found }: { found: Schemas["TogetherOut"] }) {
  const metres = (v: number) => `${Math.round(v)} m`;
  const grams = (v: number) => `${Math.round(v)} g`;
  return (
    <section aria-label="What they take together">
      <h3 className="text-lg">
        {found.figures} {found.figures === 1 ? "figure" : "figures"} together
      </h3>
      <table className="w-full">
        <thead>
          <tr className="text-left text-sm text-soft">
            <th scope="col">Yarn</th>
            <th scope="col">Length</th>
            <th scope="col">Weight</th>
            <th scope="col">Skeins</th>
          </tr>
        </thead>
        <tbody>
          {found.yarns.map((y) => (
            <tr key={`${y.name} ${y.colour}`} className="border-t border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {y.colour && (
                  <span
                    aria-hidden="true"
                    className="mr-2 inline-block size-3 rounded-full border border-strong"
                    style={{ background: y.colour }}
                  />
                )}
                {y.name}
              </th>
              <td>
                <Guess of={y.metres} format={metres} />
              </td>
              <td>{y.grams ? <Guess of={y.grams} format={grams} /> : "not known"}</td>
              <td>{y.skeins ?? "not known"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2">
        {found.eyes.map((e) => `${e.many} eyes of ${e.mm} mm, `).join("")}
        filling <Guess of={found.filling_g} format={grams} />, work{" "}
        <Guess of={found.hours} format={(v) => `${v.toFixed(1)} h`} />
        {found.notions.length > 0 && `; ${found.notions.join(", ")}`}.
      </p>
      {found.unfit.length > 0 && (
        <p className="mt-2 border-l-4 border-weld bg-weld-ground px-2">
          Not counted, as they have no rounds yet: {found.unfit.join(", ")}.
        </p>
      )}
      {found.eyes.length > 0 && (
        <p className="mt-2 text-sm text-soft">Safety eyes are small parts: not for children under three.</p>
      )}
    </section>
  );
}

export function MakeTogether({ rows, onClose }: { rows: readonly Row[]; onClose: () => void }) {
  const [times, setTimes] = useState<ReadonlyMap<number, number>>(new Map());
  const found = useTogether(times);
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      wide
      title="Make several"
      about="A family, a mobile, a market stall: say how often each figure is made."
    >
      <div className="grid gap-5 md:grid-cols-2">
        <ul className="grid grid-cols-2 content-start gap-3">
          {rows
            .filter((r) => r.rounds)
            .map((r) => (
              <li key={r.id}>
                <NumberField
                  label={r.name}
                  value={times.get(r.id) ?? 0}
                  onValue={(n) => setTimes(new Map(times).set(r.id, n ?? 0))}
                  least={0}
                  most={MOST_TIMES}
                />
              </li>
            ))}
        </ul>
        <div aria-live="polite">
          <Refused error={found.error} />
          {found.data ? (
            <Taken found={found.data} />
          ) : (
            <p className="text-soft">What they take together stands here.</p>
          )}
        </div>
      </div>
    </Dialog>
  );
}
