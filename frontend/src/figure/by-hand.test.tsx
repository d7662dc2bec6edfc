import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { useHolding } from "./by-hand";

afterEach(cleanup);

const WING = { piece: 2, part: "wing", step: "s3", mirrored: true };

function holding() {
  const dropped = vi.fn();
  const chosen = vi.fn();
  const { result } = renderHook(() => useHolding(dropped, chosen));
  act(() => result.current.grab(WING, { x: 100, y: 100 }));
  return { dropped, chosen, result };
}

const pointer = (kind: string, x: number, y: number) =>
  act(() => void window.dispatchEvent(new MouseEvent(kind, { clientX: x, clientY: y })));

it("a piece that is clicked is chosen, though the hand trembles", () => {
  const { dropped, chosen, result } = holding();
  expect(result.current.held).toEqual({ ...WING, far: false });
  pointer("pointermove", 103, 102);
  pointer("pointerup", 103, 102);
  expect(chosen).toHaveBeenCalledExactlyOnceWith("s3");
  expect(dropped).not.toHaveBeenCalled();
  expect(result.current.held).toBeNull();
});

it("a piece that is dragged is dropped once, and told which it is", () => {
  const { dropped, chosen, result } = holding();
  pointer("pointermove", 140, 90);
  expect(result.current.held?.far).toBe(true);
  pointer("pointerup", 140, 90);
  pointer("pointerup", 140, 90);
  expect(dropped).toHaveBeenCalledExactlyOnceWith(WING);
  expect(chosen).not.toHaveBeenCalled();
});

it("Escape leaves it, and no other Escape is taken after that", () => {
  const { dropped, chosen, result } = holding();
  pointer("pointermove", 140, 90);
  const outside = vi.fn();
  window.addEventListener("keydown", outside);
  act(() => void document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true })));
  expect(outside).not.toHaveBeenCalled();
  expect(result.current.held).toBeNull();
  pointer("pointerup", 140, 90);
  expect(dropped).not.toHaveBeenCalled();
  expect(chosen).not.toHaveBeenCalled();
  act(() => void document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true })));
  expect(outside).toHaveBeenCalledOnce();
  window.removeEventListener("keydown", outside);
});
