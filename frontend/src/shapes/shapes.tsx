/** Shapes: a shape becomes rounds while it is drawn, and settles to show how near it comes. */

import { useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { Refused, sentence } from "../api/client";
import type { Design, Part } from "../design/design";
import { useShownDesign } from "../design/layout";
import { paletteOf } from "../design/palette";
import { Ladder } from "../figure/ladder";
import { PartFigure } from "../figure/views";
import { partPicture } from "../rounds/ask";
import { Button, Check, Panel } from "../ui/controls";
import { Guess } from "../ui/overlays";
import { cm, inches } from "../ui/units";
import { Compare } from "./compare";
import { Cut } from "./cut";
import { Fit } from "./fit";
import { FormFields } from "./form-fields";
import { IntoRounds } from "./into-rounds";
import { Making } from "./making";
import { FlatPanels } from "./panels";
import { PartList } from "./part-list";
import { Prices } from "./prices";
import { bodyOf, type Shape } from "./question";
import type { Thread } from "./recipe";
import { SaveTarget } from "./save-target";
import { SettledSize } from "./settled-size";
import { useDrafting } from "./use-drafting";

export function Shapes() {
  const design = useShownDesign();
  const [chosen, setChosen] = useState<string | null>(design.parts[0]?.key ?? null);
  const part = design.parts.find((p) => p.key === chosen) ?? null;
  return (
    <div className="grid min-h-0 flex-1 gap-3 p-3 lg:grid-cols-[15rem_minmax(0,1fr)]">
      <h1 className="sr-only">Shapes</h1>
      <PartList design={design} chosen={part?.key ?? null} onChosen={setChosen} />
      <Drafting key={part?.key ?? "new"} design={design} part={part} onMade={setChosen} />
    </div>
  );
}

const NO_THREADS: Thread[] = [];

type Drafted = ReturnType<typeof useDrafting>;
type Lit = { lit: number | null; onLit: (round: number | null) => void };

function Drafting({
  design,
  part,
  onMade,
}: {
  design: Design;
  part: Part | null;
  onMade: (key: string) => void;
}) {
  const drafted = useDrafting(design, part);
  const [choosing, setChoosing] = useState(false);
  const [cutAt, setCutAt] = useState<number | null>(null);
  const [lit, setLit] = useState<number | null>(null);
  const { recipe, change, question, shape, error, settling } = drafted;
  const palette = useMemo(() => paletteOf(design), [design]);
  return (
    <div className="grid min-h-0 gap-3 lg:grid-cols-[minmax(17rem,22rem)_minmax(0,1fr)_minmax(0,1fr)]">
      <Panel className="overflow-auto" title={part ? part.name : "A new part"}>
        <FormFields
          design={design}
          recipe={recipe}
          shape={shape}
          choosing={choosing}
          onChoosing={setChoosing}
          onRecipe={change}
        >
          {shape && !choosing && !error && (
            <SettledSize size={shape.size_mm} settled={settling.way === null ? settling.settled : null} />
          )}
        </FormFields>
        <Making recipe={recipe} onRecipe={change} start={shape?.start ?? 6} />
        {!choosing && Boolean(shape || error) && (
          <Cut
            design={design}
            recipe={recipe}
            question={bodyOf(question)}
            at={cutAt ?? Math.round((shape?.size_mm[2] ?? 60) / 2)}
            onAt={setCutAt}
            onMade={onMade}
          />
        )}
        {shape && !choosing && (
          <FlatPanels design={design} question={bodyOf(question)} palette={palette} onMade={onMade} />
        )}
        {shape && !choosing && <SaveTarget recipe={recipe} />}
        <Refusal error={error} onSplit={() => change({ ...recipe, split: true })} />
        {recipe.split && (
          <Check
            label="Split where the shape divides"
            checked
            onChecked={() => change({ ...recipe, split: false })}
          />
        )}
        <div className="sticky -bottom-4 z-10 -mx-4 -mb-4 bg-panel px-4 pb-3" data-testid="into-rounds">
          <IntoRounds
            design={design}
            part={part}
            shape={drafted.fresh}
            refused={drafted.refused}
            onReplace={drafted.use}
            onMade={onMade}
          />
        </div>
      </Panel>
      <DraftedRounds drafted={drafted} part={part} lit={lit} onLit={setLit} onCut={setCutAt} />
      <DraftedFigure
        drafted={drafted}
        design={design}
        part={part}
        palette={palette}
        lit={lit}
        onLit={setLit}
      />
    </div>
  );
}

function Refusal({ error, onSplit }: { error: unknown; onSplit: () => void }) {
  if (!error) return null;
  return (
    <div className="mt-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
      <p role="alert">{sentence(error)}</p>
      {error instanceof Refused && error.problem.field === "branches" && (
        <Button onClick={onSplit}>Work it as a split</Button>
      )}
    </div>
  );
}

function DraftedRounds({
  drafted: { recipe, change, question, shape, error },
  part,
  lit,
  onLit,
  onCut,
}: { drafted: Drafted; part: Part | null; onCut: (height: number) => void } & Lit) {
  const leftHanded = useLeftHanded();
  return (
    <Panel className="flex min-h-0 flex-col" title="Rounds">
      {shape && error ? (
        <p className="mb-1 text-sm text-soft">These are still the rounds of the shape before.</p>
      ) : null}
      {shape && (
        <Prices
          shape={shape}
          recipe={recipe}
          onSimplicity={(simplicity) => change({ ...recipe, simplicity })}
        />
      )}
      {shape && <Compare question={bodyOf(question)} recipe={recipe} onRecipe={change} onCut={onCut} />}
      {shape && (
        <Ladder
          part={shape.preview.part}
          label={`Ladder of ${part?.name ?? "the new part"}`}
          lit={lit}
          onLit={onLit}
          mirrored={leftHanded}
          className="min-h-0 flex-1"
        />
      )}
    </Panel>
  );
}

function DraftedFigure({
  drafted: { recipe, change, question, shape, settling },
  design,
  part,
  palette,
  lit,
  onLit,
}: { drafted: Drafted; design: Design; part: Part | null; palette: Record<string, string> } & Lit) {
  const leftHanded = useLeftHanded();
  const flat = useMemo(
    () => () =>
      partPicture({ text: shape?.text ?? "", design, colour: part?.colour ?? null, part: part?.key ?? "" }),
    [shape?.text, design, part?.colour, part?.key],
  );
  return (
    <Panel className="flex min-h-96 flex-col" title="Figure">
      <div className="min-h-0 flex-1">
        {shape && (
          <PartFigure
            part={shape.preview.part}
            label={`Figure of ${part?.name ?? "the new part"}`}
            lit={lit}
            onLit={onLit}
            flat={flat}
            settling={settling}
            palette={palette}
            leftHanded={leftHanded}
          />
        )}
      </div>
      <Fit
        settling={settling}
        question={bodyOf(question)}
        compensated={Boolean(recipe.redrawn)}
        onRedrawn={(redrawn) => change({ ...recipe, redrawn })}
        disc={shape?.disc_mm ?? null}
        threads={recipe.threads ?? NO_THREADS}
        onThreads={(threads) => change({ ...recipe, threads })}
      />
      {shape?.preview.size && <Measured size={shape.preview.size} stuffed={!shape.preview.part.layers} />}
    </Panel>
  );
}

function Measured({ size, stuffed }: { size: NonNullable<Shape["preview"]["size"]>; stuffed: boolean }) {
  return (
    <p className="border-t border-line pt-2">
      {stuffed ? "Stuffed" : "Flat"}: <Guess of={size.height} format={cm} /> tall,{" "}
      <Guess of={size.width} format={cm} /> wide
      <span className="text-soft">
        {" "}
        ({inches(size.height.value)} × {inches(size.width.value)})
      </span>
    </p>
  );
}
