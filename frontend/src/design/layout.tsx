/** The frame around a design's stops: name, undo, thread. */
import { History as HistoryIcon, Redo2, Undo2 } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, Outlet, useNavigate, useOutletContext, useParams } from "react-router";
import { Refused } from "../api/client";
import { Button, Empty, IconButton } from "../ui/controls";
import { useCommands } from "../ui/keys";
import { type Design, useAct, useDesign } from "./design";
import { DesignName, Origin, TermsChoice } from "./head";
import { History } from "./history";
import { StopMain } from "./stop-main";
import { STOPS, Thread } from "./thread";
import { UnsentNotice } from "./unsent-notice";
import { useUndoKeys } from "./use-undo-keys";

export function useShownDesign(): Design {
  return useOutletContext<Design>();
}

function Frame({ design }: { design: Design }) {
  const act = useAct(design.id);
  const navigate = useNavigate();
  const [history, setHistory] = useState(false);
  const undo = act.mutate;
  useUndoKeys(undo);
  const commands = useMemo(
    () => [
      ...STOPS.map((stop) => ({
        name: `Go to ${stop[0]?.toUpperCase()}${stop.slice(1)}`,
        run: () => navigate(`/designs/${design.id}/${stop}`),
      })),
      { name: "Undo the last action", keys: "Ctrl + Z", run: () => undo({ do: "undo" }) },
      { name: "Redo it", keys: "Ctrl + Y", run: () => undo({ do: "redo" }) },
      { name: "What was done", run: () => setHistory(true) },
      { name: "Back to the shelf", run: () => navigate("/") },
    ],
    [design.id, navigate, undo],
  );
  useCommands(commands);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <section aria-label="Design" className="border-b border-line px-4 pt-1 pb-1.5 no-print">
        <div className="flex flex-wrap items-center gap-2">
          <DesignName design={design} />
          {design.origin && <Origin origin={design.origin} />}
          <TermsChoice design={design} />
          <IconButton
            label={design.undo ? `Undo: ${design.undo}` : "Nothing to undo"}
            disabled={!design.undo}
            onClick={() => undo({ do: "undo" })}
          >
            <Undo2 size={18} />
          </IconButton>
          <IconButton
            label={design.redo ? `Redo: ${design.redo}` : "Nothing to redo"}
            disabled={!design.redo}
            onClick={() => undo({ do: "redo" })}
          >
            <Redo2 size={18} />
          </IconButton>
          <IconButton label="What was done" onClick={() => setHistory(true)}>
            <HistoryIcon size={18} />
          </IconButton>
        </div>
        <Thread stops={design.stops} />
      </section>
      <UnsentNotice design={design} />
      <StopMain>
        <Outlet context={design} />
      </StopMain>
      <History design={design} open={history} onOpen={setHistory} />
    </div>
  );
}

export function DesignLayout() {
  const { id } = useParams();
  const design = useDesign(Number(id));
  if (design.data) return <Frame key={design.data.id} design={design.data} />;
  if (design.error)
    return (
      <main className="p-10">
        <h1 className="sr-only">Design</h1>
        <Empty
          title={
            design.error instanceof Refused && design.error.problem.status === 404
              ? "No such design"
              : "It does not open"
          }
        >
          <p>{design.error.message}</p>
          <Button asChild>
            <Link to="/">Back to the shelf</Link>
          </Button>
        </Empty>
      </main>
    );
  return (
    <p className="p-10 text-soft" role="status">
      Opening …
    </p>
  );
}
