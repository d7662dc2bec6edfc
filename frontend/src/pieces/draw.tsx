/** A figure of pieces drawn by lot: one slot is drawn again, others are held; the numbers can be shared. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dices, Lock, LockOpen, RefreshCw } from "lucide-react";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { useRest } from "../figure/use-rest";
import { Button, Check, IconButton, TextField } from "../ui/controls";
import { Refused } from "../ui/refused";
import { asked, codeOf, DRAWN, drawnAgain, drawnFirst, fresh, type Pick, type Picks, picksOf } from "./lots";
import { SLOT_NAMES, type Slot } from "./pieces";

function useDrawn(picks: Picks, misfits: boolean) {
  return useQuery({
    queryKey: ["pieces", "draw", picks, misfits],
    queryFn: () =>
      answer<Schemas["DrawnOut"]>(api.POST("/api/pieces/draw", { body: { ...asked(picks), misfits } })),
    placeholderData: (before) => before,
    retry: false,
  });
}

/** Has the drawn figure settled, and draws it anew when it is. */
function useAtRest(picks: Picks, misfits: boolean, drawn: Schemas["DrawnOut"] | undefined) {
  const queries = useQueryClient();
  const { settled, settling } = useRest(
    drawn?.picture ? ["drawn", drawn.lots.map((l) => l.piece), misfits] : null,
    () =>
      answer<Schemas["SettlingOut"]>(
        api.POST("/api/pieces/draw/settle", { body: { ...asked(picks), misfits } }),
      ),
  );
  const stale = settled && drawn?.whole === false;
  useEffect(() => {
    if (stale) queries.invalidateQueries({ queryKey: ["pieces", "draw"] });
  }, [stale, queries]);
  return settling;
}

function useMake(picks: Picks, misfits: boolean) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return useMutation({
    mutationFn: () =>
      answer<Schemas["DesignOut"]>(api.POST("/api/pieces/draw/make", { body: { ...asked(picks), misfits } })),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      navigate(`/designs/${made.id}/assembly`);
    },
  });
}

function LotRow({
  lot,
  held,
  set,
}: {
  lot: Schemas["LotOut"];
  held: boolean;
  set: (pick: Pick | null) => void;
}) {
  const name = SLOT_NAMES[lot.slot];
  return (
    <li className="flex flex-wrap items-center gap-2 border-t border-line py-1.5">
      <span className="w-36 text-sm text-soft">{name}</span>
      <span className="min-w-40 flex-1">
        {lot.title || "nothing that fits"}
        {lot.designer && <span className="text-sm text-soft"> by {lot.designer}</span>}
        {lot.among > 1 && <span className="text-sm text-soft">, one of {lot.among}</span>}
        {lot.misfit && (
          <span className="block border-l-4 border-weld bg-weld-ground px-2 text-sm">
            Does not fit: {lot.misfit}.
          </span>
        )}
      </span>
      <IconButton
        label={held ? `Let ${name} go` : `Hold ${name}`}
        aria-pressed={held}
        disabled={!held && lot.piece === null}
        onClick={() => set(held || lot.piece === null ? fresh() : { piece: lot.piece })}
      >
        {held ? <Lock size={16} /> : <LockOpen size={16} />}
      </IconButton>
      <IconButton label={`Draw ${name} again`} disabled={held} onClick={() => set(fresh())}>
        <RefreshCw size={16} />
      </IconButton>
      <Button weight="quiet" disabled={held} onClick={() => set(null)}>
        leave out<span className="sr-only"> {name}</span>
      </Button>
    </li>
  );
}

/** The line of numbers: read off to share, or typed to draw what somebody else drew. */
function Numbers({ picks, onPicks }: { picks: Picks; onPicks: (picks: Picks) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const bad = typed !== null && picksOf(typed) === null;
  return (
    <TextField
      label="Numbers, to share or to draw by"
      value={typed ?? codeOf(picks)}
      error={bad ? "Five numbers up to 9999 with dashes between, x for none, =7 for a piece held." : null}
      onChange={(e) => {
        setTyped(e.target.value);
        const found = picksOf(e.target.value);
        if (found) onPicks(found);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

function Picture({
  drawn,
  waiting,
  settling,
}: {
  drawn: Schemas["DrawnOut"] | undefined;
  waiting: boolean;
  settling: boolean;
}) {
  return (
    <div className="grid min-h-56 content-center justify-items-center gap-1">
      {drawn?.picture ? (
        <img
          alt={drawn.whole ? "The drawn figure, settled" : "The drawn figure, not settled yet"}
          className="max-h-72"
          src={drawn.picture}
        />
      ) : (
        <span className="text-soft">{waiting ? "Drawing …" : "Nothing was drawn"}</span>
      )}
      <span role="status" className="min-h-5 text-sm text-soft">
        {settling ? "Settling …" : ""}
      </span>
    </div>
  );
}

export function Draw() {
  const [picks, setPicks] = useState<Picks>(drawnFirst);
  const [misfits, setMisfits] = useState(false);
  const drawn = useDrawn(picks, misfits);
  const settling = useAtRest(picks, misfits, drawn.data);
  const make = useMake(picks, misfits);
  const set = (slot: Slot, pick: Pick | null) => {
    const { [slot]: _, ...rest } = picks;
    setPicks(pick ? { ...rest, [slot]: pick } : rest);
  };
  const held = (slot: Slot) => {
    const pick = picks[slot];
    return pick !== undefined && "piece" in pick;
  };
  const empty = DRAWN.filter((slot) => picks[slot] === undefined);
  return (
    <section
      aria-label="Draw a figure"
      className="mb-6 grid gap-4 rounded-lg border border-line bg-panel p-4 md:grid-cols-[16rem_1fr]"
    >
      <Picture drawn={drawn.data} waiting={drawn.isPending} settling={settling} />
      <div className="flex flex-col gap-2">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="flex-1 text-xl">Drawn by lot</h2>
          <Check label="also what does not fit" checked={misfits} onChecked={setMisfits} />
          <Button onClick={() => setPicks(drawnAgain(picks))}>
            <Dices size={18} /> Draw again
          </Button>
        </div>
        <Refused error={drawn.error} />
        <ul aria-label="What was drawn" aria-busy={drawn.isFetching}>
          {drawn.data?.lots.map((lot) => (
            <LotRow key={lot.slot} lot={lot} held={held(lot.slot)} set={(pick) => set(lot.slot, pick)} />
          ))}
        </ul>
        {empty.length > 0 && (
          <p className="flex flex-wrap gap-1 text-sm">
            {empty.map((slot) => (
              <Button key={slot} weight="quiet" onClick={() => set(slot, fresh())}>
                draw {SLOT_NAMES[slot].toLowerCase()} too
              </Button>
            ))}
          </p>
        )}
        {drawn.data && drawn.data.blocked.length > 0 && (
          <p className="border-l-4 border-weld bg-weld-ground px-2 text-sm">
            For your own use: {drawn.data.blocked.join(" ")}
          </p>
        )}
        <div className="mt-auto flex flex-wrap items-end gap-3">
          <Numbers picks={picks} onPicks={setPicks} />
          <Button
            weight="main"
            disabled={make.isPending || !drawn.data?.picture}
            onClick={() => make.mutate()}
          >
            Make it a design
          </Button>
        </div>
        <Refused error={make.error} />
      </div>
    </section>
  );
}
