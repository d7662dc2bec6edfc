/** A part that goes on as another: two ladders to cut, and the ways to bring them together beside each other. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas, sentence } from "../api/client";
import { type Design, useAct, useDesign } from "../design/design";
import { usePieces } from "../pieces/pieces";
import { Button, SelectField } from "../ui/controls";
import { cm } from "../ui/units";
import { type GraftIn, usePiecePorts, usePorts, useWays } from "./ask";
import { CutLadder } from "./cut-ladder";

type Way = Schemas["WayOut"];

/** Where the piece comes from: `p3` a piece, `d7` a design. */
function useOrigins(design: Design): [string, string][] {
  const pieces = usePieces();
  const shelf = useQuery({
    queryKey: ["shelf"],
    queryFn: () => answer<Schemas["DesignRow"][]>(api.GET("/api/designs")),
  });
  return [
    ...(pieces.data ?? []).map((p): [string, string] => [
      `p${p.id}`,
      `${p.title}${p.own ? "" : `, by ${p.designer || "somebody else"}`}`,
    ]),
    ...(shelf.data ?? []).map((d): [string, string] => [
      `d${d.id}`,
      d.id === design.id ? "This design" : `Design ${d.name}`,
    ]),
  ];
}

/** The parts that can be taken there, and the ports of the chosen one. */
function useTaken(from: string, part: string, design: Design) {
  const number = Number(from.slice(1)) || null;
  const pieces = usePieces();
  const piece = from.startsWith("p") ? pieces.data?.find((p) => p.id === number) : undefined;
  const other = useDesign(from.startsWith("d") && number ? number : design.id);
  const parts: [string, string][] = piece
    ? piece.keys.map((k, i) => [k, piece.parts[i] ?? k])
    : (other.data?.parts ?? []).map((p) => [p.key, p.name]);
  const chosen = parts.some(([k]) => k === part) ? part : (piece?.main ?? parts[0]?.[0] ?? null);
  const ofPiece = usePiecePorts(piece?.id ?? null, chosen);
  const ofDesign = usePorts(other.data?.id ?? design.id, other.data?.revision ?? 0, piece ? null : chosen);
  const ports = (piece ? ofPiece.data : ofDesign.data?.ports) ?? [];
  return { parts, chosen, ports, piece: piece?.id ?? null, design: piece ? null : (other.data?.id ?? null) };
}

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
  const whole = design.parts.filter((p) => p.counts.length && !p.faults);
  const [part, setPart] = useState(whole[0]?.key ?? "");
  const [upto, setUpto] = useState<number | null>(null);
  const origins = useOrigins(design);
  const [from, setFrom] = useState("");
  const [piecePart, setPiecePart] = useState("");
  const [first, setFirst] = useState<number | null>(null);
  const origin = origins.some(([k]) => k === from) ? from : (origins[0]?.[0] ?? "");
  const below = usePorts(design.id, design.revision, part || null);
  const taken = useTaken(origin, piecePart, design);
  const lower = below.data?.ports ?? [];
  const upper = taken.ports.filter((p) => p.round > 1);
  const before = new Map(taken.ports.map((p) => [p.round + 1, p.count]));
  const k =
    upto !== null && lower.some((p) => p.round === upto)
      ? upto
      : (lower[Math.floor(lower.length / 2)]?.round ?? 0);
  const have = lower.find((p) => p.round === k)?.count ?? 0;
  const fitting = upper.find((p) => before.get(p.round) === have)?.round;
  const j =
    first !== null && upper.some((p) => p.round === first) ? first : (fitting ?? upper[0]?.round ?? 0);
  const asked: GraftIn | null =
    part && k && j && taken.chosen
      ? {
          part,
          upto: k,
          taken: { piece: taken.piece, design: taken.design, part: taken.chosen, first: j },
          adapt: null,
        }
      : null;
  const ways = useWays(design, asked);
  const widest = Math.max(6, ...[...lower, ...upper].map((p) => p.count));
  if (!whole.length) return <p className="text-soft">A part with rounds that come out is needed first.</p>;
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-4 md:grid-cols-2">
        <section className="flex flex-col gap-2">
          <h3 className="text-lg">To this round</h3>
          <SelectField
            label="Part of this design"
            value={part}
            onValue={(key) => {
              setPart(key);
              setUpto(null);
            }}
            options={whole.map((p) => [p.key, p.name] as const)}
          />
          <CutLadder
            ports={lower}
            label="The last round that stays"
            side="below"
            chosen={k}
            widest={widest}
            fits={(r) => lower.find((p) => p.round === r)?.count === before.get(j)}
            onChoose={setUpto}
          />
        </section>
        <section className="flex flex-col gap-2">
          <h3 className="text-lg">Then from this round on</h3>
          <div className="grid grid-cols-2 gap-2">
            <SelectField
              label="Goes on as"
              value={origin}
              onValue={(key) => {
                setFrom(key);
                setPiecePart("");
                setFirst(null);
              }}
              options={origins}
            />
            <SelectField
              label="Which part of it"
              value={taken.chosen ?? ""}
              onValue={(key) => {
                setPiecePart(key);
                setFirst(null);
              }}
              options={taken.parts}
            />
          </div>
          <CutLadder
            ports={upper}
            label="The first round that is taken"
            side="above"
            chosen={j}
            widest={widest}
            fits={(r) => before.get(r) === have}
            onChoose={setFirst}
          />
        </section>
      </div>
      <p>
        {have} stitches after R{k}; the piece goes on from {before.get(j) ?? 0} at R{j}.
      </p>
      {ways.error && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
          {sentence(ways.error)}
        </p>
      )}
      {act.error && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
          {sentence(act.error)}
        </p>
      )}
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
