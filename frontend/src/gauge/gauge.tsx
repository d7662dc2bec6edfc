/** Gauge: yarns, hook and strands, and what fabric to expect of them. */
import { useQuery } from "@tanstack/react-query";
import { ArrowUp, X } from "lucide-react";
import { Link } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import type { Design } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { Button, Empty, IconButton, NumberField, Panel, SelectField } from "../ui/controls";
import { Explained, Guess } from "../ui/overlays";
import { rounded } from "../ui/units";
import { type Basket, useBasket, type Yarn } from "../yarns/basket";
import { OwnHooks } from "./own-hooks";

type Page = Design["gauge"];
type Chosen = NonNullable<Page["yarns"]>[number];

function copyOf(y: Yarn): Chosen {
  return {
    yarn_id: y.id,
    name: y.name,
    colour: y.colour,
    weight: y.weight,
    wraps: y.wraps,
    plush: y.plush,
    skein_m: y.skein_m,
    skein_g: y.skein_g,
  };
}

export function GaugeStop() {
  const design = useShownDesign();
  const page = usePage(design, "gauge");
  const basket = useBasket();
  const { value, change } = page;
  const set = (part: Partial<Page>) => change({ ...value, ...part });
  const yarns = value.yarns ?? [];
  const first = yarns[0];
  const swatches = basket.data?.swatches.filter((s) => yarns.some((y) => y.yarn_id === s.yarn_id)) ?? [];
  return (
    <div className="mx-auto w-full max-w-6xl p-5">
      <div className="mb-3 flex items-center justify-between">
        <h1 className="text-2xl">Gauge</h1>
        <SaveMark state={page.state} />
      </div>
      <PageRefusal {...page} />
      <div className="grid gap-5 lg:grid-cols-2">
        <Panel title="Yarns of this figure">
          <Yarns value={value} basket={basket.data} set={set} />
        </Panel>
        <Panel title="Hook and fabric">
          <div className="grid grid-cols-2 gap-3">
            <SelectField
              label="Hook"
              value={String(value.hook_mm ?? "")}
              onValue={(mm) =>
                set({
                  hook_mm: mm ? Number(mm) : null,
                  source: mm && value.source === "assumed" && first ? "estimate" : value.source,
                })
              }
              options={[
                ["", "not chosen yet"],
                ...(basket.data?.hooks.map((h) => [String(h.mm), h.name] as const) ?? []),
              ]}
            />
            <NumberField
              label="Strands together"
              least={1}
              most={6}
              value={value.strands ?? 1}
              onValue={(n) => set({ strands: n ?? 1 })}
            />
          </div>
          {first && value.hook_mm ? (
            <Fabric page={value} />
          ) : (
            <p className="mt-3 text-soft">
              Choose a yarn and a hook to see what fabric they make. Both can wait: shapes work without.
            </p>
          )}
        </Panel>
        <Panel title="The gauge to reckon with" className="lg:col-span-2">
          <Source value={value} design={design} set={set} swatches={swatches} />
        </Panel>
        <Panel title="Parts on a hook of their own" className="lg:col-span-2">
          <OwnHooks design={design} hooks={basket.data?.hooks ?? []} />
        </Panel>
      </div>
    </div>
  );
}

