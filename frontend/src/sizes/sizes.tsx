/** Sizes: the same figure in other yarns and at other heights, side by side. */
import { useState } from "react";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { Button, Empty } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import { Refused } from "../ui/refused";
import { AddSize } from "./add-size";
import { MOST_SIZES, type Way } from "./asking";
import { OnePattern } from "./one-pattern";
import { SizeTable } from "./size-table";
import { useSizesTable } from "./use-table";

export function SizesStop() {
  const design = useShownDesign();
  const page = usePage(design, "sizes");
  const { value, change } = page;
  const [adding, setAdding] = useState<Way | null>(null);
  const [printing, setPrinting] = useState(false);
  const [settle, setSettle] = useState(false);
  const entries = value.sizes ?? [];
  const sameYarn = entries.filter((e) => e.kind !== "yarn");
  const { table, way, error } = useSizesTable(design, entries);
  if (!design.parts.some((p) => p.counts.length))
    return (
      <div className="p-10">
        <h1 className="sr-only">Sizes</h1>
        <Empty title="Nothing to size yet">
          <p>Sizes are worked out from rounds: shape or write a part first.</p>
        </Empty>
      </div>
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col p-4">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h1 className="flex-1 text-2xl">Sizes</h1>
        <SaveMark state={page.state} />
        <Button onClick={() => setSettle(!settle)} aria-pressed={settle}>
          {settle ? "Show the estimates" : "Settle the sizes"}
        </Button>
        {sameYarn.length > 0 && <Button onClick={() => setPrinting(true)}>One pattern for all</Button>}
        <Button onClick={() => setAdding("yarn")}>Another yarn</Button>
        <Button onClick={() => setAdding("height")}>Another size</Button>
      </div>
      <PageRefusal {...page} />
      <Refused error={error} />
      {way && (
        <JobBar name="Drafting the sizes" way={way} className="mb-2 max-w-md text-sm">
          The sizes are being drafted
        </JobBar>
      )}
      <div
        className="relative min-h-0 flex-1 overflow-auto"
        role="region"
        tabIndex={0}
        aria-label="Sizes side by side"
      >
        {!table && !way && !error && (
          <p role="status" className="p-2 text-soft">
            The sizes are being made…
          </p>
        )}
        {table && (
          <SizeTable
            design={design}
            columns={table.columns}
            entries={entries}
            settle={settle}
            flush={page.flush}
            onMeet={(key, settled_share) =>
              change({
                ...value,
                sizes: entries.map((s) => (s.key === key ? { ...s, settled_share } : s)),
              })
            }
            onRemove={(key) => change({ ...value, sizes: entries.filter((s) => s.key !== key) })}
          />
        )}
      </div>
      {printing && <OnePattern design={design} entries={sameYarn} onClose={() => setPrinting(false)} />}
      {adding && (
        <AddSize
          first={adding}
          design={design}
          now={table?.columns[0]?.height.value ?? 100}
          onClose={() => setAdding(null)}
          room={MOST_SIZES - entries.length}
          things={table?.things ?? []}
          onAdd={(more) => {
            change({ ...value, sizes: [...entries, ...more] });
            setAdding(null);
          }}
        />
      )}
    </div>
  );
}
