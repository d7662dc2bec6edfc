/** Proving: making log, testers, and what still blocks release. */
import type { Design } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { type SaveState, usePage } from "../design/use-page";
import { Field, inputClass, Panel } from "../ui/controls";
import { MakingLog } from "./making-log";
import { Testers } from "./testers";
import { useProvingRows } from "./use-rows";

/** What the design itself says is in the way. */
function Computed({ design }: { design: Design }) {
  const faults = design.parts.filter((p) => p.faults > 0);
  const pictures = (design.assembly.steps ?? []).flatMap((s, i) =>
    s.picture ? [`step ${i + 1}${s.text ? ` (${s.text})` : ""}`] : [],
  );
  return (
    <>
      {faults.length > 0 ? (
        <p className="mb-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
          Counts do not add up in {faults.map((p) => p.name).join(", ")}: no tester should be the first to
          find a wrong sum.
        </p>
      ) : (
        <p className="mb-2 border-l-4 border-moss bg-moss-ground px-2 py-1">Every count adds up.</p>
      )}
      {pictures.length > 0 && (
        <p className="mb-2 border-l-4 border-weld bg-weld-ground px-2 py-1">
          A picture is wanted for {pictures.join(", ")}.
        </p>
      )}
    </>
  );
}

/** The state that asks for more attention. */
function graver(a: SaveState, b: SaveState): SaveState {
  const order: SaveState[] = ["saved", "saving", "unsaved", "offline", "stale"];
  return order.indexOf(a) > order.indexOf(b) ? a : b;
}

export function ProvingStop() {
  const design = useShownDesign();
  const page = usePage(design, "proving");
  const { rows, change, state, problem } = useProvingRows(design.id);
  return (
    <div className="mx-auto w-full max-w-6xl p-5">
      <div className="mb-3 flex items-center justify-between">
        <h1 className="text-2xl">Proving</h1>
        <SaveMark state={graver(page.state, state)} />
      </div>
      <PageRefusal {...page} />
      {problem && (
        <p role="alert" className="mb-4 border-l-4 border-madder bg-madder-ground px-3 py-2">
          {problem}
        </p>
      )}
      <div className="grid gap-5 lg:grid-cols-2">
        <Panel title="What blocks release">
          <Computed design={design} />
          <Field label="Still to do before release">
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-24`}
                maxLength={5000}
                value={page.value.blockers ?? ""}
                onChange={(e) => page.change({ ...page.value, blockers: e.target.value })}
              />
            )}
          </Field>
        </Panel>
        <MakingLog log={rows.log} onChange={change} />
        <Testers testers={rows.testers} onChange={change} />
      </div>
    </div>
  );
}
