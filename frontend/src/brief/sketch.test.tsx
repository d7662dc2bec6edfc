/** Sketching: what is drawn, mirrored, rubbed out, taken back, kept on the device and as a picture. */
import { fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, test, vi } from "vitest";
import { asRefused } from "../api/client";
import { SketchDialog } from "./sketch";
import {
  changed,
  EMPTY,
  keep,
  kept,
  laidUnder,
  mirrored,
  outline,
  type Point,
  redone,
  rubbed,
  SHEET,
  type Stroke,
  undone,
} from "./strokes";

const LINE: Stroke = {
  ink: "#3d3a36",
  size: 9,
  pressed: false,
  points: Array.from({ length: 20 }, (_, i): Point => [100 + 10 * i, 200, 0.5]),
};

beforeEach(() => localStorage.clear());
afterEach(() => vi.restoreAllMocks());

/** Left, right, top and bottom of a path. */
function extent(path: string) {
  const numbers = path.match(/-?\d+\.\d/g)?.map(Number) ?? [];
  const [x, y] = [0, 1].map((odd) => numbers.filter((_, i) => i % 2 === odd));
  return [Math.min(...(x ?? [])), Math.max(...(x ?? [])), Math.min(...(y ?? [])), Math.max(...(y ?? []))];
}

describe("a stroke", () => {
  it("lies around its points, as wide as the pen", () => {
    const [left, right, top, bottom] = extent(outline({ ...LINE, pressed: true }));
    expect(left).toBeGreaterThan(100 - 10);
    expect(right).toBeLessThan(290 + 10);
    expect((bottom ?? 0) - (top ?? 0)).toBeGreaterThan(4);
    expect((bottom ?? 0) - (top ?? 0)).toBeLessThan(11);
  });

  it("is fuller where the pen presses", () => {
    const pressed = (p: number) => ({
      ...LINE,
      pressed: true,
      points: LINE.points.map(([x, y]): Point => [x, y, p]),
    });
    const height = (s: Stroke) => {
      const [, , top, bottom] = extent(outline(s));
      return (bottom ?? 0) - (top ?? 0);
    };
    expect(height(pressed(0.9))).toBeGreaterThan(1.5 * height(pressed(0.2)));
  });

  it("has its like on the other side, and that one its own again", () => {
    expect(mirrored(LINE).points[0]?.[0]).toBe(SHEET.wide - 100);
    expect(mirrored(mirrored(LINE))).toEqual(LINE);
  });

  it("is rubbed out where the rubber passes it, between its points too, and nowhere else", () => {
    const two: Stroke = {
      ...LINE,
      points: [
        [100, 200, 0.5],
        [300, 200, 0.5],
      ],
    };
    expect(rubbed([two], [200, 206, 0.5], 10)).toEqual([]);
    const all = [two];
    expect(rubbed(all, [200, 300, 0.5], 10)).toBe(all);
  });
});

describe("a sketch", () => {
  it("is taken back step by step, and again, until something else is drawn", () => {
    const one = changed(EMPTY, [LINE]);
    const two = changed(one, [LINE, mirrored(LINE)]);
    expect(undone(two).strokes).toEqual([LINE]);
    expect(undone(undone(undone(two))).strokes).toEqual([]);
    expect(redone(undone(two)).strokes).toEqual(two.strokes);
    expect(changed(undone(two), []).after).toEqual([]);
  });

  it("waits on the device until it is kept, and nonsense there is nothing", () => {
    keep(7, [LINE]);
    expect(kept(7)).toEqual([LINE]);
    expect(kept(8)).toEqual([]);
    keep(7, []);
    expect(kept(7)).toEqual([]);
    for (const nonsense of ["{", "[]", '{"format":2,"strokes":[]}', '{"format":1,"strokes":[{"ink":1}]}']) {
      localStorage.setItem("sketch-of-design-7", nonsense);
      expect(kept(7)).toEqual([]);
    }
  });

  it("lies over a picture that fills the sheet and is not drawn out", () => {
    expect(laidUnder(400, 300)).toEqual({ x: 0, y: 0, wide: 1200, tall: 900 });
    expect(laidUnder(300, 300)).toEqual({ x: 150, y: 0, wide: 900, tall: 900 });
  });
});

