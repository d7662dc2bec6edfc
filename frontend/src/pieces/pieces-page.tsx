/** All pieces: found by what they fit, brought in, taken out. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Download, Pencil, Trash2 } from "lucide-react";
import { useState } from "react";
import { answer, api, postFile, sentence } from "../api/client";
import { Button, Empty, IconButton } from "../ui/controls";
import { FileButton } from "../ui/file-button";
import { Confirm, useSay } from "../ui/overlays";
import { Describe } from "./describe";
import { Draw } from "./draw";
import { FindPiece } from "./find-piece";
import { PieceCard } from "./piece-card";
import { ANYTHING, isWanted, type Piece, pieceFile, REMOVING, usePieces } from "./pieces";

function useBringIn() {
  const queries = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: (file: File) => postFile<Piece>("/api/pieces/from-file", file),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["pieces"] });
      say(
        made.own
          ? `${made.title} is on the shelf.`
          : `${made.title} is on the shelf as somebody else's: note whose it is before you publish.`,
      );
    },
    onError: (e) => say(sentence(e), true),
  });
}

function Remove({ piece }: { piece: Piece }) {
  const queries = useQueryClient();
  const say = useSay();
  const remove = useMutation({
    mutationKey: REMOVING,
    mutationFn: async (id: number) => {
      // What is being asked of the piece is answered first: behind its removal there is nothing to answer.
      const asked = queries.getQueryCache().find({ queryKey: ["settling", "piece", id] });
      if (asked?.state.fetchStatus === "fetching") await asked.promise?.catch(() => null);
      return answer(api.DELETE("/api/pieces/{piece_id}", { params: { path: { piece_id: id } } }));
    },
    // It is being removed until the list without it is there.
    onSettled: () => queries.invalidateQueries({ queryKey: ["pieces"] }),
    onError: (e) => say(sentence(e), true),
  });
  return (
    <Confirm
      trigger={
        <IconButton label={`Remove ${piece.title}`}>
          <Trash2 size={16} />
        </IconButton>
      }
      title={`Remove ${piece.title}?`}
      about="Figures that it was used in keep it. The piece itself cannot be brought back unless you have its file."
      yes="Remove it"
      onYes={() => remove.mutate(piece.id)}
    />
  );
}

export function PiecesPage() {
  const pieces = usePieces();
  const bring = useBringIn();
  const [wanted, setWanted] = useState(ANYTHING);
  const [drawing, setDrawing] = useState(false);
  const [about, setAbout] = useState<Piece | null>(null);
  const found = (pieces.data ?? []).filter((p) => isWanted(p, wanted));
  return (
    <main id="main" tabIndex={-1} className="min-h-0 flex-1 overflow-auto outline-none">
      <div className="mx-auto w-full max-w-6xl p-6">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-2">
          <h1 className="text-3xl">Pieces</h1>
          <span className="flex-1" />
          <Button aria-pressed={drawing} disabled={!pieces.data?.length} onClick={() => setDrawing(!drawing)}>
            Draw a figure
          </Button>
          <FileButton
            label="File of a piece, a design or a pattern"
            accept=".json,.txt,.md,.html,.docx,.pdf"
            busy={bring.isPending ? "Reading …" : null}
            onFile={(file) => bring.mutate(file)}
          >
            Bring in a piece
          </FileButton>
        </div>
        <p className="mb-4 max-w-prose text-soft">
          Heads, hats, wings and paws to build figures from. Parts of a design are kept here from its Bases
          stop.
        </p>
        {drawing && <Draw />}
        {pieces.error && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-3 py-2">
            {sentence(pieces.error)}
          </p>
        )}
        {pieces.data?.length === 0 && (
          <Empty title="No pieces yet">
            <p>Keep a part of a design as a piece at its Bases stop, or bring in a file.</p>
          </Empty>
        )}
        {(pieces.data?.length ?? 0) > 0 && <FindPiece wanted={wanted} onWanted={setWanted} />}
        <p role="status" className="mb-2 text-sm text-soft">
          {pieces.isPending
            ? "Looking …"
            : pieces.data?.length
              ? `${found.length} of ${pieces.data.length}`
              : ""}
        </p>
        {(pieces.data?.length ?? 0) > 0 && found.length === 0 && (
          <Empty title="Nothing fits that">
            <Button onClick={() => setWanted(ANYTHING)}>Show all pieces</Button>
          </Empty>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-4">
          {found.map((piece) => (
            <PieceCard key={piece.id} piece={piece}>
              <Button weight="quiet" asChild className="px-1.5">
                <a
                  href={pieceFile(piece.id)}
                  download
                  aria-label={`Save the file of ${piece.title}`}
                  title={`Save the file of ${piece.title}`}
                >
                  <Download size={16} />
                </a>
              </Button>
              <IconButton
                label={`About ${piece.title}: whose it is, its terms`}
                onClick={() => setAbout(piece)}
              >
                <Pencil size={16} />
              </IconButton>
              <Remove piece={piece} />
            </PieceCard>
          ))}
        </ul>
        {about && <Describe piece={about} onClose={() => setAbout(null)} />}
      </div>
    </main>
  );
}
