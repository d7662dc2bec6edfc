/** Where two parts are cut: the part and its last round that stays, what it goes on as and the first round of that. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { type Design, useDesign } from "../design/design";
import { usePieces } from "../pieces/pieces";
import { type GraftIn, usePiecePorts, usePorts } from "./ask";

type Port = Schemas["PortOut"];

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

const there = (ports: readonly Port[], round: number | null): round is number =>
  round !== null && ports.some((p) => p.round === round);

export type Cuts = ReturnType<typeof useCuts>;

export function useCuts(design: Design) {
  const whole = design.parts.filter((p) => p.counts.length && !p.faults);
  const [part, setPart] = useState(whole[0]?.key ?? "");
  const [wishedUpto, setUpto] = useState<number | null>(null);
  const [from, setFrom] = useState("");
  const [wishedPart, setPiecePart] = useState("");
  const [wishedFirst, setFirst] = useState<number | null>(null);
  const origins = useOrigins(design);
  const origin = origins.some(([k]) => k === from) ? from : (origins[0]?.[0] ?? "");
  const lower = usePorts(design.id, design.revision, part || null).data?.ports ?? [];
  const taken = useTaken(origin, wishedPart, design);
  const upper = taken.ports.filter((p) => p.round > 1);
  const before = new Map(taken.ports.map((p) => [p.round + 1, p.count]));
  const upto = there(lower, wishedUpto) ? wishedUpto : (lower[Math.floor(lower.length / 2)]?.round ?? 0);
  const have = lower.find((p) => p.round === upto)?.count ?? 0;
  const fitting = upper.find((p) => before.get(p.round) === have) ?? upper[0];
  const first = there(upper, wishedFirst) ? wishedFirst : (fitting?.round ?? 0);
  const source = { piece: taken.piece, design: taken.design, part: taken.chosen, first };
  const asked: GraftIn | null =
    part && upto && first && taken.chosen ? { part, upto, taken: source, adapt: null } : null;
  const anew = () => {
    setPiecePart("");
    setFirst(null);
  };
  return {
    ...{ whole, part, lower, upto, have, setUpto },
    ...{ origins, origin, pieceParts: taken.parts, piecePart: taken.chosen, upper, first, setFirst },
    asked,
    need: before.get(first),
    needAt: (round: number) => before.get(round),
    widest: Math.max(6, ...[...lower, ...upper].map((p) => p.count)),
    setPart: (key: string) => {
      setPart(key);
      setUpto(null);
    },
    setFrom: (key: string) => {
      setFrom(key);
      anew();
    },
    setPiecePart: (key: string) => {
      setPiecePart(key);
      setFirst(null);
    },
  };
}
