/** Shapes: a shape becomes rounds while it is drawn, and settles to show how near it comes. */

import { useEffect, useMemo, useRef, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { answer, api, Refused, type Schemas, sentence } from "../api/client";
import { coloursOf, type Design, gaugeOf, type Part, useAct } from "../design/design";
import { MOST_NAME } from "../design/head";
import { useShownDesign } from "../design/layout";
import { Ladder } from "../figure/ladder";
import { useLatest } from "../figure/use-latest";
import { useSettled } from "../figure/use-settled";
import { PartFigure } from "../figure/views";
import { partPicture } from "../rounds/ask";
import { paletteOf } from "../rounds/views";
import { Button, Check, NumberField, Panel, TextField } from "../ui/controls";
import { Confirm, Explained, Guess, useSay } from "../ui/overlays";
import { cm, inches, rounded } from "../ui/units";
import { BaseChoice } from "./base-choice";
import { BoxSizes } from "./box-sizes";
import { Compare } from "./compare";
import { Cut } from "./cut";
import { Fit } from "./fit";
import { Making, SolidSizes } from "./making";
import { MeshFields } from "./mesh";
import { Modifiers } from "./modifiers";
import { Outline } from "./outline";
import { FlatPanels } from "./panels";
import { onlyBent, type Recipe, recipeFor, recipeFrom, reshaped, withBase } from "./recipe";
import { SaveTarget } from "./save-target";
import { StackFields } from "./stack";
import { Trace } from "./trace";
import { Sides } from "./views";

type Shape = Schemas["ShapeOut"];
type Question = { recipe: Recipe; design: Design; colour: string | null };

const NUMBER = { value: 0 };

function bodyOf({ recipe, design, colour }: Question): Schemas["ShapeIn"] {
  return {
    recipe,
    gauge: gaugeOf(design),
    terms: design.terms,
    colours: coloursOf(design),
    colour,
    number: ++NUMBER.value,
  };
}

async function askShape(question: Question): Promise<Shape> {
  return answer(api.POST("/api/shapes/draft", { body: bodyOf(question) }));
}

function sameQuestion(a: Question, b: Question): boolean {
  return (
    JSON.stringify([a.recipe, a.colour, a.design.gauge_now, a.design.terms]) ===
    JSON.stringify([b.recipe, b.colour, b.design.gauge_now, b.design.terms])
  );
}

/** What tells one settling of a shape from the next. */
function fitKey({ recipe, design }: Question): string {
  return JSON.stringify([recipe, gaugeOf(design)]);
}

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

function PartList({
  design,
  chosen,
  onChosen,
}: {
  design: Design;
  chosen: string | null;
  onChosen: (key: string | null) => void;
}) {
  return (
    <nav aria-label="Parts" className="flex flex-col gap-1">
      {design.parts.map((p) => (
        <button
          key={p.key}
          type="button"
          aria-current={p.key === chosen}
          onClick={() => onChosen(p.key)}
          className={`rounded-md border px-2.5 py-1.5 text-left ${p.key === chosen ? "border-woad bg-woad-ground font-semibold" : "border-line bg-panel hover:bg-sunk"}`}
        >
          {p.name}
          {p.make > 1 && ` × ${p.make}`}
          <span className="block text-sm font-normal text-soft">
            {p.counts.length} rounds
            {p.authoritative ? ", from its shape" : p.recipe ? ", edited by hand" : ", written by hand"}
          </span>
        </button>
      ))}
      <button
        type="button"
        aria-current={chosen === null}
        onClick={() => onChosen(null)}
        className={`rounded-md border border-dashed px-2.5 py-1.5 text-left ${chosen === null ? "border-woad bg-woad-ground font-semibold" : "border-strong hover:bg-sunk"}`}
      >
        + A new part
      </button>
    </nav>
  );
}

function Drafting({
  design,
  part,
  onMade,
}: {
  design: Design;
  part: Part | null;
  onMade: (key: string) => void;
}) {
  const leftHanded = useLeftHanded();
  const stored = useMemo(() => recipeFrom(part?.recipe ?? null), [part?.recipe]);
  const [recipe, setRecipe] = useState<Recipe>(stored ?? recipeFor("sphere"));
  const touched = useRef(false);
  // A mesh is chosen before there is one: until then the shape of before stays.
  const [choosing, setChoosing] = useState(false);
  const [cutAt, setCutAt] = useState<number | null>(null);
  useEffect(() => {
    if (stored && !touched.current) setRecipe(stored);
    touched.current = false;
  }, [stored]);
  const question = useMemo<Question>(
    () => ({ recipe, design, colour: part?.colour ?? null }),
    [recipe, design, part?.colour],
  );
  const { answer: shape, error, busy } = useLatest(question, askShape, sameQuestion);
  const settling = useSettled(shape && !error && !busy ? fitKey(question) : null, () =>
    answer(api.POST("/api/shapes/fit", { body: bodyOf(question) })),
  );
  const palette = useMemo(() => paletteOf(design), [design]);
  const [lit, setLit] = useState<number | null>(null);
  const act = useAct(design.id);
  const say = useSay();
  const change = (next: Recipe) => {
    touched.current = true;
    setRecipe(next);
  };
  // A part that still is its shape follows the shape; the rounds of any other are replaced only on request.
  const use = () => {
    if (!part || !shape || busy || error) return;
    act.mutate({ do: "text", key: part.key, text: shape.text, recipe: shape.recipe });
  };
  const follow = useRef(use);
  follow.current = use;
  const authoritative = (part?.authoritative ?? false) && stored !== null;
  useEffect(() => {
    if (!authoritative || !touched.current || busy || !shape) return;
    const timer = setTimeout(() => {
      touched.current = false;
      follow.current();
    }, 900);
    return () => clearTimeout(timer);
  }, [authoritative, busy, shape]);
  const flat = useMemo(
    () => () =>
      partPicture({ text: shape?.text ?? "", design, colour: part?.colour ?? null, part: part?.key ?? "" }),
    [shape?.text, design, part?.colour, part?.key],
  );
  return (
    <div className="grid min-h-0 gap-3 lg:grid-cols-[minmax(17rem,22rem)_minmax(0,1fr)_minmax(0,1fr)]">
      <Panel className="overflow-auto" title={part ? part.name : "A new part"}>
        <BaseChoice
          recipe={recipe}
          choosing={choosing}
          onBase={(base, kind) => {
            setChoosing(base === "mesh");
            if (base !== "mesh") change(withBase(recipe, base, kind));
          }}
        />
        {recipe.form === null && !choosing && (
          <>
            {shape?.sides.length ? (
              <Sides sides={shape.sides} size={shape.size_mm as [number, number, number]} />
            ) : (
              <Outline
                points={(shape?.outline ?? [[0, 0]]) as [number, number][]}
                recipe={recipe}
                onRecipe={(next) => change(reshaped(next, {}))}
                onDone={() => undefined}
              />
            )}
            <SolidSizes recipe={recipe} onRecipe={(next) => change(reshaped(next, {}))} />
          </>
        )}
        {recipe.form?.base === "traced" && (
          <Trace
            design={design}
            form={recipe.form}
            onForm={(form) => change(reshaped(recipe, { form }))}
            curve={curveOf(shape)}
          />
        )}
        {recipe.form?.base === "stack" && (
          <StackFields form={recipe.form} onForm={(form) => change(reshaped(recipe, { form }))} />
        )}
        {recipe.form?.base === "box" && (
          <BoxSizes form={recipe.form} onForm={(form) => change(reshaped(recipe, { form }))} />
        )}
        {(recipe.form?.base === "mesh" || choosing) && (
          <MeshFields
            form={recipe.form?.base === "mesh" ? recipe.form : null}
            height={shape?.size_mm[2] ?? 100}
            onForm={(form) => {
              setChoosing(false);
              change(reshaped(recipe, { form }));
            }}
          />
        )}
        {recipe.form !== null && shape && (
          <Sides sides={shape.sides} size={shape.size_mm as [number, number, number]} />
        )}
        {!choosing && (
          <Modifiers
            modifiers={recipe.modifiers}
            onModifiers={(modifiers) => change(reshaped(recipe, { modifiers }))}
          />
        )}
        {!choosing && onlyBent(recipe) && (
          <Check
            label="Bend it with short rows"
            checked={recipe.short_rows}
            onChecked={(on) => change({ ...recipe, short_rows: on })}
          />
        )}
        <Making recipe={recipe} onRecipe={change} start={shape?.start ?? 6} />
        {!choosing && Boolean(shape || error) && (
          <Cut
            design={design}
            recipe={recipe}
            question={bodyOf(question)}
            at={cutAt ?? Math.round((shape?.size_mm[2] ?? recipe.height_mm) / 2)}
            onAt={setCutAt}
            onMade={onMade}
          />
        )}
        {shape && !choosing && (
          <FlatPanels design={design} question={bodyOf(question)} palette={palette} onMade={onMade} />
        )}
        {shape && !choosing && <SaveTarget recipe={recipe} />}
        {error ? (
          <div className="mt-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
            <p role="alert">{sentence(error)}</p>
            {error instanceof Refused && error.problem.field === "branches" && (
              <Button onClick={() => change({ ...recipe, split: true })}>Work it as a split</Button>
            )}
          </div>
        ) : null}
        {recipe.split && (
          <Check
            label="Split where the shape divides"
            checked
            onChecked={() => change({ ...recipe, split: false })}
          />
        )}
        {part?.recipe?.panel ? (
          <p className="mt-3 border-t border-line pt-3 text-sm">
            {part.name} is a flat panel, worked in rows; to work its shape anew, choose a new part.
          </p>
        ) : part ? (
          !part.authoritative && <Replace part={part} onReplace={use} disabled={!shape || Boolean(error)} />
        ) : (
          <AddPart
            disabled={!shape || Boolean(error)}
            onAdd={(name, make) =>
              act.mutate(
                {
                  do: "add-part",
                  name,
                  make,
                  colour: null,
                  text: shape?.text ?? "",
                  recipe: shape?.recipe ?? null,
                },
                {
                  onSuccess: (made) => {
                    onMade(made.parts.at(-1)?.key ?? "");
                    say(`${name} is there: its rounds are on the bench.`);
                  },
                },
              )
            }
          />
        )}
      </Panel>
      <Panel className="flex min-h-0 flex-col" title="Rounds">
        {shape && error ? (
          <p className="mb-1 text-sm text-soft">These are still the rounds of the shape before.</p>
        ) : null}
        {shape && <Prices shape={shape} recipe={recipe} onEase={(ease) => change({ ...recipe, ease })} />}
        {shape && <Compare question={bodyOf(question)} recipe={recipe} onRecipe={change} onCut={setCutAt} />}
        {shape && (
          <Ladder
            part={shape.preview.part}
            label={`Ladder of ${part?.name ?? "the new part"}`}
            lit={lit}
            onLit={setLit}
            mirrored={leftHanded}
            className="min-h-0 flex-1"
          />
        )}
      </Panel>
      <Panel className="flex min-h-96 flex-col" title="Figure">
        <div className="min-h-0 flex-1">
          {shape && (
            <PartFigure
              part={shape.preview.part}
              label={`Figure of ${part?.name ?? "the new part"}`}
              lit={lit}
              onLit={setLit}
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
          compensated={recipe.redrawn !== null}
          onRedrawn={(redrawn) => change({ ...recipe, redrawn })}
          disc={shape?.disc_mm ?? null}
          threads={recipe.threads}
          onThreads={(threads) => change({ ...recipe, threads })}
        />
        {shape?.preview.size && (
          <p className="border-t border-line pt-2">
            Stuffed: <Guess of={shape.preview.size.height} format={cm} /> tall,{" "}
            <Guess of={shape.preview.size.width} format={cm} /> wide
            <span className="text-soft">
              {" "}
              ({inches(shape.preview.size.height.value)} × {inches(shape.preview.size.width.value)})
            </span>
          </p>
        )}
      </Panel>
    </div>
  );
}

/** The half outline to draw: the craft's own, or how far the shape reaches to the side. */
function curveOf(shape: Shape | null): [number, number][] {
  if (!shape) return [];
  if (shape.outline.length) return shape.outline as [number, number][];
  return shape.sides.map(([z, left, right]) => [(right - left) / 2, z]);
}

const PRICE_NAMES = { true: "True to the shape", balanced: "Balanced", easy: "Easy to work" };

function Prices({ shape, recipe, onEase }: { shape: Shape; recipe: Recipe; onEase: (ease: number) => void }) {
  return (
    <div role="radiogroup" aria-label="Ease" className="mb-2 grid grid-cols-3 gap-1.5">
      {shape.prices.map((p) => (
        <label
          key={p.name}
          className={`flex cursor-pointer flex-col rounded-md border px-2 py-1 text-sm has-focus-visible:outline-2 has-focus-visible:outline-woad ${Math.abs(p.ease - recipe.ease) < 0.01 ? "border-woad bg-woad-ground" : "border-line hover:bg-sunk"}`}
        >
          <input
            type="radio"
            name="ease"
            className="sr-only"
            checked={Math.abs(p.ease - recipe.ease) < 0.01}
            onChange={() => onEase(p.ease)}
          />
          <span className="font-semibold">{PRICE_NAMES[p.name as keyof typeof PRICE_NAMES]}</span>
          <span>
            {p.different} different rounds, {rounded(p.off_mm, 1)} mm off
          </span>
        </label>
      ))}
    </div>
  );
}

function Replace({ part, onReplace, disabled }: { part: Part; onReplace: () => void; disabled: boolean }) {
  return (
    <div className="mt-3 border-t border-line pt-3">
      <p className="mb-2 text-sm">
        {part.name} has been{" "}
        <Explained why="Once rounds are edited by hand, the shape no longer overwrites them by itself.">
          edited by hand
        </Explained>
        .
      </p>
      <Confirm
        trigger={<Button disabled={disabled}>Use this shape instead</Button>}
        title={`Replace the rounds of ${part.name}?`}
        about="The rounds on the bench are replaced by those of the shape. Undo brings them back."
        yes="Replace them"
        onYes={onReplace}
      />
    </div>
  );
}

function AddPart({ disabled, onAdd }: { disabled: boolean; onAdd: (name: string, make: number) => void }) {
  const [name, setName] = useState("");
  const [make, setMake] = useState(1);
  return (
    <form
      className="mt-3 grid grid-cols-[1fr_5rem_auto] items-start gap-2 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        onAdd(name.trim(), make);
      }}
    >
      <TextField
        label="Call it"
        required
        maxLength={MOST_NAME}
        placeholder="Body"
        value={name}
        onChange={(e) => setName(e.target.value)}
        pattern="[A-Za-zÀ-ɏ][A-Za-zÀ-ɏ0-9' &\-]*"
      />
      <NumberField label="Make" least={1} most={50} value={make} onValue={(n) => setMake(n ?? 1)} />
      <Button type="submit" weight="main" className="mt-6" disabled={disabled}>
        Add
      </Button>
    </form>
  );
}