function shown(onPicture = vi.fn(async () => {})) {
  const onClose = vi.fn();
  render(
    <SketchDialog
      design={3}
      yarns={[["Moss", "#6f8f4e"]]}
      pictures={[]}
      onPicture={onPicture}
      onClose={onClose}
    />,
  );
  const sheet = screen.getByRole("application");
  sheet.getBoundingClientRect = () => ({ left: 0, top: 0, width: 1200, height: 900 }) as DOMRect;
  return { sheet, onPicture, onClose };
}

function draw(sheet: HTMLElement, pointerType = "mouse", pointerId = 1) {
  const at = (x: number, y: number) => ({
    pointerId,
    pointerType,
    button: 0,
    clientX: x,
    clientY: y,
    pressure: 0.7,
  });
  fireEvent.pointerDown(sheet, at(100, 100));
  fireEvent.pointerMove(sheet, at(200, 150));
  fireEvent.pointerUp(sheet, at(200, 150));
}

const strokes = () => kept(3);

test("a pen draws in the ink that she takes, on both sides if she likes", () => {
  const { sheet } = shown();
  fireEvent.click(screen.getByRole("button", { name: "Ink Moss" }));
  fireEvent.click(screen.getByLabelText("both sides alike"));
  draw(sheet, "pen");
  expect(strokes()).toHaveLength(2);
  expect(strokes().map((s) => [s.ink, s.pressed])).toEqual([
    ["#6f8f4e", true],
    ["#6f8f4e", true],
  ]);
  expect(strokes()[1]?.points[0]?.[0]).toBe(1100);
  fireEvent.keyDown(sheet, { key: "z", ctrlKey: true });
  expect(strokes()).toHaveLength(0);
});

test("a hand that rests on the sheet draws nothing once a pen was there", () => {
  const { sheet } = shown();
  draw(sheet, "touch", 4);
  expect(strokes()).toHaveLength(1);
  draw(sheet, "pen", 5);
  draw(sheet, "touch", 6);
  expect(strokes()).toHaveLength(2);
});

test("the arrow keys draw while the pen is down", () => {
  const { sheet } = shown();
  fireEvent.keyDown(sheet, { key: "ArrowRight" });
  fireEvent.keyDown(sheet, { key: " " });
  for (let n = 0; n < 3; n += 1) fireEvent.keyDown(sheet, { key: "ArrowDown" });
  fireEvent.keyDown(sheet, { key: " " });
  expect(strokes()[0]?.points.map(([x, y]) => [x, y])).toEqual([
    [612, 450],
    [612, 462],
    [612, 474],
    [612, 486],
  ]);
});

test("the rubber takes what it passes, and the sheet is wiped and comes back", () => {
  const { sheet } = shown();
  draw(sheet);
  fireEvent.click(screen.getByRole("button", { name: "Rubber: takes whole strokes" }));
  draw(sheet);
  expect(strokes()).toHaveLength(0);
  fireEvent.click(screen.getByRole("button", { name: "Take back" }));
  expect(strokes()).toHaveLength(1);
  fireEvent.click(screen.getByRole("button", { name: "Wipe the sheet" }));
  fireEvent.click(screen.getByRole("button", { name: "Take back" }));
  expect(strokes()).toHaveLength(1);
});

test("what waits from before is on the sheet again, and a refusal leaves it there", async () => {
  keep(3, [LINE]);
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue({ fillRect() {}, fill() {} } as never);
  vi.stubGlobal("Path2D", class {});
  vi.spyOn(HTMLCanvasElement.prototype, "toBlob").mockImplementation((then) => then(new Blob(["png"])));
  const refusing = vi.fn(async (): Promise<void> => {
    throw asRefused({ detail: "There is no room for another picture." }, 422);
  });
  const { onClose } = shown(refusing);
  fireEvent.click(screen.getByRole("button", { name: "Keep it as a picture" }));
  expect((await screen.findByRole("alert")).textContent).toContain("room for another picture");
  expect(onClose).not.toHaveBeenCalled();
  expect(strokes()).toHaveLength(1);
  refusing.mockImplementation(async () => {});
  fireEvent.click(screen.getByRole("button", { name: "Keep it as a picture" }));
  await vi.waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(strokes()).toHaveLength(0);
  vi.unstubAllGlobals();
});
