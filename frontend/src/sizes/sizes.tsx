/** Sizes: the same figure in other yarns and at other heights, side by side. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import { type Design, newKey } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { Silhouette } from "../figure/silhouette";
import { Button, Empty, IconButton, NumberField, SelectField, TextField } from "../ui/controls";
import { Dialog, Explained, Guess, useSay } from "../ui/overlays";
import { cm, inches, rounded } from "../ui/units";
import { useBasket } from "../yarns/basket";

type Page = Design["sizes"];
type Entry = NonNullable<Page["sizes"]>[number];
type Column = Schemas["SizeColumn"];

export function SizesStop() {
  const design = useShownDesign();
  const page = usePage(design, "sizes");
  const { value, change } = page;
  const [adding, setAdding] = useState<Entry["kind"] | null>(null);
  const entries = value.sizes ?? [];
  const table = useQuery({
    queryKey: ["figure", design.id, "sizes", design.revision, entries],
    queryFn: () =>
      answer<Schemas["SizesTable"]>(
        api.POST("/api/designs/{design_id}/sizes", {
          params: { path: { design_id: design.id } },
          body: { sizes: entries },
        }),
      ),
    placeholderData: (before) => before,
  });
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
        <Button onClick={() => setAdding("yarn")}>Another yarn</Button>
        <Button onClick={() => setAdding("height")}>Another height</Button>
      </div>
      <PageRefusal {...page} />
      {table.error && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
          {sentence(table.error)}
        </p>
      )}
      <div
        className="min-h-0 flex-1 overflow-auto"
        role="region"
        tabIndex={0}
        aria-label="Sizes side by side"
      >
        {table.data && (
          <Table
            design={design}
            columns={table.data.columns}
            page={page}
            onRemove={(key) => change({ ...value, sizes: entries.filter((s) => s.key !== key) })}
          />
        )}
      </div>
      {adding && (
        <AddSize
          kind={adding}
          design={design}
          now={table.data?.columns[0]?.height.value ?? 100}
          onClose={() => setAdding(null)}
          onAdd={(entry) => {
            change({ ...value, sizes: [...entries, entry] });
            setAdding(null);
          }}
        />
      )}
    </div>
  );
}

function Table({
  design,
  columns,
  page,
  onRemove,
}: {
  design: Design;
  columns: Column[];
  page: { flush: () => Promise<void> };
  onRemove: (key: string) => void;
}) {
  const widest = Math.max(...columns.flatMap((c) => c.parts.map((p) => p.width.value)), 1);
  const row = (name: string, cell: (c: Column) => React.ReactNode) => (
    <tr className="border-t border-line align-top">
      <th scope="row" className="sticky left-0 z-10 bg-ground py-2 pr-3 text-left font-semibold">
        {name}
      </th>
      {columns.map((c) => (
        <td key={c.key} className="px-3 py-2">
          {c.problem ? "" : cell(c)}
        </td>
      ))}
    </tr>
  );
  return (
    <table className="min-w-full border-collapse">
      <thead>
        <tr className="align-bottom">
          <th scope="col" className="sticky left-0 z-10 bg-ground">
            <span className="sr-only">What</span>
          </th>
          {columns.map((c) => (
            <th key={c.key} scope="col" className="min-w-52 px-3 pb-2 text-left">
              <span className="flex items-center justify-between gap-2 font-title text-lg">
                {c.name}
                {c.kind !== "base" && (
                  <IconButton label={`Remove the size ${c.name}`} onClick={() => onRemove(c.key)}>
                    <X size={16} />
                  </IconButton>
                )}
              </span>
              {c.problem && (
                <span className="block border-l-4 border-madder bg-madder-ground px-2 py-1 font-normal">
                  {c.problem}
                </span>
              )}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {row("Whole figure", (c) => (
          <>
            <Guess of={c.height} format={cm} /> ({inches(c.height.value)}) tall
            <br />
            <Guess of={c.width} format={cm} /> wide
          </>
        ))}
        {design.parts.map((part) => (
          <PartRow
            key={part.key}
            columns={columns}
            part={part.key}
            name={part.name}
            make={part.make}
            widest={widest}
          />
        ))}
        {row("Gauge", (c) => (
          <Explained why={c.gauge.how}>
            {c.gauge.stitch_mm.toFixed(1)} × {c.gauge.round_mm.toFixed(1)} mm
          </Explained>
        ))}
        {row("Fabric", (c) => c.fabric ?? "yarn and hook not chosen")}
        {row("Eyes", (c) =>
          c.eye_mm ? (
            <Explained why="in proportion, to the nearest that is sold">{c.eye_mm} mm</Explained>
          ) : (
            "none"
          ),
        )}
        {row("Yarn", (c) => (
          <ul>
            {c.yarns.map((y) => (
              <li key={y.colour}>
                {y.colour}: <Guess of={y.metres} format={(m) => `${rounded(m)} m`} />
                {y.skeins ? `, ${y.skeins} ${y.skeins === 1 ? "skein" : "skeins"}` : ""}
              </li>
            ))}
          </ul>
        ))}
        {row("Filling", (c) => (
          <Guess of={c.filling_g} format={(g) => `${rounded(g)} g`} />
        ))}
        {row("Work", (c) => (
          <Guess of={c.hours} format={(h) => `${rounded(h, 1)} h`} />
        ))}
        {row("What changed", (c) =>
          c.notes.length ? (
            <ul className="list-disc pl-4">
              {c.notes.map((n) => (
                <li key={n}>{n}</li>
              ))}
            </ul>
          ) : c.kind === "yarn" ? (
            "the same counts"
          ) : c.kind === "height" ? (
            "nothing was lost"
          ) : (
            ""
          ),
        )}
        <tr className="border-t border-line">
          <th scope="row" className="sticky left-0 bg-ground">
            <span className="sr-only">Make it a design</span>
          </th>
          {columns.map((c) => (
            <td key={c.key} className="px-3 py-2">
              {c.kind !== "base" && !c.problem && <MakeSize design={design} column={c} flush={page.flush} />}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

function PartRow({
  columns,
  part,
  name,
  make,
  widest,
}: {
  columns: Column[];
  part: string;
  name: string;
  make: number;
  widest: number;
}) {
  const base = columns[0]?.parts.find((p) => p.key === part);
  const HOW = {
    "same counts": "same counts",
    drafted: "drafted again from its shape",
    resampled: "its own rounds, resampled",
  };
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="sticky left-0 z-10 bg-ground py-2 pr-3 text-left font-semibold">
        {name}
        {make > 1 && ` × ${make}`}
      </th>
      {columns.map((c) => {
        const p = c.parts.find((other) => other.key === part);
        if (!p) return <td key={c.key} />;
        return (
          <td key={c.key} className="px-3 py-2">
            <div className="flex gap-3">
              <Silhouette
                counts={p.counts}
                width={p.width.value}
                height={p.height.value}
                widest={widest}
                label={`${name}, ${p.rounds} rounds`}
              />
              <div>
                {p.rounds} rounds, widest {Math.max(...p.counts)}
                <br />
                <Guess of={p.height} format={cm} /> × <Guess of={p.width} format={cm} />
                <br />
                <span className="text-sm text-soft">
                  {c.kind === "base" || p.counts === base?.counts ? "" : HOW[p.how]}
                </span>
              </div>
            </div>
          </td>
        );
      })}
    </tr>
  );
}

function MakeSize({ design, column, flush }: { design: Design; column: Column; flush: () => Promise<void> }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const say = useSay();
  const make = useMutation({
    mutationFn: async () => {
      await flush();
      return answer<Design>(
        api.POST("/api/designs/{design_id}/sizes/{key}/make", {
          params: { path: { design_id: design.id, key: column.key } },
        }),
      );
    },
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      say(`${made.name} is a design of its own now.`);
      navigate(`/designs/${made.id}/rounds`);
    },
    onError: (e) => say(sentence(e), true),
  });
  return (
    <Button onClick={() => make.mutate()} disabled={make.isPending}>
      Make it a design
    </Button>
  );
}

function AddSize({
  kind,
  design,
  now,
  onClose,
  onAdd,
}: {
  kind: Entry["kind"];
  design: Design;
  now: number;
  onClose: () => void;
  onAdd: (entry: Entry) => void;
}) {
  const basket = useBasket().data;
  const [name, setName] = useState("");
  const [yarnId, setYarnId] = useState("");
  const [hook, setHook] = useState("5");
  const [strands, setStrands] = useState(1);
  const [height, setHeight] = useState<number | null>(Math.round(now * 1.5));
  const yarn = basket?.yarns.find((y) => String(y.id) === (yarnId || String(basket.yarns[0]?.id)));
  return (
    <Dialog
      open
      onOpen={onClose}
      title={kind === "yarn" ? "The same counts in another yarn" : "Another height in the same yarn"}
      about={
        kind === "yarn"
          ? "The figure grows or shrinks with the stitch."
          : "Counts are worked out anew so that the shape stays; all parts keep their proportions."
      }
    >
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          const common = { key: newKey(), strands };
          if (kind === "height" && height)
            onAdd({
              ...common,
              kind,
              name: name || `${rounded(height / 10, 1)} cm`,
              height_mm: height,
              yarn: null,
              hook_mm: null,
            });
          else if (yarn)
            onAdd({
              ...common,
              kind: "yarn",
              name: name || yarn.name,
              hook_mm: Number(hook),
              height_mm: null,
              yarn: {
                yarn_id: yarn.id,
                name: yarn.name,
                colour: yarn.colour,
                weight: yarn.weight,
                wraps: yarn.wraps,
                plush: yarn.plush,
                skein_m: yarn.skein_m,
                skein_g: yarn.skein_g,
              },
            });
        }}
      >
        <TextField
          label="Call it"
          maxLength={40}
          className="col-span-2"
          placeholder={kind === "yarn" ? "in chunky" : "keyring"}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        {kind === "yarn" ? (
          <>
            <SelectField
              label="Yarn"
              value={yarnId || String(basket?.yarns[0]?.id ?? "")}
              onValue={setYarnId}
              options={basket?.yarns.map((y) => [String(y.id), y.name] as const) ?? []}
            />
            <SelectField
              label="Hook"
              value={hook}
              onValue={setHook}
              options={basket?.hooks.map((h) => [String(h.mm), h.name] as const) ?? []}
            />
            <NumberField
              label="Strands together"
              least={1}
              most={6}
              value={strands}
              onValue={(n) => setStrands(n ?? 1)}
            />
            {!basket?.yarns.length && (
              <p className="col-span-2 border-l-4 border-weld bg-weld-ground px-2 py-1">
                The basket is empty: put a yarn in first.
              </p>
            )}
          </>
        ) : (
          <NumberField
            label="Height of the whole figure"
            unit="mm"
            least={10}
            most={3000}
            value={height}
            onValue={setHeight}
            className="col-span-2"
            hint={`${design.name} is about ${cm(now)} now.`}
          />
        )}
        <Button
          type="submit"
          weight="main"
          className="col-span-2 justify-self-end"
          disabled={kind === "yarn" ? !yarn : !height}
        >
          Add the size
        </Button>
      </form>
    </Dialog>
  );
}