function Yarns({
  value,
  basket,
  set,
}: {
  value: Page;
  basket: Basket | undefined;
  set: (part: Partial<Page>) => void;
}) {
  const yarns = value.yarns ?? [];
  const free = basket?.yarns.filter((y) => !yarns.some((own) => own.name === y.name)) ?? [];
  return (
    <>
      {!yarns.length && (
        <Empty title="No yarn chosen">
          <p>The first yarn is the main one. Rounds call the others by name: “Change to Oat”.</p>
        </Empty>
      )}
      <ol className="mb-3 flex flex-col gap-1.5">
        {yarns.map((y, i) => (
          <li
            key={y.name}
            className="flex items-center gap-2 rounded-md border border-line bg-ground px-2 py-1"
          >
            <span
              className="size-6 rounded-full border-2 border-ink/70"
              style={{ background: y.colour }}
              aria-hidden="true"
            />
            <span className="flex-1">
              {y.name} {i === 0 && <span className="rounded bg-woad-ground px-1.5 text-sm">main yarn</span>}
            </span>
            {i > 0 && (
              <IconButton
                label={`Make ${y.name} the main yarn`}
                onClick={() => set({ yarns: [y, ...yarns.filter((other) => other !== y)] })}
              >
                <ArrowUp size={16} />
              </IconButton>
            )}
            <IconButton
              label={`Leave ${y.name} out`}
              onClick={() => set({ yarns: yarns.filter((other) => other !== y) })}
            >
              <X size={16} />
            </IconButton>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-1.5">
        {free.map((y) => (
          <Button key={y.id} onClick={() => set({ yarns: [...yarns, copyOf(y)] })}>
            <span
              className="size-4 rounded-full border border-ink/70"
              style={{ background: y.colour }}
              aria-hidden="true"
            />{" "}
            {y.name}
          </Button>
        ))}
        <Button weight="quiet" asChild>
          <Link to="/yarns">Open the basket</Link>
        </Button>
      </div>
    </>
  );
}

const VERDICTS = {
  stiff: "border-weld bg-weld-ground",
  right: "border-moss bg-moss-ground",
  loose: "border-weld bg-weld-ground",
  shows: "border-madder bg-madder-ground",
};

function Fabric({ page }: { page: Page }) {
  const yarn = page.yarns?.[0];
  const question = {
    weight: yarn?.weight ?? 3,
    wraps: yarn?.wraps ?? null,
    plush: yarn?.plush ?? false,
    strands: page.strands ?? 1,
    hook_mm: page.hook_mm ?? 3,
  };
  const fabric = useQuery({
    queryKey: ["fabric", question],
    queryFn: () => answer<Schemas["FabricOut"]>(api.POST("/api/bench/fabric", { body: question })),
    placeholderData: (before) => before,
  });
  if (fabric.error) return <p role="alert">{sentence(fabric.error)}</p>;
  const got = fabric.data;
  if (!got) return <p className="mt-3 text-soft">Reckoning …</p>;
  const at = Math.min(100, Math.max(0, ((got.ratio - 1) / 1) * 100));
  return (
    <div className="mt-3 flex flex-col gap-3">
      <div
        aria-hidden="true"
        className="relative mt-1 h-4 rounded border border-strong"
        style={{
          background:
            "linear-gradient(90deg, var(--weld-ground) 20%, var(--moss-ground) 20% 50%, var(--weld-ground) 50% 70%, var(--madder-ground) 70%)",
        }}
      >
        <span className="absolute -top-1 h-6 w-1 rounded bg-ink" style={{ left: `${at}%` }} />
      </div>
      <p className={`rounded-md border-l-4 px-2 py-1 ${VERDICTS[got.verdict]}`}>
        <Explained
          why={`hook ÷ yarn diameter (${rounded(got.diameter_mm, 2)} mm); 1.2 to 1.5 is right for stuffed fabric`}
        >
          Hook to yarn {rounded(got.ratio, 2)}
        </Explained>
        : {got.words}
      </p>
      <p>
        Expect stitches <Guess of={got.stitch_mm} format={(v) => `${v.toFixed(1)} mm`} /> wide and rounds{" "}
        <Guess of={got.round_mm} format={(v) => `${v.toFixed(1)} mm`} /> high.
      </p>
    </div>
  );
}

function Source({
  value,
  design,
  set,
  swatches,
}: {
  value: Page;
  design: Design;
  set: (part: Partial<Page>) => void;
  swatches: Schemas["SwatchOut"][];
}) {
  const now = design.gauge_now;
  return (
    <div className="grid gap-4 lg:grid-cols-[1fr_1fr]">
      <div className="flex flex-col gap-3">
        <SelectField
          label="Take it from"
          value={value.source === "swatch" ? `swatch-${value.swatch_id}` : (value.source ?? "assumed")}
          onValue={(source) => {
            const swatch = swatches.find((s) => `swatch-${s.id}` === source);
            if (swatch)
              set({
                source: "swatch",
                swatch_id: swatch.id,
                hook_mm: swatch.hook_mm,
                strands: swatch.strands,
                stitch_mm: swatch.gauge.stitch_mm,
                round_mm: swatch.gauge.round_mm,
                lean: swatch.gauge.lean,
                yarn_per_stitch_mm: swatch.yarn_per_stitch_mm,
              });
            else if (source === "own")
              set({ source: "own", swatch_id: null, stitch_mm: now.stitch_mm, round_mm: now.round_mm });
            else
              set({
                source: source as Page["source"],
                swatch_id: null,
                stitch_mm: null,
                round_mm: null,
                yarn_per_stitch_mm: null,
              });
          }}
          options={[
            ["assumed", "nothing yet: assume light yarn on 3 mm"],
            ["estimate", "the estimate from yarn and hook"],
            ...swatches.map(
              (s) => [`swatch-${s.id}`, `my swatch of ${s.yarn_name} on ${s.hook_mm} mm`] as const,
            ),
            ["own", "my own figures"],
          ]}
        />
        {value.source === "own" && (
          <div className="grid grid-cols-2 gap-3">
            <NumberField
              label="Stitch width"
              unit="mm"
              least={0.5}
              most={60}
              step={0.1}
              value={value.stitch_mm ?? null}
              onValue={(stitch_mm) => stitch_mm && set({ stitch_mm })}
            />
            <NumberField
              label="Round height"
              unit="mm"
              least={0.5}
              most={120}
              step={0.1}
              value={value.round_mm ?? null}
              onValue={(round_mm) => round_mm && set({ round_mm })}
            />
          </div>
        )}
        <div className="grid grid-cols-2 gap-3">
          <NumberField
            label="Lean"
            unit="stitches a round"
            optional
            least={-2}
            most={2}
            step={0.1}
            value={value.lean ?? null}
            onValue={(lean) => set({ lean })}
            hint="How far the round's start wanders; 0.4 unless you measured it."
          />
          <NumberField
            label="Filling"
            unit="% firm"
            least={0}
            most={100}
            step={10}
            value={Math.round((value.firmness ?? 0.5) * 100)}
            onValue={(n) => set({ firmness: (n ?? 50) / 100 })}
            hint="0 soft, 50 as usual, 100 hard."
          />
        </div>
      </div>
      <dl className="grid grid-cols-[auto_1fr] content-start gap-x-4 gap-y-1 rounded-md border border-line bg-ground p-3">
        <dt>Stitch width</dt>
        <dd className="font-semibold">{now.stitch_mm.toFixed(2)} mm</dd>
        <dt>Round height</dt>
        <dd className="font-semibold">{now.round_mm.toFixed(2)} mm</dd>
        <dt>May be off by</dt>
        <dd className="font-semibold">{Math.round(now.spread * 100)} %</dd>
        <dt>Where from</dt>
        <dd>{now.how}</dd>
      </dl>
    </div>
  );
}
