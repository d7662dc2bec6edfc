/** Bases: what this figure is made from, what of it goes on as something else, what differs from another. */
import { useSearchParams } from "react-router";
import { useShownDesign } from "../design/layout";
import { Button } from "../ui/controls";
import { Compare } from "./compare";
import { Credits } from "./credits";
import { Graft } from "./graft";
import { News } from "./news";
import { PutIn } from "./put-in";
import { WornView } from "./worn";

const VIEWS = [
  ["pieces", "Pieces", PutIn],
  ["graft", "Go on as …", Graft],
  ["worn", "Comes off", WornView],
  ["base", "New in the base", News],
  ["compare", "Compare", Compare],
  ["credits", "Credits", Credits],
] as const;

export function BasesStop() {
  const design = useShownDesign();
  const [params, setParams] = useSearchParams();
  const asked = params.get("view") ?? (design.origin ? "base" : "pieces");
  const [key, , View] = VIEWS.find(([k]) => k === asked) ?? VIEWS[0];
  return (
    <div className="min-h-0 flex-1 overflow-auto p-4">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="flex-1 text-2xl">Bases</h1>
        <nav aria-label="Views of bases" className="flex flex-wrap gap-1">
          {VIEWS.map(([k, name]) => (
            <Button
              key={k}
              aria-current={k === key ? "page" : undefined}
              weight={k === key ? "main" : "plain"}
              onClick={() => setParams({ view: k }, { replace: true })}
            >
              {name}
            </Button>
          ))}
        </nav>
      </div>
      <View design={design} />
    </div>
  );
}
