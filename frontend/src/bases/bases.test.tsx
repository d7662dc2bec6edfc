import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import type { BaseNews, Comparison } from "./ask";
import { CutLadder } from "./cut-ladder";
import { News } from "./news";
import { Overlaid } from "./overlaid";

const mutate = vi.fn();
vi.mock("../design/design", () => ({ useAct: () => ({ mutate, isPending: false, error: null }) }));
let news: BaseNews;
vi.mock("./ask", () => ({ useBase: () => ({ data: news, error: null }) }));

afterEach(() => {
  cleanup();
  mutate.mockClear();
});

const change = (key: string, said: string, conflict: number | null, after: string[] = []) => ({
  ...{ key, said, conflict, after },
  part: said.split(":")[0] ?? null,
  before: [],
});
const NEWS: BaseNews = {
  id: 1,
  name: "Moth",
  taken: 4,
  now: 9,
  size: null,
  changes: [
    change("a0", "Leaf: new.", null),
    change("b1", "Shell: 1 line written otherwise.", null, ["R22-R30: sc around [15]"]),
    change("c2", "Feelers: 1 line written otherwise.", 0, ["R2-R5: sc around [4]"]),
  ],
  conflicts: [{ hers: [change("d3", "Feelers: 3 lines in place of 1 line.", 0, ["R2-R8: sc around [4]"])] }],
};
const COPY = { id: 7, revision: 3, origin: { id: 1, name: "Moth", revision: 4 } } as Design;
const button = (name: string) => screen.getByRole("button", { name });

describe("what is new in a base", () => {
  const shown = () => {
    news = NEWS;
    render(<News design={COPY} />);
  };
  const taken = () => mutate.mock.calls[0]?.[0].take;
  it("is chosen as far as it is in nobody's way, and taken with the step that was looked at", () => {
    shown();
    fireEvent.click(button("Take 2 of 3"));
    expect(taken()).toEqual({ take: ["a0", "b1"], now: 9, done: false });
  });
  it("is taken in a conflict only where she says so, and hers stays otherwise", () => {
    shown();
    const keep = screen.getByRole("radio", { name: /Keep yours/ });
    expect(keep).toHaveProperty("checked", true);
    fireEvent.click(screen.getByRole("radio", { name: /Take the base's/ }));
    fireEvent.click(screen.getByRole("checkbox", { name: "Leaf: new." }));
    fireEvent.click(button("Take 2 of 3"));
    expect(new Set(taken().take)).toEqual(new Set(["b1", "c2"]));
  });
  it("may be left for good", () => {
    shown();
    fireEvent.click(button("Choose none"));
    expect(button("Leave them all")).toHaveProperty("disabled", true);
    fireEvent.click(screen.getByRole("checkbox", { name: "Do not show the others again" }));
    fireEvent.click(button("Leave them all"));
    expect(taken()).toEqual({ take: [], now: 9, done: true });
  });
  it("is nothing where the base stands still, and says what a base is where there is none", () => {
    news = { ...NEWS, changes: [], conflicts: [] };
    const { rerender } = render(<News design={COPY} />);
    screen.getByText(/Nothing is new in Moth/);
    rerender(<News design={{ ...COPY, origin: null }} />);
    screen.getByText(/made from nothing else/);
    rerender(<News design={{ ...COPY, origin: { id: null, name: "Moth", revision: 4 } }} />);
    screen.getByText(/is not there any more/);
  });
});

describe("a ladder that is cut", () => {
  const ports = [6, 12, 18, 24].map((count, i) => ({
    ...{ part: "a", name: "Body", round: i + 1, count, girth_mm: count * 5 },
    ...{ end: false, joined: false, flat: false },
  }));
  const onChoose = vi.fn();
  const shown = (chosen: number) =>
    render(
      <CutLadder
        ports={ports}
        label="The last round that stays"
        side="below"
        chosen={chosen}
        widest={24}
        fits={(r) => r === 3}
        onChoose={onChoose}
      />,
    );
  afterEach(() => onChoose.mockClear());
  it.each([
    ["ArrowUp", 3],
    ["ArrowDown", 1],
    ["Home", 1],
    ["End", 4],
    ["PageUp", 4],
  ])("moves with %s", (key, to) => {
    shown(2);
    fireEvent.keyDown(screen.getByRole("listbox"), { key });
    expect(onChoose).toHaveBeenCalledExactlyOnceWith(to);
  });
  it("lights the rungs that fit, the last round on top", () => {
    shown(2);
    const options = within(screen.getByRole("listbox")).getAllByRole("option");
    expect(options.map((o) => o.textContent)).toEqual([
      "R424 stitches",
      "R318 stitches fits",
      "R212 stitches",
      "R16 stitches",
    ]);
    expect(options[2]?.getAttribute("aria-selected")).toBe("true");
  });
  it("is dragged", () => {
    shown(2);
    const [top, below] = within(screen.getByRole("listbox")).getAllByRole("option");
    fireEvent.pointerEnter(top as Element);
    expect(onChoose, "nothing is dragged yet").not.toHaveBeenCalled();
    fireEvent.pointerDown(below as Element);
    fireEvent.pointerEnter(top as Element);
    expect(onChoose.mock.calls).toEqual([[3], [4]]);
    fireEvent.pointerUp(screen.getByRole("listbox"));
    fireEvent.pointerEnter(below as Element);
    expect(onChoose).toHaveBeenCalledTimes(2);
  });
});

describe("two ladders over each other", () => {
  it("draw what is there as an outline and what is here filled", () => {
    const round = (label: string, count: number) => ({ label, count });
    const rounds: Comparison["parts"][number]["rounds"] = [
      { a: round("R1", 6), b: round("R1", 6), same: true },
      { a: round("R2", 12), b: round("R2", 18), same: false },
      { a: null, b: round("R3", 18), same: false },
      { a: round("R3", 12), b: null, same: false },
    ];
    const { container } = render(<Overlaid rounds={rounds} label="Body" />);
    const rows = [...container.querySelectorAll("g")].map((g) => g.querySelectorAll("rect").length);
    expect(rows).toEqual([1, 2, 1, 1]);
    const fills = [...container.querySelectorAll("rect")].map((r) => r.getAttribute("fill"));
    expect(fills).toEqual(["var(--sunk)", "var(--woad)", "none", "var(--moss)", "none"]);
  });
});
