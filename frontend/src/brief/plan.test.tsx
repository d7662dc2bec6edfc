import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { between, PictureBoard, sizeOf } from "./picture-board";
import { Plan, type Planned, stateOf, within } from "./plan";

afterEach(cleanup);

const PICTURE = { id: 7, url: "/p.png", width: 400, height: 800 };
const planned = (part: string | null = null, more: Partial<Planned> = {}): Planned => ({
  key: "a1b2c3d4",
  name: "Head",
  make: 1,
  solid: "sphere",
  open: false,
  empty: false,
  wide_mm: 45,
  tall_mm: 44,
  box: null,
  part,
  ...more,
});
const DESIGN = {
  id: 3,
  parts: [
    { key: "ok", name: "Head", counts: [6, 12], faults: 0 },
    { key: "bad", name: "Body", counts: [6, 12], faults: 2 },
    { key: "bare", name: "Tail", counts: [], faults: 0 },
  ],
} as unknown as Design;

describe("sizes of boxes on a picture", () => {
  const head = { picture: 7, left: 0.25, top: 0.1, wide: 0.5, tall: 0.3 };
  const body = { picture: 7, left: 0.2, top: 0.4, wide: 0.6, tall: 0.5 };
  it("all together are as tall as the figure", () => {
    const both = [head, body];
    // From 10 % to 90 % of 800 pixels are 640, which are 160 mm.
    expect(sizeOf(head, both, PICTURE, 160)).toEqual({ wide: 50, tall: 60 });
    expect(sizeOf(body, both, PICTURE, 160).tall).toBeCloseTo(100);
    expect(sizeOf(head, [head], PICTURE, 160).tall).toBeCloseTo(160);
  });
  it("are sizes that a part can have", () => {
    expect([within(1.2), within(44.6), within(9_999)]).toEqual([5, 45, 600]);
  });
  it("a box is drawn from any corner to any other", () => {
    const found = between({ x: 0.75, y: 0.25 }, { x: 0.25, y: 0.5 });
    expect(found).toEqual({ left: 0.25, top: 0.25, wide: 0.5, tall: 0.25 });
  });
});

describe("a picture", () => {
  it("takes a drag for a box, and a click for none", () => {
    const drawn = vi.fn();
    render(<PictureBoard picture={PICTURE} alt="Reference 1" plan={[]} onDrawn={drawn} />);
    const board = screen.getByAltText("Reference 1").parentElement as HTMLElement;
    board.setPointerCapture = () => {};
    board.getBoundingClientRect = () => ({ left: 0, top: 0, width: 200, height: 400 }) as DOMRect;
    const at = (x: number, y: number) => ({ clientX: x, clientY: y, button: 0, pointerId: 1 });
    fireEvent.pointerDown(board, at(20, 40));
    fireEvent.pointerUp(board, at(21, 40));
    expect(drawn).not.toHaveBeenCalled();
    fireEvent.pointerDown(board, at(20, 40));
    fireEvent.pointerMove(board, at(120, 240));
    fireEvent.pointerUp(board, at(120, 240));
    expect(drawn).toHaveBeenCalledExactlyOnceWith({ picture: 7, left: 0.1, top: 0.1, wide: 0.5, tall: 0.5 });
  });
});

describe("a plan", () => {
  it("knows how far each part is", () => {
    const states = [null, "ok", "bad", "bare", "gone"].map((key) => stateOf(DESIGN, planned(key)));
    expect(states).toEqual(["planned", "adds up", "faults", "drafted", "planned"]);
  });
  it("lists parts, changes its own, and counts what is begun", () => {
    const heard = vi.fn();
    const plan = [planned("ok"), planned(null, { key: "ffffffff", name: "Arm", make: 2 })];
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <Plan design={DESIGN} plan={plan} onPlan={heard} />
        </MemoryRouter>
      </QueryClientProvider>,
    );
    expect(screen.getByText("1 of 2 begun")).toBeTruthy();
    expect(screen.getByRole("link", { name: "Its rounds" }).getAttribute("href")).toContain("part=ok");
    fireEvent.change(screen.getByLabelText("wide (mm)"), { target: { value: "52" } });
    expect(heard.mock.lastCall?.[0][1]).toMatchObject({ name: "Arm", wide_mm: 52 });
    expect(heard.mock.lastCall?.[0][0]).toBe(plan[0]);
    fireEvent.click(screen.getByRole("button", { name: "Take part 1 off the plan" }));
    expect(heard.mock.lastCall?.[0]).toEqual([plan[1]]);
    fireEvent.click(screen.getByRole("button", { name: "Add a part to the plan" }));
    expect(heard.mock.lastCall?.[0]).toHaveLength(3);
  });
});
