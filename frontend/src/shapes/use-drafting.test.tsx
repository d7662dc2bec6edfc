import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { type Design, type Part, useAct } from "../design/design";
import { Frame } from "../ui/test-frame";
import { recipeFor } from "./recipe";
import { useDrafting } from "./use-drafting";

const FIRST = recipeFor("sphere");
const taller = (percent: number) => ({ ...FIRST, egg: percent }) as typeof FIRST;
const PART = {
  key: "abcd",
  name: "Body",
  colour: null,
  authoritative: true,
  recipe: FIRST,
} as unknown as Part;
const DESIGN = {
  id: 3,
  revision: 5,
  terms: "us",
  parts: [PART],
  gauge: { yarns: [], firmness: "firm" },
  gauge_now: { stitch_mm: 5, round_mm: 5, lean: 0, spread: 1, how: "estimate" },
  colours: [],
} as unknown as Design;

type Asked = { path: string; body: { recipe?: unknown; text?: string } };
const asked: Asked[] = [];
const taken = () => asked.filter((a) => a.path.endsWith("/text")).map((a) => a.body.recipe);
let holding: (() => void)[] | null = null;

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  holding = null;
  localStorage.clear();
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.text();
    const one: Asked = { path: new URL(request.url).pathname, body: text ? JSON.parse(text) : {} };
    asked.push(one);
    if (holding && one.path.endsWith("/text")) await new Promise<void>((go) => holding?.push(go));
    const reply = one.path.endsWith("/draft")
      ? { text: "R1: 6 sc in ring", recipe: one.body.recipe, number: 1 }
      : one.path.endsWith("/text")
        ? { ...DESIGN, revision: 6, parts: [{ ...PART, recipe: one.body.recipe }] }
        : DESIGN;
    return new Response(JSON.stringify(reply), { headers: { "Content-Type": "application/json" } });
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const start = () =>
  renderHook(
    ({ part }: { part: Part }) => ({ drafting: useDrafting(DESIGN, part), act: useAct(3, () => true) }),
    { wrapper: Frame, initialProps: { part: PART } },
  );
/** In steps, so that what is asked is answered on the way. */
async function wait(ms: number): Promise<void> {
  for (let gone = 0; gone < ms; gone += 50) await act(() => vi.advanceTimersByTimeAsync(50));
}

it("is taken into the part after a rest, once", async () => {
  const { result } = start();
  await wait(2000);
  expect(taken()).toEqual([]);
  act(() => result.current.drafting.change(taller(20)));
  await wait(300);
  act(() => result.current.drafting.change(taller(30)));
  await wait(3000);
  expect(taken()).toEqual([taller(30)]);
});

it("is taken in when she leaves before it rested", async () => {
  const { result, unmount } = start();
  await wait(100);
  act(() => result.current.drafting.change(taller(20)));
  unmount();
  await wait(100);
  expect(taken()).toEqual([taller(20)]);
});

it("is taken in before a step back", async () => {
  const { result } = start();
  await wait(100);
  act(() => result.current.drafting.change(taller(20)));
  act(() => result.current.act.mutate({ do: "undo" }));
  await wait(3000);
  const paths = asked.map((a) => a.path.split("/").at(-1)).filter((p) => p === "text" || p === "undo");
  expect(paths).toEqual(["text", "undo"]);
});

it("what she changes while the one before is on its way is taken in after it", async () => {
  const { result, rerender } = start();
  await wait(100);
  act(() => result.current.drafting.change(taller(20)));
  holding = [];
  await wait(1500);
  act(() => result.current.drafting.change(taller(40)));
  for (const go of holding) go();
  holding = null;
  rerender({ part: { ...PART, recipe: taller(20) } as Part });
  await wait(3000);
  expect(result.current.drafting.recipe).toEqual(taller(40));
  expect(taken()).toEqual([taller(20), taller(40)]);
});
