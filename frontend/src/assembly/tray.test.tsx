import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { type Page, proposed, type Step } from "./aim";
import { moveOf, Nudge } from "./nudge";
import { moved } from "./step-fields";
import { type Loose, PLACE_DRAG, Tray } from "./tray";

const design = {
  parts: [
    { key: "head", name: "Head", make: 1 },
    { key: "ear", name: "Ears", make: 2 },
    { key: "tail", name: "Tail", make: 1 },
  ],
} as unknown as Design;

const guess = { round: 12, stitch: 6, paired: true, tilt: 35, why: "ears sit just above the widest part" };
const LOOSE: Loose[] = [
  { part: "ear", host: "head", guess, many: 2 },
  { part: "tail", host: "head", guess: null, many: 1 },
];

function tray(loose: readonly Loose[] = LOOSE) {
  const onAim = vi.fn();
  const onPropose = vi.fn();
  render(<Tray design={design} loose={loose} aimed={null} onAim={onAim} onPropose={onPropose} />);
  return { onAim, onPropose };
}

describe("the tray", () => {
  it("names what is not placed, and is not there when all is", () => {
    tray();
    expect(screen.getByRole("region", { name: "Not placed yet" }).textContent).toContain("Ears × 2");
    expect(screen.queryByText("Place all where they mostly go")).toBeNull();
  });
  it("tells how many of a part have no place, where others have one", () => {
    tray([{ part: "ear", host: "head", guess: null, many: 1 }]);
    expect(screen.getByRole("region", { name: "Not placed yet" }).textContent).toContain("Ears · 1 of 2");
  });
  it("is gone when nothing is loose", () => {
    tray([]);
    expect(screen.queryByRole("region")).toBeNull();
  });
  it("aims a part, and puts it where it mostly goes", () => {
    const { onAim, onPropose } = tray();
    fireEvent.click(screen.getByRole("button", { name: /Point ?to where Tail goes/ }));
    fireEvent.click(screen.getByRole("button", { name: /R12 of Head: place Ears there/ }));
    expect(onAim).toHaveBeenCalledWith("tail");
    expect(onPropose).toHaveBeenCalledWith([LOOSE[0]]);
  });
  it("hands over which part is dragged", () => {
    tray();
    const setData = vi.fn();
    fireEvent.dragStart(screen.getAllByRole("listitem")[1] as HTMLElement, { dataTransfer: { setData } });
    expect(setData).toHaveBeenCalledWith(PLACE_DRAG, "part:tail");
  });
  it("places all that are guessed in one change, none without a guess", () => {
    const page = { steps: [{ key: "s1" }] } as unknown as Page;
    const steps = proposed(design, page, LOOSE).steps ?? [];
    expect(steps.map((s) => s.part)).toEqual([undefined, "ear"]);
    expect(steps[1]).toMatchObject({
      on: "head",
      round: 12,
      stitch: 6,
      paired: true,
      tilt: 35,
      fixing: "sewn",
    });
  });
});

describe("a part that is moved by keys", () => {
  const step = { round: 3, stitch: 4, tilt: 85, turn: 0 } as Step;
  const counts = [6, 12, 18, 9];
  it("goes a stitch or a round; with Shift it tilts and turns by five degrees", () => {
    expect([moveOf("ArrowLeft", false), moveOf("ArrowUp", false)]).toEqual([{ stitch: 1 }, { round: 1 }]);
    expect([moveOf("ArrowDown", true), moveOf("ArrowRight", true)]).toEqual([{ tilt: -5 }, { turn: -5 }]);
    expect(moveOf("Home", false)).toEqual({ middle: true });
    expect(moveOf("x", false)).toBeNull();
  });
  it("keeps its angle on another round, to the half stitch", () => {
    expect(moved(step, undefined, counts, { round: 1 })).toEqual({ round: 4, stitch: 2 });
    expect(moved(step, undefined, counts, { round: -1 })).toEqual({ round: 2, stitch: 2.5 });
  });
  it("stays on its host and goes around by the short way", () => {
    expect(moved({ ...step, round: 4 }, undefined, counts, { round: 1 })).toMatchObject({ round: 4 });
    expect(moved({ ...step, stitch: 9 }, undefined, counts, { stitch: 1 })).toEqual({ round: 3, stitch: -8 });
    expect(moved(step, undefined, counts, { tilt: 5 })).toEqual({ tilt: 90 });
    expect(moved({ ...step, tilt: 90 }, undefined, counts, { tilt: 5 })).toEqual({ tilt: 90 });
    expect(moved(step, undefined, counts, { middle: true })).toEqual({ round: 3, stitch: 0 });
  });
  it("goes to the viewer's other side for a left-hander", () => {
    const onMove = vi.fn();
    render(<Nudge mirrored onMove={onMove} />);
    fireEvent.click(screen.getByRole("button", { name: "A stitch to the left" }));
    fireEvent.keyDown(screen.getByRole("button", { name: "A round up" }), { key: "ArrowUp", shiftKey: true });
    expect(onMove.mock.calls.map(([m]) => m)).toEqual([{ stitch: -1 }, { tilt: 5 }]);
  });
});
