import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { Face } from "./face";

afterEach(cleanup);

const DESIGN = {
  parts: [
    { key: "p1", name: "Body" },
    { key: "p2", name: "Muzzle" },
  ],
} as Design;
type Page = Design["assembly"];
const MARK = {
  key: "m1",
  name: "brow",
  part: "p1",
  round: 9,
  stitch: 2.5,
  paired: true,
  to_round: 12,
  to_stitch: 4,
};

const shown = (value: Partial<Page>, aimed: string | null = null) => {
  const change = vi.fn();
  const aim = vi.fn();
  render(<Face design={DESIGN} value={value as Page} change={change} aimed={aimed} onAim={aim} />);
  const fold = screen.getByRole("button", { name: /^Face/ });
  if (fold.getAttribute("aria-expanded") === "false") fireEvent.click(fold);
  return { change, aim };
};
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

it("a new point is a nose on the part that has the eyes", () => {
  const { change } = shown({ eyes: { part: "p2", round: 6, between: 5 } });
  fireEvent.click(screen.getByRole("button", { name: "Add a point to embroider" }));
  expect(change.mock.calls[0]?.[0].marks).toMatchObject([{ name: "nose", part: "p2", to_round: null }]);
});

it("a line has a second place, and only a line has it", () => {
  const { change } = shown({ marks: [MARK] });
  type("and from the front (sts)", "-3.5");
  expect(change).toHaveBeenLastCalledWith({ marks: [{ ...MARK, to_stitch: -3.5 }] });
  type("line to round", "");
  expect(change).toHaveBeenLastCalledWith({ marks: [{ ...MARK, to_round: null }] });
  cleanup();
  shown({ marks: [{ ...MARK, to_round: null }] });
  expect(screen.queryByLabelText("and from the front (sts)")).toBeNull();
});

it("a change touches its own point; another stays as it is", () => {
  const other = { ...MARK, key: "m2", name: "nose" };
  const { change, aim } = shown({ marks: [MARK, other] }, "m2");
  type("Point 2", "snout");
  expect(change).toHaveBeenLastCalledWith({ marks: [MARK, { ...other, name: "snout" }] });
  const points = screen.getAllByRole("button", { name: "Point" });
  expect(points.map((b) => b.getAttribute("aria-pressed"))).toEqual(["false", "true"]);
  fireEvent.click(points[0] as HTMLElement);
  expect(aim).toHaveBeenCalledWith("m1");
  fireEvent.click(screen.getByRole("button", { name: "Remove point 1" }));
  expect(change).toHaveBeenLastCalledWith({ marks: [other] });
});

it("nonsense in a place is said there and changes nothing", () => {
  const { change } = shown({ marks: [MARK] });
  type("at round", "zero");
  expect(screen.getByRole("alert").textContent).toContain("is no number");
  type("at round", "0");
  expect(screen.getByRole("alert").textContent).toContain("from 1 to 2000");
  expect(change).not.toHaveBeenCalled();
});

it("without a part there is nothing to embroider on", () => {
  render(
    <Face
      design={{ parts: [] as Design["parts"] } as Design}
      value={{} as Page}
      change={vi.fn()}
      aimed={null}
      onAim={vi.fn()}
    />,
  );
  expect(screen.getByRole("button", { name: "Add a point to embroider" })).toHaveProperty("disabled", true);
});
