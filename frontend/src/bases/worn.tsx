/** What the figure wears and holds and can put off again: what each thing fits, and each as a design of its own. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, Empty } from "../ui/controls";
import { Refused } from "../ui/refused";
import { cm } from "../ui/units";

type Worn = Schemas["WornOut"];

const HELD = {
  sewn: "",
  snaps: "with snaps",
  "hook-and-loop": "with hook-and-loop tape",
  "slipped-on": "slipped on",
} as const;

/** What it goes around, its own opening, and whether it fits. Nothing for what goes around nothing. */
export function Fit({ worn }: { worn: Worn }) {
  if (worn.own_mm === null || worn.around_mm === null || worn.ease_mm === null) return null;
  return (
    <p className={worn.fit === "fits" ? "" : "border-l-4 border-weld bg-weld-ground px-2"}>
      Goes around ≈ {cm(worn.around_mm)}, its opening is ≈ {cm(worn.own_mm)}:{" "}
      {Math.abs(Math.round(worn.ease_mm))} mm {worn.ease_mm >= 0 ? "wider" : "tighter"}. {FIT[worn.fit]}
    </p>
  );
}

const FIT = {
  "": "",
  tight: "It pulls: give its opening more stitches, or fit it at Sizes.",
  fits: "It fits.",
  loose: "It slides about: give its opening fewer stitches, or fit it at Sizes.",
} as const;

function useWorn(design: Design) {
  return useQuery({
    queryKey: ["figure", design.id, "bases", design.revision, "worn"],
    queryFn: () =>
      answer<Worn[]>(
        api.GET("/api/designs/{design_id}/worn", { params: { path: { design_id: design.id } } }),
      ),
  });
}

export function WornView({ design }: { design: Design }) {
  const found = useWorn(design);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const alone = useMutation({
    mutationFn: (part: string) =>
      answer<Design>(
        api.POST("/api/designs/{design_id}/worn/alone", {
          params: { path: { design_id: design.id } },
          body: { part },
        }),
      ),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      navigate(`/designs/${made.id}/booklet`);
    },
  });
  if (found.data?.length === 0)
    return (
      <Empty title="Nothing comes off">
        <p className="max-w-prose">
          One body, many hats, heads and things to hold: say at a step of the assembly that its part is held
          by snaps, by hook-and-loop tape, or slipped on. Then it can be put on and off in the picture, and
          published alone.
        </p>
        <Button asChild weight="main">
          <Link to="../assembly">To the assembly</Link>
        </Button>
      </Empty>
    );
  return (
    <div className="flex flex-col gap-3">
      <p className="max-w-prose text-soft">
        What comes off, and what it goes around where it sits, about. Snaps and other fasteners are small
        parts: not for children under three.
      </p>
      <Refused error={found.error} />
      <Refused error={alone.error} />
      <ul className="grid gap-3 md:grid-cols-2">
        {found.data?.map((w) => (
          <li key={w.key} className="flex flex-col gap-1 rounded-lg border border-line bg-panel p-3">
            <h2 className="text-lg">{w.name}</h2>
            <p>
              On {w.host}, {HELD[w.fixing]}.
            </p>
            <Fit worn={w} />
            <span className="mt-auto pt-1">
              <Button disabled={alone.isPending} onClick={() => alone.mutate(w.key)}>
                Make {w.name} a design of its own
              </Button>
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
