/** Pieces put into this figure, and parts of it kept as pieces. */
import { useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { fromFront } from "../assembly/places";
import { useScene } from "../assembly/use-scene";
import { type Design, useAct } from "../design/design";
import { paletteOf } from "../design/palette";
import { pictureUrl } from "../design/use-picture";
import { WholeFigure } from "../figure/views";
import { FindPiece } from "../pieces/find-piece";
import { PIECE_DRAG, PieceCard } from "../pieces/piece-card";
import { ANYTHING, isWanted, type Piece, usePieces } from "../pieces/pieces";
import { Button, Check, NumberField, SelectField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { KeepPiece } from "./keep-piece";

const LATER = "";

/** Where a piece was dropped. */
type Spot = { on: string; round: number; stitch: number };

function UsePiece({
  design,
  piece,
  spot,
  onClose,
}: {
  design: Design;
  piece: Piece;
  spot: Spot | null;
  onClose: () => void;
}) {
  const act = useAct(design.id, () => true);
  const own = (design.gauge.yarns ?? []).map((y) => y.name);
  const [colours, setColours] = useState<Record<string, string>>({});
  const [copies, setCopies] = useState(1);
  const [insideOut, setInsideOut] = useState(false);
  const [upsideDown, setUpsideDown] = useState(false);
  const [on, setOn] = useState(spot?.on ?? LATER);
  const [round, setRound] = useState(spot?.round ?? 1);
  const [stitch, setStitch] = useState(spot?.stitch ?? 0);
  const host = design.parts.find((p) => p.key === on);
  const last = host?.counts.length ?? 1;
  const put = () =>
    act.mutate(
      {
        do: "put-in",
        use: {
          piece: piece.id,
          colours,
          copies,
          inside_out: insideOut,
          upside_down: Boolean(on) && upsideDown,
          on: on || null,
          round: on ? round : null,
          stitch,
        },
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      title={`Use ${piece.title}`}
      about="It comes with all its parts, its joins and its credit. One undo takes it out again."
    >
      <div className="flex flex-col gap-3">
        <Recoloured piece={piece} own={own} colours={colours} onColours={setColours} />
        <div className="grid grid-cols-2 gap-3">
          <NumberField
            label="How often"
            value={copies}
            onValue={(n) => setCopies(n ?? 1)}
            least={1}
            most={20}
          />
          <span className="self-center">
            <Check label="Wrong side out" checked={insideOut} onChecked={setInsideOut} />
          </span>
          <SelectField
            label="Joined to"
            value={on}
            onValue={(key) => {
              setOn(key);
              setRound(design.parts.find((p) => p.key === key)?.counts.length ?? 1);
            }}
            options={[
              [LATER, "placed later"] as const,
              ...design.parts.filter((p) => p.counts.length).map((p) => [p.key, p.name] as const),
            ]}
          />
          {host && (
            <NumberField
              label={`At round of ${host.name}`}
              value={round}
              onValue={(n) => setRound(n ?? 1)}
              least={1}
              most={last}
            />
          )}
          {host && (
            <NumberField
              label="Stitches from the front"
              value={stitch}
              onValue={(n) => setStitch(n ?? 0)}
              least={-500}
              most={500}
              hint="A pair sits on both sides."
            />
          )}
          {host && (
            <span className="self-center">
              <Check label="Upside down, on its first round" checked={upsideDown} onChecked={setUpsideDown} />
            </span>
          )}
        </div>
        <Refused error={act.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button weight="main" disabled={act.isPending} onClick={put}>
            Put it in
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

/** Which of the figure's yarns the piece's become. */
function Recoloured({
  piece,
  own,
  colours,
  onColours,
}: {
  piece: Piece;
  own: readonly string[];
  colours: Record<string, string>;
  onColours: (colours: Record<string, string>) => void;
}) {
  if (!own.length) return null;
  return piece.yarns.map((yarn, i) => (
    <SelectField
      key={yarn.name}
      label={i ? `Its ${yarn.name}` : `Its main yarn, ${yarn.name}`}
      value={colours[yarn.name] ?? (i ? "" : (own[0] ?? ""))}
      onValue={(name) => {
        const { [yarn.name]: _, ...rest } = colours;
        onColours(name ? { ...rest, [yarn.name]: name } : rest);
      }}
      options={[...(i ? [["", "stays, and comes along"] as const] : []), ...own.map((n) => [n, n] as const)]}
    />
  ));
}

/** The figure as it is: a piece dropped on it is asked for at that place. */
function Onto({
  design,
  onDropped,
}: {
  design: Design;
  onDropped: (piece: number, spot: Spot | null) => void;
}) {
  const { scene, settled } = useScene(design);
  const palette = useMemo(() => paletteOf(design), [design]);
  const names = useMemo(() => Object.fromEntries(design.parts.map((p) => [p.key, p.name])), [design.parts]);
  const leftHanded = useLeftHanded();
  return (
    <section
      aria-label="The figure"
      className="sticky top-0 hidden h-[26rem] flex-col rounded-lg border border-line bg-panel lg:flex"
    >
      <p className="border-b border-line px-3 py-1 text-sm text-soft">
        Drag a piece onto the figure, or choose Use beside it.
      </p>
      <div className="min-h-0 flex-1">
        {scene && (
          <WholeFigure
            scene={scene}
            label={`${design.name}, to put pieces on`}
            picture={pictureUrl(design.id, design.revision)}
            settled={settled}
            palette={palette}
            names={names}
            mirrored={leftHanded}
            takes={PIECE_DRAG}
            onDropped={(id, picked) => {
              const at = picked && {
                on: picked.part,
                round: (picked.settled.round[picked.stitch] ?? 0) + 1,
                stitch: fromFront(scene, picked.part, picked.settled, picked.stitch),
              };
              onDropped(Number(id), at);
            }}
          />
        )}
      </div>
    </section>
  );
}

export function PutIn({ design }: { design: Design }) {
  const pieces = usePieces();
  const [wanted, setWanted] = useState(ANYTHING);
  const [using, setUsing] = useState<{ piece: Piece; spot: Spot | null } | null>(null);
  const [keeping, setKeeping] = useState(false);
  const found = (pieces.data ?? []).filter((p) => isWanted(p, wanted));
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <p className="min-w-60 flex-1 text-soft">
          Any piece can be used as anything: a bonnet as a shell, a paw as a beak.
        </p>
        <Button disabled={!design.parts.length} onClick={() => setKeeping(true)}>
          Keep parts as a piece
        </Button>
      </div>
      <Refused error={pieces.error} />
      {pieces.data?.length === 0 && (
        <p>There are no pieces yet. Keep one from here, or bring one in on the Pieces page.</p>
      )}
      {(pieces.data?.length ?? 0) > 0 && <FindPiece wanted={wanted} onWanted={setWanted} />}
      <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(14rem,1fr))] gap-3" aria-label="Pieces">
          {found.map((piece) => (
            <PieceCard key={piece.id} piece={piece} draggable>
              <Button weight="main" onClick={() => setUsing({ piece, spot: null })}>
                Use<span className="sr-only"> {piece.title}</span>
              </Button>
            </PieceCard>
          ))}
        </ul>
        {found.length > 0 && (
          <Onto
            design={design}
            onDropped={(id, spot) => {
              const piece = found.find((p) => p.id === id);
              if (piece) setUsing({ piece, spot });
            }}
          />
        )}
      </div>
      {using && <UsePiece design={design} {...using} onClose={() => setUsing(null)} />}
      {keeping && <KeepPiece design={design} onClose={() => setKeeping(false)} />}
    </div>
  );
}
