import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { FRESH, type Step } from "./aim";
import { Bends } from "./bends";

const design = {
  parts: [
    { key: "arm", name: "Arms", make: 2, counts: Array(20).fill(9) },
    { key: "nose", name: "Nose", make: 1, counts: [6, 6] },
  ],
} as unknown as Design;

function bends(step: Partial<Step> = {}) {
  const set = vi.fn();
  render(<Bends design={design} step={{ ...FRESH, key: "s", part: "arm", ...step }} set={set} />);
  return set;
}

describe("the wire in a limb", () => {
  it("is bent at the middle of it first", () => {
    const set = bends();
    fireEvent.click(screen.getByRole("button", { name: "Bend the wire in it" }));
    expect(set).toHaveBeenCalledWith({ bends: [{ round: 10, degrees: 45, towards: "front" }] });
  });
  it("changes one bend and leaves the others", () => {
    const two = [
      { round: 14, degrees: 30, towards: "up" as const },
      { round: 6, degrees: 60, towards: "in" as const },
    ];
    const set = bends({ bends: two });
    fireEvent.change(screen.getAllByLabelText("Bent")[1] as HTMLElement, { target: { value: "back" } });
    expect(set).toHaveBeenLastCalledWith({ bends: [two[0], { ...two[1], towards: "back" }] });
    fireEvent.change(screen.getAllByLabelText(/Bent by/)[0] as HTMLElement, { target: { value: "75" } });
    expect(set).toHaveBeenLastCalledWith({ bends: [{ ...two[0], degrees: 75 }, two[1]] });
    fireEvent.click(screen.getByRole("button", { name: "Straighten at round 14" }));
    expect(set).toHaveBeenLastCalledWith({ bends: [two[1]] });
  });
  it("is bent in four places at most, and not in a part of two rounds", () => {
    bends({ bends: Array.from({ length: 4 }, (_, k) => ({ round: k + 2, degrees: 20, towards: "front" })) });
    expect(screen.queryByRole("button", { name: "Bend the wire in it" })).toBeNull();
    bends({ part: "nose" });
    expect(screen.queryByRole("button", { name: "Bend the wire in it" })).toBeNull();
  });
});
