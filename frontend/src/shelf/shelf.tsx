/** All designs, as figures on a shelf. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy, Plus, Trash2 } from "lucide-react";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import { usePicture } from "../design/use-picture";
import { Button, Check, Empty, IconButton } from "../ui/controls";
import { useCommands } from "../ui/keys";
import { Confirm, useSay } from "../ui/overlays";
import { DesignFromFile, NewDesign } from "./new-design";
import { MakeTogether } from "./together";

type Row = Schemas["DesignRow"];

function State({ row }: { row: Row }) {
  if (!row.parts) return <span className="rounded bg-sunk px-1.5">no parts yet</span>;
  if (row.faults)
    return (
      <span className="rounded border-l-4 border-madder bg-madder-ground px-1.5">
        {row.faults} {row.faults === 1 ? "fault" : "faults"}
      </span>
    );
  return <span className="rounded border-l-4 border-moss bg-moss-ground px-1.5">adds up</span>;
}

type Scale = { across: number | null; onExtent: (design: number, extent: number) => void };

function Figure({ row, across, onExtent }: { row: Row } & Scale) {
  const { url, settling, extent } = usePicture(row.id, row.revision, across);
  useEffect(() => onExtent(row.id, extent), [onExtent, row.id, extent]);
  return (
    <span className="relative block size-full">
      <img
        src={url}
        alt=""
        className="size-full object-contain transition-transform group-hover:scale-[1.03]"
      />
      {settling && (
        <span className="absolute right-0 bottom-0 rounded bg-weld-ground px-1.5 text-sm">settling …</span>
      )}
    </span>
  );
}

function Card({ row, ...scale }: { row: Row } & Scale) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const say = useSay();
  const refused = (e: unknown) => say(sentence(e), true);
  const path = { params: { path: { design_id: row.id } } };
  const copy = useMutation({
    mutationFn: () => answer<Schemas["DesignOut"]>(api.POST("/api/designs/{design_id}/copy", path)),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      navigate(`/designs/${made.id}`);
    },
    onError: refused,
  });
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE("/api/designs/{design_id}", path)),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
    onError: refused,
  });
  return (
    <li className="flex flex-col">
      <Link
        to={`/designs/${row.id}`}
        className="group flex flex-col rounded-t-lg border border-b-0 border-line bg-panel"
      >
        <div className="grid h-56 place-items-center p-4 *:min-h-0">
          {row.problem ? (
            <p className="border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">{row.problem}</p>
          ) : row.rounds ? (
            <Figure row={row} {...scale} />
          ) : (
            <span className="text-soft">Nothing to see yet</span>
          )}
        </div>
        <div className="px-3 pb-2">
          <h2 className="text-xl group-hover:underline">{row.name}</h2>
          <p className="text-sm text-soft">
            {row.parts} {row.parts === 1 ? "part" : "parts"}, {row.rounds} rounds,{" "}
            {row.stitches.toLocaleString("en")} stitches
          </p>
        </div>
      </Link>
      <div className="flex items-center justify-between border border-t-0 border-line bg-panel px-3 pb-2 text-sm">
        <State row={row} />
        <span className="flex">
          <IconButton label={`Copy ${row.name}`} onClick={() => copy.mutate()} disabled={copy.isPending}>
            <Copy size={16} />
          </IconButton>
          <Confirm
            trigger={
              <IconButton label={`Remove ${row.name}`}>
                <Trash2 size={16} />
              </IconButton>
            }
            title={`Remove ${row.name}?`}
            about="The design goes with all its steps and pictures. This cannot be undone."
            yes="Remove it"
            onYes={() => remove.mutate()}
          />
        </span>
      </div>
      <div
        className="h-2.5 rounded-b-[2px] border-x border-b border-strong bg-[#b99f7c]"
        aria-hidden="true"
      />
    </li>
  );
}

/** Millimetres across the widest figure's picture, in whole centimetres with a margin; 0 until one is known. */
function useWidest() {
  const [extents, setExtents] = useState<Record<number, number>>({});
  const onExtent = useCallback((design: number, extent: number) => {
    if (extent) setExtents((now) => (now[design] === extent ? now : { ...now, [design]: extent }));
  }, []);
  const most = Math.max(0, ...Object.values(extents));
  return { widest: Math.ceil((most * 1.12) / 10) * 10, onExtent };
}

export function Shelf() {
  const [making, setMaking] = useState(false);
  const [several, setSeveral] = useState(false);
  const [scaled, setScaled] = useState(false);
  const { widest, onExtent } = useWidest();
  const across = scaled && widest ? widest : null;
  const shelf = useQuery({ queryKey: ["shelf"], queryFn: () => answer<Row[]>(api.GET("/api/designs")) });
  const navigate = useNavigate();
  const rows = shelf.data;
  const commands = useMemo(
    () => [
      { name: "New design", run: () => setMaking(true) },
      ...(rows ?? []).map((row) => ({
        name: `Open ${row.name}`,
        run: () => navigate(`/designs/${row.id}/rounds`),
      })),
    ],
    [rows, navigate],
  );
  useCommands(commands);
  return (
    <main id="main" tabIndex={-1} className="min-h-0 flex-1 overflow-auto outline-none">
      <div className="mx-auto w-full max-w-6xl p-6">
        <div className="mb-5 flex flex-wrap items-center justify-between gap-2">
          <h1 className="text-3xl">The shelf</h1>
          <div className="flex flex-wrap gap-2">
            {(rows?.length ?? 0) > 1 && (
              <span className="self-center">
                <Check label="on one scale" checked={scaled} onChecked={setScaled} />
              </span>
            )}
            {(rows?.length ?? 0) > 0 && <Button onClick={() => setSeveral(true)}>Make several</Button>}
            <DesignFromFile />
            <Button weight="main" onClick={() => setMaking(true)}>
              <Plus size={18} /> New design
            </Button>
          </div>
        </div>
        {shelf.error && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-3 py-2">
            {sentence(shelf.error)}
          </p>
        )}
        {shelf.isPending && (
          <p role="status" className="text-soft">
            Dusting the shelf …
          </p>
        )}
        {shelf.data?.length === 0 && (
          <Empty title="An empty shelf">
            <p>Start with a shape: a ball of 6 cm is a head, a cone of 2 cm a nose, a tube of 4 cm an arm.</p>
            <p>
              Or trace the outline of a picture, bring in an old pattern and see whether it adds up, or draw a
              figure from pieces.
            </p>
            <span className="flex flex-wrap gap-2">
              <Button weight="main" onClick={() => setMaking(true)}>
                Start a design
              </Button>
              <DesignFromFile />
              <Button asChild>
                <Link to="/pieces">Look at the pieces</Link>
              </Button>
            </span>
          </Empty>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(16rem,1fr))] gap-x-5 gap-y-7">
          {shelf.data?.map((row) => (
            <Card key={row.id} row={row} across={across} onExtent={onExtent} />
          ))}
        </ul>
        <NewDesign open={making} onOpen={setMaking} />
        {several && rows && <MakeTogether rows={rows} onClose={() => setSeveral(false)} />}
      </div>
    </main>
  );
}
