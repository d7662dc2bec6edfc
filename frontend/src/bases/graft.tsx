/** A part that goes on as another: two ladders to cut, and the ways to bring them together beside each other. */
import type { Schemas } from "../api/client";
import { type Design, useAct } from "../design/design";
import { Button, SelectField } from "../ui/controls";
import { Refused } from "../ui/refused";
import { cm } from "../ui/units";
import { useWays } from "./ask";
import { CutLadder } from "./cut-ladder";
import { type Cuts, useCuts } from "./use-cuts";

type Way = Schemas["WayOut"];

const TITLES: Record<string, string> = {
  none: "As they are",
  rounds: "Rounds between",
  grade: "The piece graded",
};

function WayCard({ way, busy, onTake }: { way: Way; busy: boolean; onTake: () => void }) {
  const title = TITLES[way.adapt ?? "none"] ?? "";
  return (
    <li className="flex min-w-64 flex-1 flex-col gap-1 rounded-lg border border-line bg-panel p-3">
      <h3 className="text-lg">{title}</h3>
      {way.problem ? (
        <p className="border-l-4 border-madder bg-madder-ground px-2">{way.problem}</p>
      ) : (
        <>
          <img
            alt={`The part as it goes on so, estimated: ${title.toLowerCase()}`}
            className="mx-auto h-40 max-w-full object-contain"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(way.picture)}`}
          />
          <p>
            {way.adapt === "rounds" &&
              `${way.adapters} ${way.adapters === 1 ? "round" : "rounds"} from ${way.base} to ${way.piece} stitches. `}
            {way.adapt === "grade" &&
              `The piece at ${Math.round(way.scale * 100)} %: its ${way.piece} become ${way.base} stitches. `}
            {way.adapt === null && `${way.base} stitches meet ${way.piece}: nothing between. `}
            {way.counts.length} rounds.
          </p>
          {way.comes && (
            <p className="text-sm text-soft">
              The figure then: {way.comes.stitches.toLocaleString("en")} stitches, about{" "}
              {Math.round(way.comes.metres)} m of yarn, {cm(way.comes.height_mm)} tall,{" "}
              {way.comes.hours.toFixed(1)} h.
            </p>
          )}
          {way.told.length > 0 && (
            <ul className="list-disc pl-5 text-sm">
              {way.told.map((t) => (
                <li key={t}>{t}</li>
              ))}
            </ul>
          )}
          <details>
            <summary className="cursor-pointer text-sm">The rounds</summary>
            <pre className="max-h-60 overflow-auto rounded bg-sunk px-2 py-1 text-sm whitespace-pre-wrap">
              {way.text}
            </pre>
          </details>
          <span className="mt-auto pt-2">
            <Button weight="main" disabled={busy} onClick={onTake} aria-label={`Go on so: ${title}`}>
              Go on so
            </Button>
          </span>
        </>
      )}
    </li>
  );
}

export function Graft({ design }: { design: Design }) {
  const act = useAct(design.id, () => true);
  const cuts = useCuts(design);
  const ways = useWays(design, cuts.asked);
  if (!cuts.whole.length)
    return <p className="text-soft">A part with rounds that come out is needed first.</p>;
  const { asked } = cuts;
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-4 md:grid-cols-2">
        <Below cuts={cuts} />
        <Above cuts={cuts} />
      </div>
      <p>
        {cuts.have} stitches after R{cuts.upto}; the piece goes on from {cuts.need ?? 0} at R{cuts.first}.
      </p>
      <Refused error={ways.error} />
      <Refused error={act.error} />
      {!ways.error && (
        <ul className="flex flex-wrap gap-3" aria-label="Ways to go on" aria-busy={ways.isFetching}>
          {ways.data?.ways.map((way) => (
            <WayCard
              key={way.adapt ?? "none"}
              way={way}
              busy={act.isPending || ways.isFetching}
              onTake={() => asked && act.mutate({ do: "graft", graft: { ...asked, adapt: way.adapt } })}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

function Below({ cuts }: { cuts: Cuts }) {
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-lg">To this round</h2>
      <SelectField
        label="Part of this design"
        value={cuts.part}
        onValue={cuts.setPart}
        options={cuts.whole.map((p) => [p.key, p.name] as const)}
      />
      <CutLadder
        ports={cuts.lower}
        label="The last round that stays"
        side="below"
        chosen={cuts.upto}
        widest={cuts.widest}
        fits={(r) => cuts.lower.find((p) => p.round === r)?.count === cuts.need}
        onChoose={cuts.setUpto}
      />
    </section>
  );
}

function Above({ cuts }: { cuts: Cuts }) {
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-lg">Then from this round on</h2>
      <div className="grid grid-cols-2 gap-2">
        <SelectField label="Goes on as" value={cuts.origin} onValue={cuts.setFrom} options={cuts.origins} />
        <SelectField
          label="Which part of it"
          value={cuts.piecePart ?? ""}
          onValue={cuts.setPiecePart}
          options={cuts.pieceParts}
        />
      </div>
      <CutLadder
        ports={cuts.upper}
        label="The first round that is taken"
        side="above"
        chosen={cuts.first}
        widest={cuts.widest}
        fits={(r) => cuts.needAt(r) === cuts.have}
        onChoose={cuts.setFirst}
      />
    </section>
  );
}
