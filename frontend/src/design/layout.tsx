/** The frame around a design's stops: name, undo, thread. */
import { History as HistoryIcon, Redo2, Undo2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link, Outlet, useNavigate, useOutletContext, useParams } from "react-router";
import { TERMS } from "../accounts/account-dialog";
import { Refused } from "../api/client";
import { Button, boxClass, Empty, IconButton } from "../ui/controls";
import { isTyping, useCommands } from "../ui/keys";
import { type Design, useAct, useDesign } from "./design";
import { History } from "./history";
import { STOPS, Thread } from "./thread";

export function useShownDesign(): Design {
  return useOutletContext<Design>();
}

function Title({ design }: { design: Design }) {
  const act = useAct(design.id);
  const [name, setName] = useState(design.name);
  useEffect(() => setName(design.name), [design.name]);
  const save = () => {
    if (name.trim() && name.trim() !== design.name)
      act.mutate(
        { do: "rename", name: name.trim(), terms: design.terms },
        { onError: () => setName(design.name) },
      );
    else setName(design.name);
  };
  return (
    <input
      aria-label="Name of the design"
      className="min-w-0 flex-1 basis-48 rounded border border-transparent bg-transparent px-1 font-title text-xl font-semibold hover:border-line focus:border-strong"
      value={name}
      maxLength={40}
      onChange={(e) => setName(e.target.value)}
      onBlur={save}
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
    />
  );
}

function Frame({ design }: { design: Design }) {
  const act = useAct(design.id);
  const navigate = useNavigate();
  const [history, setHistory] = useState(false);
  const undo = act.mutate;
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || isTyping(e.target)) return;
      const key = e.key.toLowerCase();
      if (key === "z" && !e.shiftKey) undo({ do: "undo" });
      else if (key === "y" || (key === "z" && e.shiftKey)) undo({ do: "redo" });
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [undo]);
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
          <Title design={design} />
          {design.origin && (
            <span className="text-sm text-soft">
              copied from{" "}
              {design.origin.id ? (
                <Link className="underline" to={`/designs/${design.origin.id}`}>
                  {design.origin.name}
                </Link>
              ) : (
                design.origin.name
              )}
              , step {design.origin.revision}
            </span>
          )}
          <select
            aria-label="Terms of this design"
            className={boxClass}
            value={design.terms}
            onChange={(e) =>
              act.mutate({ do: "rename", name: design.name, terms: e.target.value as Design["terms"] })
            }
          >
            {TERMS.map(([key, label]) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
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
      <main className="flex min-h-0 flex-1 flex-col overflow-auto">
        <Outlet context={design} />
      </main>
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
