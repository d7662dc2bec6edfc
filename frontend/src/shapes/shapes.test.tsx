import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { FIRST_STACK, FIRST_TRACE, meshAt, recipeFor, recipeFrom, reshaped, withBase } from "./recipe";
import { StackFields } from "./stack";
import { added, found, moved, scaled, tallOf, without } from "./trace-points";
import { Sides } from "./views";

describe("handles of a traced outline", () => {
  it("go to whole millimetres; pole and closed end stay on the axis", () => {
    expect(moved(FIRST_TRACE, "front", 2, [35.4, 31.6]).front[2]).toEqual([35, 32]);
    expect(moved(FIRST_TRACE, "front", 0, [9, 9])).toBe(FIRST_TRACE);
    expect(moved(FIRST_TRACE, "front", 5, [12, 99]).front[5]).toEqual([0, 99]);
    expect(moved({ ...FIRST_TRACE, open: true }, "front", 5, [12, 99]).front[5]).toEqual([12, 99]);
    expect(moved(FIRST_TRACE, "front", 1, [-50, 8]).front[1]).toEqual([1, 8]);
  });
  it("never lie on a neighbour", () => {
    expect(moved(FIRST_TRACE, "front", 2, [22, 60])).toBe(FIRST_TRACE);
  });
  it("are added between two and taken away, but never the pole, the end or the last between them", () => {
    const more = added(FIRST_TRACE, "front", 1);
    expect(more.front).toHaveLength(7);
    expect(more.front[2]).toEqual([30, 20]);
    expect(without(more, "front", 2).front).toEqual(FIRST_TRACE.front);
    expect(without(FIRST_TRACE, "front", 0)).toBe(FIRST_TRACE);
    expect(without(FIRST_TRACE, "front", 5)).toBe(FIRST_TRACE);
    const few = { ...FIRST_TRACE, front: FIRST_TRACE.front.slice(0, 3) };
    expect(without(few, "front", 1)).toBe(few);
  });
  it("grow with their picture", () => {
    const backed = { ...FIRST_TRACE, picture: { number: 4, mm_per_px: 0.5, pole_x: 9, pole_y: 8 } };
    const large = scaled(backed, 2);
    expect(tallOf(large.front)).toBe(180);
    expect(large.picture).toEqual({ number: 4, mm_per_px: 1, pole_x: 9, pole_y: 8 });
  });
  it("come from a found outline at the height that the shape has", () => {
    const got = found(
      FIRST_TRACE,
      7,
      {
        handles: [
          [0, 0],
          [100, 150],
          [0, 300],
        ],
        pole: [200, 360],
      },
      90,
    );
    expect(got.front).toEqual([
      [0, 0],
      [30, 45],
      [0, 90],
    ]);
    expect(got.picture).toEqual({ number: 7, mm_per_px: 0.3, pole_x: 200, pole_y: 360 });
  });
});

describe("recipes", () => {
  const how = { start: 6, ease: 0.5, stacked: false, first: false, decrease: "dec", start_kind: "ring" };
  it("read back every base with its modifiers", () => {
    const bend = { kind: "bend", degrees: 30 };
    const traced = recipeFrom({ form: { ...FIRST_TRACE, modifiers: [bend] }, ...how });
    expect(traced?.form).toEqual(FIRST_TRACE);
    expect(traced?.modifiers).toEqual([bend]);
    const egg = { kind: "egg", height_mm: 90, width_mm: 70, open: false, opening_mm: null, point: 0.3 };
    const bent = recipeFrom({ form: { base: "solid", ...egg, modifiers: [bend] }, ...how });
    expect(bent).toMatchObject({ ...egg, form: null, modifiers: [bend], ease: 0.5 });
    expect(recipeFrom({ solid: egg, ...how })).toMatchObject({ ...egg, form: null, modifiers: [] });
    expect(recipeFrom({ solid: 5 })).toBeNull();
    expect(recipeFrom(null)).toBeNull();
  });
  it("keep how to draft on another base, and forget what was redrawn for the old shape", () => {
    const worked = { ...recipeFor("egg"), ease: 0.5, decrease: "invdec" as const, redrawn: { reach_mm: 1 } };
    expect(withBase(worked, "stack")).toMatchObject({ form: FIRST_STACK, ease: 0.5, decrease: "invdec" });
    expect(reshaped(worked, { width_mm: 50 })).toMatchObject({ width_mm: 50, redrawn: null });
    expect(meshAt({ base: "mesh", reach_mm: 50, corners: "", faces: "", pole: 0 }, 80, 100).reach_mm).toBe(
      40,
    );
  });
});

it("a stack grows on top, keeps balls round and never falls below two", () => {
  const change = vi.fn();
  render(<StackFields form={FIRST_STACK} onForm={change} />);
  fireEvent.click(screen.getByRole("button", { name: "One more on top" }));
  expect(change.mock.lastCall?.[0].solids).toHaveLength(3);
  fireEvent.change(screen.getAllByLabelText("Width (mm)")[0] as Element, { target: { value: "70" } });
  expect(change.mock.lastCall?.[0].solids[0]).toMatchObject({ width_mm: 70, height_mm: 70 });
  expect(screen.getByRole("button", { name: "Take 1 away" })).toHaveProperty("disabled", true);
});

it("a shape that is not round is drawn from two sides and said in millimetres", () => {
  render(
    <Sides
      sides={[
        [0, -10, 10, -5, 5],
        [20, -12, 12, -5, 9],
      ]}
      size={[24, 14, 20]}
    />,
  );
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain("24 mm wide, 14 mm deep, 20 mm tall");
});
