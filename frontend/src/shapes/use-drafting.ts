/** A shape while it is drawn: its recipe, the rounds drafted from it, how they settle, and the part that follows it. */
import { useEffect, useMemo, useRef, useState } from "react";
import { answer, api } from "../api/client";
import { type Design, type Part, useAct } from "../design/design";
import { useLatest } from "../figure/use-latest";
import { useSettled } from "../figure/use-settled";
import { askShape, bodyOf, fitKey, type Question, sameQuestion } from "./question";
import { type Recipe, recipeFor, recipeFrom } from "./recipe";

/** How long she has to rest before a part that still is its shape follows it. */
const REST_MS = 900;

export function useDrafting(design: Design, part: Part | null) {
  const stored = useMemo(() => recipeFrom(part?.recipe ?? null), [part?.recipe]);
  const [recipe, setRecipe] = useState<Recipe>(stored ?? recipeFor("sphere"));
  const touched = useRef(false);
  useEffect(() => {
    if (stored && !touched.current) setRecipe(stored);
    touched.current = false;
  }, [stored]);
  const question = useMemo<Question>(
    () => ({ recipe, design, colour: part?.colour ?? null, part: part?.key ?? null }),
    [recipe, design, part?.colour, part?.key],
  );
  const { answer: shape, error, current } = useLatest(question, askShape, sameQuestion);
  const fit = useSettled(shape && !error && current ? fitKey(question) : null, () =>
    answer(api.POST("/api/shapes/fit", { body: bodyOf(question) })),
  );
  // While the rounds of the new shape are on their way, what is shown is still that of the old one.
  const settling = { ...fit, way: fit.way ?? (current ? null : { percent: 0, ahead: null }) };
  // What may be taken into the design: never the rounds of a shape that she has changed since.
  const fresh = current && !error ? shape : null;
  const act = useAct(design.id);
  const change = (next: Recipe) => {
    touched.current = true;
    setRecipe(next);
  };
  /** Take the drafted rounds into the part. */
  const use = () => {
    if (!part || !fresh) return;
    act.mutate({ do: "text", key: part.key, text: fresh.text, recipe: fresh.recipe });
  };
  const follow = useRef(use);
  follow.current = use;
  // A part that still is its shape follows the shape; the rounds of any other are replaced only on request.
  const authoritative = (part?.authoritative ?? false) && stored !== null;
  useEffect(() => {
    if (!authoritative || !touched.current || !fresh) return;
    const timer = setTimeout(() => {
      touched.current = false;
      follow.current();
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [authoritative, fresh]);
  return { recipe, change, question, shape, fresh, error, refused: current && error !== null, settling, use };
}
