import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Frame } from "../ui/test-frame";
import { type Design, useAct } from "./design";
import { usePage } from "./use-page";

const DESIGN = { id: 3, revision: 5, parts: [], brief: { intro: "" } } as unknown as Design;

const asked: string[] = [];

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  localStorage.clear();
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(new URL(request.url).pathname);
    return new Response(JSON.stringify({ ...DESIGN, revision: 5 + asked.length }), {
      headers: { "Content-Type": "application/json" },
    });
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it("what has just been typed is sent before a step back is taken", async () => {
  const { result } = renderHook(() => ({ page: usePage(DESIGN, "brief"), act: useAct(3) }), {
    wrapper: Frame,
  });
  act(() => result.current.page.change({ ...DESIGN.brief, intro: "A moth" }));
  act(() => result.current.act.mutate({ do: "undo" }));
  await act(() => vi.advanceTimersByTimeAsync(5000));
  expect(asked).toEqual(["/api/designs/3/pages", "/api/designs/3/undo"]);
});
