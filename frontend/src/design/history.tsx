/** Every action that was taken, and the way back to any of them. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { Button } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { type Design, useAct } from "./design";

export function History({
  design,
  open,
  onOpen,
}: {
  design: Design;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  const act = useAct(design.id);
  const rows = useQuery({
    queryKey: ["history", design.id],
    enabled: open,
    queryFn: () =>
      answer<Schemas["RevisionRow"][]>(
        api.GET("/api/designs/{design_id}/history", { params: { path: { design_id: design.id } } }),
      ),
  });
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="What was done"
      about="Going back is an action too: nothing is lost."
    >
      <ol className="divide-y divide-line">
        {rows.data?.map((r) => (
          <li key={r.number} className="flex items-center justify-between gap-3 py-1.5">
            <span>
              {r.label}
              <span className="block text-sm text-soft">
                Step {r.number}, {new Date(r.created).toLocaleString()}
              </span>
            </span>
            {r.shown ? (
              <span className="rounded bg-woad-ground px-2 py-0.5 text-sm">Shown now</span>
            ) : (
              <Button
                aria-label={`Go back to step ${r.number}`}
                onClick={() =>
                  act.mutate({ do: "back", number: r.number }, { onSuccess: () => onOpen(false) })
                }
              >
                Go back here
              </Button>
            )}
          </li>
        ))}
      </ol>
    </Dialog>
  );
}
