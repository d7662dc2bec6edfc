import { act, renderHook } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { readFigure } from "./server";
import type { Kept } from "./store";
import { useEnclosed } from "./use-making";

vi.mock("./server", async (real) => ({
  ...(await real<object>()),
  readEdition: vi.fn(async () => "<p>The booklet</p>"),
  readFigure: vi.fn(),
}));
vi.mock("./store", async (real) => ({
  ...(await real<object>()),
  kept: vi.fn(async () => undefined),
  keep: vi.fn(async () => undefined),
}));

const asked = vi.mocked(readFigure);
const figure = (whole: boolean) => ({ parts: {}, open: {}, whole });

function useRow() {
  const [row, setRow] = useState({ id: "a", page: null, figure: null } as unknown as Kept);
  // Whoever calls it may well hand over a new object every time.
  useEnclosed({ token: null }, row, setRow);
  return row;
}

describe("the drawings of a making", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("are asked for again until all of them are there, and then no more", async () => {
    asked
      .mockResolvedValueOnce(figure(false))
      .mockResolvedValueOnce(figure(false))
      .mockResolvedValue(figure(true));
    const { result } = renderHook(useRow);
    await act(() => vi.advanceTimersByTimeAsync(100));
    expect(asked).toHaveBeenCalledTimes(1);
    expect(result.current.page).toBe("<p>The booklet</p>");
    await act(() => vi.advanceTimersByTimeAsync(60_000));
    expect(asked).toHaveBeenCalledTimes(3);
    expect(result.current.figure?.whole).toBe(true);
  });
});
