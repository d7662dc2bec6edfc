/** The shelf of pieces: read once, and what of it is looked for. */
import { useMutationState, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useRest } from "../figure/use-rest";

export type Piece = Schemas["ShelfPieceOut"];
export type Slot = Piece["slot"];
export type Port = Schemas["PortOut"];

export const SLOTS = [
  ["head", "Head"],
  ["body", "Body"],
  ["limb", "Limb"],
  ["on-top", "Something on top"],
  ["clothes", "Clothes"],
  ["held", "To hold"],
  ["other", "Other"],
] as const satisfies readonly (readonly [Slot, string])[];

export const SLOT_NAMES = Object.fromEntries(SLOTS) as Record<Slot, string>;

/** The key of the removal of a piece; its variable is the piece's id. */
export const REMOVING = ["remove a piece"];

/** All pieces but those that are being removed: no list that is read meanwhile brings one back. */
export function usePieces() {
  const going = useMutationState({
    filters: { mutationKey: REMOVING, status: "pending" },
    select: (mutation) => mutation.state.variables,
  });
  const found = useQuery({ queryKey: ["pieces"], queryFn: () => answer<Piece[]>(api.GET("/api/pieces")) });
  return { ...found, data: found.data?.filter((piece) => !going.includes(piece.id)) };
}

export const pieceFile = (id: number) => `/api/pieces/${id}/file`;

/** A piece as it looks: by the estimate at once, settled as soon as it is. */
export function usePiecePicture(id: number): { url: string; settling: boolean } {
  const { settled, settling } = useRest(["piece", id], () =>
    answer<Schemas["SettlingOut"]>(
      api.POST("/api/pieces/{piece_id}/settle", { params: { path: { piece_id: id } } }),
    ),
  );
  return { url: `/api/pieces/${id}/picture${settled ? "?settled" : ""}`, settling };
}

/** What is looked for. count: of an open end; girth: of one, in mm, met within a tenth. may: what its terms allow. */
export type Wanted = {
  words: string;
  slot: Slot | "";
  count: number | null;
  girth: number | null;
  may: "" | "change" | "sell" | "rounds";
};

export const ANYTHING: Wanted = { words: "", slot: "", count: null, girth: null, may: "" };

const GIRTH_NEAR = 0.1;

export function isWanted(piece: Piece, wanted: Wanted): boolean {
  const said = [piece.title, piece.designer, ...piece.tags, ...piece.parts].join(" ").toLowerCase();
  const { count, girth, may, slot } = wanted;
  const allowed =
    piece.own ||
    {
      "": true,
      change: piece.permissions.change ?? true,
      sell: piece.permissions.selling === "yes" || piece.permissions.selling === "credited",
      rounds: piece.permissions.rounds ?? false,
    }[may];
  return (
    wanted.words
      .toLowerCase()
      .split(/\s+/)
      .every((w) => said.includes(w)) &&
    (!slot || piece.slot === slot) &&
    (count === null || piece.ports.some((p) => p.count === count)) &&
    (girth === null || piece.ports.some((p) => Math.abs(p.girth_mm - girth) <= GIRTH_NEAR * girth)) &&
    allowed
  );
}

export function portWords(piece: Piece): string {
  if (!piece.ports.length) return "closed all around";
  return piece.ports
    .map((p) => `${p.name} open on ${p.count} (${Math.round(p.girth_mm)} mm around)`)
    .join(", ");
}
