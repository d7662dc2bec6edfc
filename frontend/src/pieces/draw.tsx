/** A figure of pieces drawn by lot: every slot has a number; one is drawn again, others are held; the numbers can be
 * shared. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dices, Lock, LockOpen, RefreshCw } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import { Button, Check, IconButton, TextField } from "../ui/controls";
import { SLOT_NAMES, type Slot } from "./pieces";

export const DRAWN: readonly Slot[] = ["body", "head", "limb", "on-top", "held"];
const MOST_SEED = 9999;

type Seeds = Partial<Record<Slot, number>>;

const fresh = () => Math.floor(Math.random() * (MOST_SEED + 1));

/** The numbers of all slots as one line, a dash for a slot that stays empty: "17-402-5-x-88". */
export function codeOf(seeds: Seeds): string {
  return DRAWN.map((slot) => seeds[slot] ?? "x").join("-");
}

/** The numbers of a line; null when it is none. */
export function seedsOf(code: string): Seeds | null {
  const said = code.trim().split("-");
  if (said.length !== DRAWN.length || !said.every((n) => n === "x" || /^\d{1,4}$/.test(n))) return null;
  return Object.fromEntries(DRAWN.flatMap((slot, i) => (said[i] === "x" ? [] : [[slot, Number(said[i])]])));
}

function drawAll(held: ReadonlySet<Slot>, now: Seeds): Seeds {
  return Object.fromEntries(
    DRAWN.flatMap((slot) => {
      const seed = held.has(slot) ? now[slot] : fresh();
      return seed === undefined ? [] : [[slot, seed]];
    }),
  );
}

function LotRow({
  lot,
  held,
  onHold,
  onAgain,
  onLeave,
}: {
  lot: Schemas["LotOut"];
  held: boolean;
  onHold: () => void;
  onAgain: () => void;
  onLeave: () => void;
}) {
  const name = SLOT_NAMES[lot.slot];
  return (
    <li className="flex flex-wrap items-center gap-2 border-t border-line py-1.5">
      <span className="w-36 text-sm text-soft">{name}</span>
      <span className="min-w-40 flex-1">
        {lot.title || "nothing that fits"}
        {lot.designer && <span className="text-sm text-soft"> by {lot.designer}</span>}
        {lot.among > 0 && <span className="text-sm text-soft">, one of {lot.among}</span>}
        {lot.misfit && (
          <span className="block border-l-4 border-weld bg-weld-ground px-2 text-sm">
            Does not fit: {lot.misfit}.
          </span>
        )}
      </span>
      <IconButton label={held ? `Let ${name} go` : `Hold ${name}`} aria-pressed={held} onClick={onHold}>
        {held ? <Lock size={16} /> : <LockOpen size={16} />}
      </IconButton>
      <IconButton label={`Draw ${name} again`} disabled={held} onClick={onAgain}>
        <RefreshCw size={16} />
      </IconButton>
      <Button weight="quiet" disabled={held} onClick={onLeave} aria-label={`Leave ${name} out`}>
        leave out
      </Button>
    </li>
  );
}

export function Draw() {
  const [seeds, setSeeds] = useState<Seeds>(() => drawAll(new Set(), {}));
  const [held, setHeld] = useState<ReadonlySet<Slot>>(new Set());
  const [misfits, setMisfits] = useState(false);
  const [typed, setTyped] = useState<string | null>(null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const drawn = useQuery({
    queryKey: ["pieces", "draw", seeds, misfits],
    queryFn: () => answer<Schemas["DrawnOut"]>(api.POST("/api/pieces/draw", { body: { seeds, misfits } })),
    placeholderData: (before) => before,
  });
  const make = useMutation({
    mutationFn: () =>
      answer<Schemas["DesignOut"]>(
        api.POST("/api/pieces/draw/make", { body: { seeds, misfits, name: "Drawn by lot" } }),
      ),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      navigate(`/designs/${made.id}/assembly`);
    },
  });
  const code = codeOf(seeds);
  const bad = typed !== null && seedsOf(typed) === null;
  const hold = (slot: Slot) => {
    const now = new Set(held);
    if (!now.delete(slot)) now.add(slot);
    setHeld(now);
  };
  const without = (slot: Slot) => {
    const { [slot]: _, ...rest } = seeds;
    setSeeds(rest);
  };
  const empty = DRAWN.filter((slot) => seeds[slot] === undefined);
  return (
    <section
      aria-label="Draw a figure"
      className="mb-6 grid gap-4 rounded-lg border border-line bg-panel p-4 md:grid-cols-[16rem_1fr]"
    >
      <div className="grid min-h-56 place-items-center">
        {drawn.data?.picture ? (
          <img
            alt="The drawn figure, by its estimate"
            className="max-h-72"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(drawn.data.picture)}`}
          />
        ) : (
          <span className="text-soft">{drawn.isPending ? "Drawing …" : "Nothing was drawn"}</span>
        )}
      </div>
      <div className="flex flex-col gap-2">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="flex-1 text-xl">Drawn by lot</h2>
          <Check label="also what does not fit" checked={misfits} onChecked={setMisfits} />
          <Button onClick={() => setSeeds(drawAll(held, seeds))}>
            <Dices size={18} /> Draw again
          </Button>
        </div>
        {drawn.error && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
            {sentence(drawn.error)}
          </p>
        )}
        <ul aria-label="What was drawn" aria-busy={drawn.isFetching}>
          {drawn.data?.lots.map((lot) => (
            <LotRow
              key={lot.slot}
              lot={lot}
              held={held.has(lot.slot)}
              onHold={() => hold(lot.slot)}
              onAgain={() => setSeeds({ ...seeds, [lot.slot]: fresh() })}
              onLeave={() => without(lot.slot)}
            />
          ))}
        </ul>
        {empty.length > 0 && (
          <p className="flex flex-wrap gap-1 text-sm">
            {empty.map((slot) => (
              <Button key={slot} weight="quiet" onClick={() => setSeeds({ ...seeds, [slot]: fresh() })}>
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
          <TextField
            label="Numbers, to share or to draw by"
            value={typed ?? code}
            error={bad ? "Five numbers up to 9999 with dashes between, x for none." : null}
            onChange={(e) => {
              setTyped(e.target.value);
              const found = seedsOf(e.target.value);
              if (found) setSeeds(found);
            }}
            onBlur={() => setTyped(null)}
          />
          <Button
            weight="main"
            disabled={make.isPending || !drawn.data?.picture}
            onClick={() => make.mutate()}
          >
            Make it a design
          </Button>
        </div>
        {make.error && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
            {sentence(make.error)}
          </p>
        )}
      </div>
    </section>
  );
}
