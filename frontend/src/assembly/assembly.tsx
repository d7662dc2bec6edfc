/** Assembly: steps in order, each with its part and place, and the settled figure put together so. */
import { type ComponentProps, useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { type Design, useAct } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { useSay } from "../ui/overlays";
import { type Aim, placed, proposed } from "./aim";
import { Eyes } from "./eyes";
import { Face } from "./face";
import { PutTogether, withAllOnThem } from "./put-together";
import { moved, type Step } from "./step-fields";
import { openStep, StepList } from "./step-list";
import { type Loose, Tray } from "./tray";
import { type Scene, useScene } from "./use-scene";

const NOTHING: readonly Loose[] = [];

/** Pieces moved, tilted and turned on the figure itself, and chosen by a click. */
function useByHand(
  design: Design,
  { value, change }: Pick<ReturnType<typeof usePage<"assembly">>, "value" | "change">,
  scene: Scene | undefined,
  open: string | null,
  onOpen: (step: string) => void,
): ComponentProps<typeof PutTogether>["byHand"] {
  const say = useSay();
  const steps = value.steps ?? [];
  const step = steps.find((s) => s.key === openStep(open, steps));
  const set = (key: string, part: Partial<Step>) =>
    change({ ...value, steps: steps.map((s) => (s.key === key ? { ...s, ...part } : s)) });
  return {
    chosen: step?.part && step.on && !step.no_sew ? { step: step.key, host: step.on } : null,
    onChosen: (key) => {
      onOpen(key);
      document.getElementById(`step-${key}`)?.scrollIntoView({ block: "nearest" });
    },
    onMoved: ({ step: key, part, mirrored, picked }) => {
      if (!picked || !scene) say("It stays where it was: let go on the fabric of another part.", true);
      else if (withAllOnThem([part], value).has(picked.part)) say("It can't sit on what sits on it.", true);
      else {
        onOpen(key);
        change(placed(design, value, { kind: "step", key }, picked, scene, { mirrored }));
      }
    },
    onTurned: (key, by) => {
      const turned = steps.find((s) => s.key === key);
      if (turned)
        set(key, moved(turned, undefined, undefined, by.tilt ? { tilt: by.tilt } : { turn: by.turn }));
    },
  };
}

export function AssemblyStop() {
  const design = useShownDesign();
  const page = usePage(design, "assembly");
  const { value, change } = page;
  const { scene, settled, settling } = useScene(design);
  const [aim, setAim] = useState<Aim | null>(null);
  const [asked] = useSearchParams();
  const [open, setOpen] = useState<string | null>(asked.get("step"));
  useEffect(() => {
    const step = asked.get("step");
    if (step) document.getElementById(`step-${step}`)?.scrollIntoView({ block: "center" });
  }, [asked]);
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
  const byHand = useByHand(design, page, scene, open, setOpen);
  const aimAt = (next: Aim) => setAim((now) => (JSON.stringify(now) === JSON.stringify(next) ? null : next));
  return (
    <div className="flex min-h-0 flex-1 flex-col p-4">
      <div className="mb-2 flex items-center justify-between">
        <h1 className="text-2xl">Assembly</h1>
        <SaveMark state={page.state} />
      </div>
      <PageRefusal {...page} />
      <div className="grid min-h-0 flex-1 gap-4 lg:grid-cols-[minmax(0,3fr)_minmax(0,2.2fr)]">
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
          byHand={byHand}
        />
        <div className="min-h-0 overflow-auto pr-1">
          <Tray
            design={design}
            loose={scene?.loose ?? NOTHING}
            aimed={aim?.kind === "part" ? aim.key : null}
            onAim={(key) => aimAt({ kind: "part", key })}
            onPropose={(loose) => change(proposed(design, value, loose))}
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
            open={open}
            onOpen={setOpen}
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
        </div>
      </div>
    </div>
  );
}
