import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { BaseChoice } from "./base-choice";
import { Making } from "./making";
import { FIRST_BOX, FIRST_TRACE, recipeFor, type SolidForm, traced } from "./recipe";
import { SolidSizes } from "./solid-sizes";

afterEach(cleanup);

const solid = (kind: SolidForm["kind"], more: Partial<SolidForm> = {}): SolidForm => ({
  base: "solid",
  kind,
  width_mm: 50,
  height_mm: 60,
  ...more,
});
const set = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe("a solid's sizes", () => {
  it("of a ball are one, both ways", () => {
    const heard = vi.fn();
    render(<SolidSizes solid={solid("sphere")} onSolid={heard} />);
    expect(screen.queryByLabelText("Height (mm)")).toBeNull();
    set("Width (mm)", "70");
    expect(heard).toHaveBeenCalledWith(solid("sphere", { width_mm: 70, height_mm: 70 }));
  });
  it("of an egg have a point, in percent, twenty until it is said", () => {
    const heard = vi.fn();
    render(<SolidSizes solid={solid("egg")} onSolid={heard} />);
    expect(screen.getByLabelText("Pointed (%)")).toHaveProperty("value", "20");
    set("Pointed (%)", "35");
    expect(heard).toHaveBeenCalledWith(solid("egg", { point: 0.35 }));
  });
  it("have an opening where the solid is open and has no rim of its own", () => {
    const heard = vi.fn();
    const { rerender } = render(<SolidSizes solid={solid("drop")} onSolid={heard} />);
    expect(screen.queryByLabelText("Opening (mm)")).toBeNull();
    rerender(<SolidSizes solid={solid("drop", { open: true, opening_mm: 22 })} onSolid={heard} />);
    set("Opening (mm)", "");
    expect(heard).toHaveBeenLastCalledWith(solid("drop", { open: true, opening_mm: null }));
    rerender(<SolidSizes solid={solid("dome", { open: true })} onSolid={heard} />);
    expect(screen.queryByLabelText("Opening (mm)")).toBeNull();
  });
  it("refuse nonsense and keep it in sight", () => {
    const heard = vi.fn();
    render(<SolidSizes solid={solid("cone")} onSolid={heard} />);
    set("Height (mm)", "tall");
    expect(screen.getByRole("alert").textContent).toContain("is no number");
    set("Height (mm)", "9999");
    expect(screen.getByRole("alert").textContent).toContain("from 5 to 600");
    expect(heard).not.toHaveBeenCalled();
  });
});

describe("how a shape is worked", () => {
  it("is said by the shape until she says it, and only what she says is kept", () => {
    const heard = vi.fn();
    const recipe = recipeFor("egg");
    render(<Making recipe={recipe} onRecipe={heard} start={7} />);
    expect(screen.getByText("The shape chooses 7.")).toBeTruthy();
    fireEvent.click(screen.getByLabelText("Stacked increases"));
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, shaping: { stacked: true } });
    set("Decrease with", "invdec");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, shaping: { decrease: "invdec" } });
    set("Start with", "chain2");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, start_kind: "chain2" });
    set("Start on (sts)", "8");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, start: 8 });
  });
  it("lies flat without filling, and is sewn through no more", () => {
    const heard = vi.fn();
    const recipe = { ...recipeFor("egg"), threads: [[0, 0, 1, 1, 1, 0, 9]] as never };
    render(<Making recipe={recipe} onRecipe={heard} start={6} />);
    set("Filling", "two");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, empty: true, one_layer: false, threads: [] });
    set("Filling", "one");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, empty: true, one_layer: true, threads: [] });
    cleanup();
    render(<Making recipe={{ ...recipe, empty: true, one_layer: true }} onRecipe={heard} start={6} />);
    expect(screen.getByLabelText<HTMLSelectElement>("Filling").value).toBe("one");
    set("Filling", "stuffed");
    expect(heard).toHaveBeenLastCalledWith({ ...recipe, empty: false, one_layer: false });
  });
  it("keeps the rest of the shaping", () => {
    const heard = vi.fn();
    const recipe = { ...recipeFor("egg"), shaping: { decrease: "invdec" as const, stacked: true } };
    render(<Making recipe={recipe} onRecipe={heard} start={6} />);
    fireEvent.click(screen.getByLabelText("Increase first"));
    expect(heard).toHaveBeenLastCalledWith({
      ...recipe,
      shaping: { decrease: "invdec", stacked: true, first: true },
    });
  });
});

describe("the base of a shape", () => {
  const chosen = () => screen.getByRole("radio", { checked: true });
  it("is shown, and chosen by its name", () => {
    const heard = vi.fn();
    render(<BaseChoice recipe={recipeFor("drop")} choosing={false} onBase={heard} />);
    expect(chosen()).toBe(screen.getByRole("radio", { name: "Drop" }));
    fireEvent.click(screen.getByRole("radio", { name: "Box" }));
    expect(heard).toHaveBeenCalledWith("box", undefined);
    fireEvent.click(screen.getByRole("radio", { name: "Egg" }));
    expect(heard).toHaveBeenLastCalledWith("solid", "egg");
  });
  it("is the mesh that is chosen, before there is one", () => {
    const { rerender } = render(<BaseChoice recipe={recipeFor("drop")} choosing onBase={vi.fn()} />);
    expect(chosen()).toBe(screen.getByRole("radio", { name: "Mesh" }));
    rerender(
      <BaseChoice recipe={{ ...recipeFor("drop"), form: FIRST_BOX }} choosing={false} onBase={vi.fn()} />,
    );
    expect(chosen()).toBe(screen.getByRole("radio", { name: "Box" }));
  });
});

it("an outline that says only its front has every list, empty", () => {
  const front: [number, number][] = [
    [0, 0],
    [20, 30],
    [0, 60],
  ];
  expect(traced({ base: "traced", front })).toEqual({ ...FIRST_TRACE, front });
});
