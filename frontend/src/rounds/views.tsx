/** What the rounds make: the figure, the chart, or the dry run. */

import { skipToken, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useDeferredValue, useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { answer, api, type Schemas } from "../api/client";
import { type Design, gaugeOf, type Part } from "../design/design";
import { paletteOf } from "../design/palette";
import type { RoundMeasure, Settled } from "../figure/settled";
import { type Settling, useSettled } from "../figure/use-settled";
import { PartFigure } from "../figure/views";
import { Button } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import { Guess } from "../ui/overlays";
import { cm, rounded } from "../ui/units";
import { askSettled, type Preview, partPicture, type Question } from "./ask";
import { ChartView } from "./chart";
import { DryRunView } from "./dry-run";

const tab =
  "rounded-t-md border-b-2 border-transparent px-3 py-1.5 data-[state=active]:border-woad data-[state=active]:font-semibold hover:bg-sunk";

/** What tells one settling from the next: the rounds that were understood, and the fabric. */
export function settlingKey(preview: Preview | null, asked: Question): string | null {
  if (!preview?.part.rounds.length) return null;
  const others = asked.design.parts.map((p) => p.key !== asked.part && [p.name, p.make, p.text, p.colour]);
  return JSON.stringify([
    asked.text,
    asked.colour,
    gaugeOf(asked.design, asked.part),
    asked.design.terms,
    others,
  ]);
}

/** The outline that the part was drafted for, while its text is still the drafted one. */
function useTarget(asked: Question, part: Part): [number, number][] | undefined {
  const recipe = part.recipe?.kind === "rounds" && !part.recipe.form.modifiers?.length ? part.recipe : null;
  const own = recipe !== null && part.authoritative && asked.text === part.text;
  const shape = useQuery({
    queryKey: ["target", JSON.stringify(recipe), JSON.stringify(gaugeOf(asked.design, asked.part))],
    enabled: own,
    queryFn: recipe
      ? () =>
          answer<Schemas["ShapeOut"]>(
            api.POST("/api/shapes/draft", {
              body: {
                recipe,
                gauge: gaugeOf(asked.design, asked.part),
                terms: asked.design.terms,
                colours: [],
                colour: null,
                number: 0,
              },
            }),
          )
      : skipToken,
  });
  return own && shape.data?.outline.length ? shape.data.outline : undefined;
}

/** The part as it was at an earlier step, settled, to lay over what it is now. */
function useEarlier(design: Design, part: Part) {
  const [step, setStep] = useState<number | null>(null);
  const steps = useQuery({
    queryKey: ["history", design.id],
    queryFn: () =>
      answer<Schemas["RevisionRow"][]>(
        api.GET("/api/designs/{design_id}/history", { params: { path: { design_id: design.id } } }),
      ),
  });
  const { settled, way, problem } = useSettled(
    step === null ? null : `${design.id} ${part.key} ${step}`,
    () => {
      const path = { design_id: design.id, key: part.key, number: step ?? 0 };
      return answer<Schemas["JobOut"]>(
        api.POST("/api/bench/settle/{design_id}/{key}/{number}", { params: { path } }),
      );
    },
  );
  return {
    step,
    setStep,
    steps: steps.data ?? [],
    settled: step === null || way !== null ? null : settled,
    problem: step === null ? null : problem,
  };
}

export function Views({
  asked,
  part,
  preview,
  lit,
  onLit,
}: {
  asked: Question;
  part: Part;
  preview: Preview | null;
  lit: number | null;
  onLit: (round: number | null) => void;
}) {
  const flat = useMemo(() => () => partPicture(asked), [asked]);
  const settling = useSettled(
    useMemo(() => settlingKey(preview, asked), [preview, asked]),
    () => askSettled(asked),
  );
  const palette = useMemo(() => paletteOf(asked.design), [asked.design]);
  const target = useTarget(asked, part);
  const leftHanded = useLeftHanded();
  const earlier = useEarlier(asked.design, part);
  // The figure may lag a frame behind the ladder: pointing along the rungs stays quick.
  const shone = useDeferredValue(lit);
  return (
    <Tabs.Root
      defaultValue="figure"
      className="flex min-h-80 flex-col rounded-lg border border-line bg-panel lg:min-h-0"
    >
      <Tabs.List className="flex border-b border-line px-1" aria-label="Views of the rounds">
        <Tabs.Trigger value="figure" className={tab}>
          Figure
        </Tabs.Trigger>
        <Tabs.Trigger value="chart" className={tab}>
          Chart
        </Tabs.Trigger>
        <Tabs.Trigger value="dry-run" className={tab}>
          Dry run
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="figure" className="flex min-h-0 flex-1 flex-col">
        <div className="min-h-0 flex-1">
          {preview && (
            <PartFigure
              part={preview.part}
              label={`Figure of ${part.name}`}
              lit={shone}
              onLit={onLit}
              flat={flat}
              settling={settling}
              palette={palette}
              target={target}
              overlay={earlier.settled}
              leftHanded={leftHanded}
            />
          )}
        </div>
        <SettlingState settling={settling} />
        {earlier.steps.length > 1 && (
          <label className="flex items-center gap-2 border-t border-line px-3 py-1 text-sm">
            Lay over it
            <select
              className="min-w-0 flex-1 rounded border border-strong bg-panel px-1 py-0.5"
              value={earlier.step ?? ""}
              onChange={(e) => earlier.setStep(e.target.value ? Number(e.target.value) : null)}
            >
              <option value="">nothing</option>
              {earlier.steps.map((s) => (
                <option key={s.number} value={s.number}>
                  {`step ${s.number}: ${s.label}`}
                </option>
              ))}
            </select>
            {earlier.problem !== null && <span role="alert">{earlier.problem}</span>}
          </label>
        )}
        {preview?.size && (
          <Sizes showsAbove={asked.design.shows_above} size={preview.size} settling={settling} lit={lit} />
        )}
      </Tabs.Content>
      <Tabs.Content value="chart" className="min-h-0 flex-1">
        <ChartView asked={asked} title={part.name} />
      </Tabs.Content>
      <Tabs.Content value="dry-run" className="min-h-0 flex-1 overflow-auto">
        <DryRunView asked={asked} lit={lit} onRound={onLit} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

/** How far settling is, and what stood in its way. */
function SettlingState({ settling }: { settling: Settling }) {
  if (settling.problem)
    return (
      <p role="alert" className="border-t border-line border-l-4 border-l-madder px-3 py-1 text-sm">
        {settling.problem} The figure is the estimate.
      </p>
    );
  if (!settling.way) return null;
  return (
    <JobBar name="Settling" way={settling.way} className="border-t border-line px-3 py-0.5 text-sm">
      Settling …
      <Button weight="quiet" className="px-1.5 py-0 text-sm" onClick={settling.cancel}>
        Stop
      </Button>
    </JobBar>
  );
}

function Sizes({
  showsAbove,
  size,
  settling,
  lit,
}: {
  showsAbove: number;
  size: NonNullable<Preview["size"]>;
  settling: Settling;
  lit: number | null;
}) {
  const found = settling.settled?.measures;
  const round = lit === null ? undefined : found?.rounds[lit];
  const spread = (value: number) => ({
    value,
    low: value * (size.height.low / size.height.value),
    high: value * (size.height.high / size.height.value),
    how: `settled from the stitches; ${size.height.how}`,
  });
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 border-t border-line px-3 py-2">
      <dt className="text-soft">{found && !settling.settled?.stuffed ? "Not stuffed" : "Stuffed"}</dt>
      <dd>
        <Guess of={found ? spread(found.height_mm) : size.height} format={cm} /> tall,{" "}
        <Guess of={found ? spread(found.width_mm) : size.width} format={cm} /> wide
        {found && (
          <>
            , <Guess of={spread(found.depth_mm)} format={cm} /> deep
          </>
        )}
      </dd>
      <dt className="text-soft">Yarn, each</dt>
      <dd>
        <Guess of={size.metres} format={(m) => `${rounded(m, 1)} m`} />, {size.stitches} stitches
      </dd>
      {(!found || settling.settled?.stuffed) && (
        <>
          <dt className="text-soft">Filling, each</dt>
          <dd>
            <Guess of={size.filling_g} format={(g) => `${rounded(g, g < 10 ? 1 : 0)} g`} />
          </dd>
        </>
      )}
      {found && settling.settled?.stuffed && (
        <>
          <dt className="text-soft">Passes up to</dt>
          <dd>{passes(settling.settled.passes)}</dd>
        </>
      )}
      {found && (
        // Its room is kept, so that the figure stays where it is while rounds are pointed at.
        <>
          <dt className="min-h-12 text-soft">{round?.label ?? "Round"}</dt>
          <dd className={round ? "" : "text-soft"}>
            {round ? measured(round, showsAbove) : "none pointed at"}
          </dd>
        </>
      )}
    </dl>
  );
}

/** A settled round in words. */
function measured(round: RoundMeasure, showsAbove: number): string {
  const said = [`${cm(round.girth_mm)} around, opening ${cm(round.opening_mm)}`];
  if (round.ruffle > 0.05) said.push(`ruffles by ${Math.round(round.ruffle * 100)} %`);
  if (round.stretch > showsAbove) said.push("stretched so far that filling may show");
  return said.join(", ");
}

/** The last round at which a hand, a finger and tweezers still go in, in words. */
export function passes(found: Settled["passes"]): string {
  return found.map(([thing, round]) => `${thing} ${round ?? "never"}`).join(", ");
}
