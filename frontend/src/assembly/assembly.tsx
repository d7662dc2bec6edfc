/** Assembly: steps in order, each with its part and place, and the settled figure put together so. */
import { useState } from "react";
import { useAct } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { useSay } from "../ui/overlays";
import { type Aim, placed, proposed } from "./aim";
import { Eyes } from "./eyes";
import { Face } from "./face";
import { PutTogether } from "./put-together";
import { StepList } from "./step-list";
import { type Loose, Tray } from "./tray";
import { useScene } from "./use-scene";

const NOTHING: readonly Loose[] = [];

export function AssemblyStop() {
  const design = useShownDesign();
  const page = usePage(design, "assembly");
  const { value, change } = page;
  const { scene, settled, settling } = useScene(design);
  const [aim, setAim] = useState<Aim | null>(null);
  const act = useAct(design.id);
  const say = useSay();
  const noSew = (step: string) =>
    act.mutate(
      { do: "no-sew", step },
      { onSuccess: () => say("Worked in: look at the rounds of both parts. Undo takes it back.") },
    );
  const sew = (step: string) =>
    act.mutate(
      { do: "sew", step },
      { onSuccess: () => say("Sewn on: its end is open, with a tail. Undo takes it back.") },
    );
  const aimAt = (next: Aim) => setAim((now) => (JSON.stringify(now) === JSON.stringify(next) ? null : next));
  return (
    <div className="grid min-h-0 flex-1 gap-4 p-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2.4fr)]">
      <div className="min-h-0 overflow-auto pr-1">
        <div className="mb-2 flex items-center justify-between">
          <h1 className="text-2xl">Assembly</h1>
          <SaveMark state={page.state} />
        </div>
        <PageRefusal {...page} />
        <Tray
          design={design}
          loose={scene?.loose ?? NOTHING}
          aimed={aim?.kind === "part" ? aim.key : null}
          onAim={(key) => aimAt({ kind: "part", key })}
          onPropose={(loose) => change(proposed(design, value, loose))}
        />
        <Eyes
          design={design}
          value={value}
          change={change}
          scene={scene}
          aimed={aim?.kind === "eyes"}
          onAim={() => aimAt({ kind: "eyes" })}
          onTell={() => act.mutate({ do: "tell-eyes" }, { onSuccess: () => say("The rounds say it now.") })}
        />
        <Face
          design={design}
          value={value}
          change={change}
          aimed={aim?.kind === "mark" ? aim.key : null}
          onAim={(key) => aimAt({ kind: "mark", key })}
        />
        <StepList
          design={design}
          steps={value.steps ?? []}
          scene={scene}
          aim={aim}
          onSteps={(steps) => change({ ...value, steps })}
          onAim={aimAt}
          onNoSew={noSew}
          onSew={sew}
        />
      </div>
      <PutTogether
        design={design}
        page={value}
        scene={scene}
        settled={settled}
        settling={settling}
        aim={aim}
        onPick={(picked) => {
          if (!aim || !scene) return;
          change(placed(design, value, aim, picked, scene));
          setAim(null);
        }}
        onDropped={(what, picked) => {
          const [kind, key] = what.split(":") as ["part" | "step", string];
          if (picked && scene) change(placed(design, value, { kind, key }, picked, scene));
          else say("Drop it on the fabric of a settled part.", true);
        }}
        onPosture={(posture) => change({ ...value, posture })}
      />
    </div>
  );
}
