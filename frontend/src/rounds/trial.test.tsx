import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { Preview, Question } from "./ask";
import { Divide, StartOn, Stripes } from "./shaping-dialogs";
import { type Trial, TrialBar, told } from "./trial";

const preview = (rounds: number, stitches: number, height: number, faults = 0) =>
  ({
    part: { rounds: Array.from({ length: rounds }) },
    size: { stitches, height: { value: height } },
    problems: Array.from({ length: faults }, () => ({ severity: "fault" })),
  }) as unknown as Preview;

const trial = (text: string, after: Preview): Trial => ({
  name: "Draw the end in and close it",
  question: { text } as Question,
  preview: after,
  was: "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nLeave a long tail for sewing.",
});

test("what a change does is told in lines, rounds, stitches and height", () => {
  const closed = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: dec x 6 [6]\nFasten off and close.";
  const said = told(trial(closed, preview(3, 24, 31)), preview(2, 18, 24));
  expect(said).toBe("2 lines new, 1 gone, 2 → 3 rounds, 18 → 24 stitches, ≈ 2.4 cm → 3.1 cm tall");
});

test("equal lines are counted as often as they stand there", () => {
  const twice = { ...trial("a\na\na", preview(1, 1, 1)), was: "a\na" };
  expect(told(twice, preview(1, 1, 1))).toContain("1 line new, 0 gone, 1 rounds as before");
});

test("faults that it would make are told", () => {
  expect(told(trial("R1: 6 sc", preview(2, 18, 24, 2)), preview(2, 18, 24))).toContain("2 faults");
});

test("Enter keeps and Escape leaves", async () => {
  const keep = vi.fn();
  const leave = vi.fn();
  render(<TrialBar trial={trial("x", preview(1, 6, 5))} now={null} onKeep={keep} onLeave={leave} />);
  const button = screen.getByRole("button", { name: "Keep it" });
  await vi.waitFor(() => expect(document.activeElement).toBe(button));
  fireEvent.click(button);
  fireEvent.keyDown(button, { key: "Escape" });
  expect([keep.mock.calls.length, leave.mock.calls.length]).toEqual([1, 1]);
});

test("stripes need two colours", () => {
  const laid = vi.fn();
  const dialog = (yarns: string[]) => (
    <Stripes open onClose={vi.fn()} where="R2 to R5" yarns={yarns} onStripes={laid} />
  );
  const { unmount } = render(dialog(["Oat"]));
  expect(screen.getByText(/one yarn only/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Look at them" })).toHaveProperty("disabled", true);
  unmount();
  render(dialog(["Oat", "Moss", "Plum"]));
  fireEvent.click(screen.getByRole("button", { name: "One stripe more" }));
  fireEvent.click(screen.getByRole("button", { name: "Look at them" }));
  expect(laid).toHaveBeenCalledWith(["Oat", "Moss", "Plum"], 2);
});

test("legs bring the start back unless she says no", () => {
  const legs = vi.fn();
  render(<Divide open onClose={vi.fn()} after="R7" live={24} back={3} onLegs={legs} />);
  fireEvent.click(screen.getByRole("button", { name: "Look at them" }));
  expect(legs).toHaveBeenCalledWith(6, 3, 0);
});

test("chains between the legs make each of them so much wider, and it is said", () => {
  const legs = vi.fn();
  render(<Divide open onClose={vi.fn()} after="R7" live={24} back={0} onLegs={legs} />);
  const field = screen.getByLabelText("Chains between them");
  fireEvent.change(field, { target: { value: "3" } });
  fireEvent.blur(field);
  expect(screen.getByText(/its own side of the 3 chains: 15 in all/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Look at them" }));
  expect(legs).toHaveBeenCalledWith(6, 0, 3);
});

test("a start on the count that it has is no change", () => {
  const count = vi.fn();
  render(<StartOn open onClose={vi.fn()} now={6} onCount={count} />);
  const field = screen.getByLabelText("Stitches in the ring");
  fireEvent.change(field, { target: { value: "6" } });
  fireEvent.blur(field);
  expect(screen.getByRole("button", { name: "Look at it" })).toHaveProperty("disabled", true);
  fireEvent.change(field, { target: { value: "8" } });
  fireEvent.blur(field);
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  expect(count).toHaveBeenCalledWith(8);
});
