/** Proving: what stands in the way of a release, makings, tests, a client, notes. */
import { Tabs } from "radix-ui";
import { type ReactNode, useState } from "react";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { type SaveState, usePage } from "../design/use-page";
import { Field, inputClass, Panel } from "../ui/controls";
import { Commissions } from "./commissions";
import { InTheWay } from "./in-the-way";
import { MakingLog } from "./making-log";
import { MakingsPanel } from "./makings";
import { Testers } from "./testers";
import { TestsPanel } from "./tests";
import { useProvingRows } from "./use-rows";

/** The state that asks for more attention. */
function graver(a: SaveState, b: SaveState): SaveState {
  const order: SaveState[] = ["saved", "saving", "unsaved", "offline", "stale"];
  return order.indexOf(a) > order.indexOf(b) ? a : b;
}

const TABS = [
  ["release", "Release"],
  ["makings", "Makings"],
  ["tests", "Testers"],
  ["client", "Client"],
  ["notes", "Notes"],
] as const;
type Tab = (typeof TABS)[number][0];

const KEY = "spirrel-proving-tab";

export function ProvingStop() {
  const design = useShownDesign();
  const page = usePage(design, "proving");
  const { rows, change, state, problem } = useProvingRows(design.id);
  const [tab, setTab] = useState<Tab>(() => (sessionStorage.getItem(KEY) as Tab | null) ?? "release");
  const turn = (to: Tab) => {
    sessionStorage.setItem(KEY, to);
    setTab(to);
  };
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
      <Tabs.Root value={tab} onValueChange={(to) => turn(to as Tab)}>
        <Tabs.List aria-label="Proving" className="mb-4 flex flex-wrap gap-1 border-b border-line">
          {TABS.map(([key, name]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="rounded-t-md border border-transparent px-4 py-1.5 data-[state=active]:border-line data-[state=active]:border-b-panel data-[state=active]:bg-panel data-[state=active]:font-semibold"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Side value="release">
          <Panel title="What stands in the way of a release">
            <InTheWay design={design} />
            <Field label="Still to do before release" className="mt-4">
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
        </Side>
        <Side value="makings">
          <MakingsPanel design={design} />
        </Side>
        <Side value="tests">
          <TestsPanel design={design} />
        </Side>
        <Side value="client">
          <Commissions design={design} />
        </Side>
        <Side value="notes">
          <div className="grid gap-5">
            <MakingLog log={rows.log} onChange={change} />
            <Testers testers={rows.testers} onChange={change} />
          </div>
        </Side>
      </Tabs.Root>
    </div>
  );
}

function Side({ value, children }: { value: Tab; children: ReactNode }) {
  return (
    <Tabs.Content value={value} className="outline-offset-4">
      {children}
    </Tabs.Content>
  );
}
