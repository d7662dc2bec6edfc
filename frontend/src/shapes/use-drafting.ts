/** A shape while it is drawn: its recipe, the rounds drafted from it, how they settle, and the part that follows it. */
import { useEffect, useMemo, useRef, useState } from "react";
import { answer, api } from "../api/client";
import { type Design, type Part, useAct } from "../design/design";
import { beforeActing } from "../design/pending";
import { useLatest } from "../figure/use-latest";
import { useSettled } from "../figure/use-settled";
import { askShape, bodyOf, fitKey, type Question, type Shape, sameQuestion } from "./question";
import { type Recipe, recipeFor, recipeFrom } from "./recipe";

/** How long she has to rest before a part that still is its shape follows it. */
const REST_MS = 900;

export function useDrafting(design: Design, part: Part | null) {
  const stored = useMemo(() => recipeFrom(part?.recipe ?? null), [part?.recipe]);
  const [recipe, setRecipe] = useState<Recipe>(stored ?? recipeFor("sphere"));
  /** Changed here, and not taken into the part yet. */
  const waits = useRef(false);
  useEffect(() => {
    if (stored && !waits.current) setRecipe(stored);
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
    waits.current = true;
    setRecipe(next);
  };
  const take = async ({ text, recipe }: Shape) => {
    if (!part) return;
    waits.current = false;
    // What the studio refuses is told where every refused change is.
    await act.mutateAsync({ do: "text", key: part.key, text, recipe }).catch(() => undefined);
  };
  /** Take the drafted rounds into the part. */
  const use = () => {
    if (fresh) void take(fresh);
  };
  // A part that still is its shape follows the shape; the rounds of any other are replaced only on request.
  const authoritative = (part?.authoritative ?? false) && stored !== null;
  const follow = useRef(async () => {});
  follow.current = async () => {
    if (!authoritative || !waits.current) return;
    const drafted = fresh ?? (await askShape(question).catch(() => null));
    if (drafted) await take(drafted);
  };
  useEffect(() => {
    if (!fresh) return;
    const timer = setTimeout(() => void follow.current(), REST_MS);
    return () => clearTimeout(timer);
  }, [fresh]);
  // What she leaves before it rested, or before she takes a step back, is taken in first.
  useEffect(() => beforeActing(design.id, () => follow.current()), [design.id]);
  useEffect(() => () => void follow.current(), []);
  return { recipe, change, question, shape, fresh, error, refused: current && error !== null, settling, use };
}
