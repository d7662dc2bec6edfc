import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import type { ReactElement } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Settled } from "../figure/settled";
import type { Settling } from "../figure/use-settled";
import { Fit } from "./fit";
import { Flat } from "./flat";
import {
  FIRST_BOX,
  FIRST_STACK,
  FIRST_TRACE,
  type Form,
  type Modifier,
  meshAt,
  onlyBent,
  type Recipe,
  recipeFor,
  recipeFrom,
  reshaped,
  type Traced,
  withBase,
} from "./recipe";
import { pathOf, Section } from "./section";
import { differs, SettledSize } from "./settled-size";
import { StackFields } from "./stack";
import { Board } from "./trace-board";
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
  it("of rounds are followed, panels are not", () => {
    const egg = recipeFor("egg");
    expect(recipeFrom(egg)).toBe(egg);
    expect(recipeFrom({ kind: "panel", panel: "Front", form: FIRST_BOX })).toBeNull();
    expect(recipeFrom(null)).toBeNull();
  });
  it("keep how to draft on another base, and forget what was redrawn for the old shape", () => {
    const worked: Recipe = {
      ...recipeFor("egg"),
      simplicity: 0.5,
      shaping: { decrease: "invdec" },
      redrawn: { reach_mm: 1, corners: "", faces: "", pole: 0 },
      threads: [[0, 0, 1, 0, 9]],
    };
    expect(withBase(worked, "stack")).toMatchObject({
      form: FIRST_STACK,
      simplicity: 0.5,
      shaping: { decrease: "invdec" },
    });
    expect(reshaped(worked, FIRST_BOX)).toMatchObject({ form: FIRST_BOX, redrawn: null, threads: [] });
    expect(meshAt({ base: "mesh", reach_mm: 50, corners: "", faces: "", pole: 0 }, 80, 100).reach_mm).toBe(
      40,
    );
  });
});

it("short rows are offered where a bend is all that is done to a round body", () => {
  const bend = { kind: "bend" as const, degrees: 40 };
  const bent = (form: Form, more: Modifier[] = []): Recipe => ({
    ...recipeFor("capsule"),
    form: { ...form, modifiers: [bend, ...more] },
  });
  expect(onlyBent(bent(recipeFor("capsule").form))).toBe(true);
  expect(onlyBent(bent(recipeFor("capsule").form, [{ kind: "taper", amount: 3 }]))).toBe(false);
  expect(onlyBent(recipeFor("capsule"))).toBe(false);
  expect(onlyBent(bent(FIRST_TRACE))).toBe(true);
  expect(onlyBent(bent({ ...FIRST_TRACE, side: FIRST_TRACE.front }))).toBe(false);
  expect(onlyBent(bent({ ...FIRST_TRACE, axis: [[9, 40]] }))).toBe(false);
  expect(onlyBent(bent(FIRST_BOX))).toBe(false);
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

afterEach(() => vi.unstubAllGlobals());

function inStudio(shown: ReactElement) {
  return render(<QueryClientProvider client={new QueryClient()}>{shown}</QueryClientProvider>);
}

function settling(more: Partial<Settling> = {}): Settling {
  return { settled: null, before: null, way: null, problem: null, cancel: () => {}, ...more };
}

function off(rms_mm: number, rms_w: number, volume_ratio = 1): Settling {
  return settling({ settled: { error: { rms_mm, rms_w, volume_ratio } } as unknown as Settled });
}

describe("how near a shape settles", () => {
  const question = { recipe: {}, gauge: {}, terms: "us" } as never;
  const shown = (now: Settling, more: object = {}) =>
    inStudio(
      <Fit
        settling={now}
        question={question}
        compensated={false}
        onRedrawn={() => {}}
        threads={[]}
        onThreads={() => {}}
        {...more}
      />,
    );
  it("is told in mm, in stitches and by volume", () => {
    shown(off(1.26, 0.224, 0.96));
    expect(screen.getByTestId("fit").textContent).toContain(
      "Settles 1.3 mm off the shape (0.22 of a stitch), volume −4 %.",
    );
    expect(screen.queryByText(/rounds this shape out/)).toBeNull();
    expect(screen.queryByRole("button", { name: "Keep it flat" })).toBeNull();
  });
  it("says what the trade does where stuffing rounds a shape out", () => {
    shown(off(5, 0.9));
    expect(screen.getByText(/Sew threads through it, fill it less/)).toBeTruthy();
    expect(screen.getByRole("button", { name: "Keep it flat" })).toBeTruthy();
  });
  it("is not offered to be mended before it is known, and says why it can't be", () => {
    shown(settling({ problem: "The shape divides into 2." }));
    expect(screen.getByRole("alert").textContent).toBe("The shape divides into 2.");
    expect(screen.getByRole("button", { name: "Compensate" })).toHaveProperty("disabled", true);
  });
  it("says nothing of volume or filling of what takes none, and redraws no rows", () => {
    const one = { ...(question as object), recipe: { empty: true, one_layer: true } };
    shown(off(5, 0.9), { question: one, disc: 40 });
    expect(screen.getByTestId("fit").textContent).toContain("(0.90 of a stitch).");
    expect(screen.queryByText(/rounds this shape out|stiff disc/)).toBeNull();
    expect(screen.queryByRole("button")).toBeNull();
  });
  it("names the disc that keeps a flat end flat", () => {
    shown(off(2, 0.4), { disc: 41.6 });
    expect(screen.getByText(/A stiff disc of 42 mm inside keeps it flat/)).toBeTruthy();
  });
  it("can be taken back when it was redrawn, or sewn through", () => {
    const onRedrawn = vi.fn();
    const onThreads = vi.fn();
    shown(off(1, 0.2), { compensated: true, onRedrawn, threads: [[0.5, 0, 0.5, 0.5, 40]], onThreads });
    fireEvent.click(screen.getByRole("button", { name: "Take it back" }));
    expect(onRedrawn).toHaveBeenCalledWith(null);
    fireEvent.click(screen.getByRole("button", { name: "Without threads" }));
    expect(onThreads).toHaveBeenCalledWith([]);
  });
});

describe("the cross-section of a traced shape", () => {
  const bring = async (section: number[] | null) => {
    const onForm = vi.fn();
    vi.stubGlobal("fetch", () =>
      Promise.resolve(Response.json({ handles: [], pole: [0, 0], section, notes: [] })),
    );
    inStudio(<Section form={FIRST_TRACE} onForm={onForm} />);
    const file = new File(["<svg/>"], "a.svg", { type: "image/svg+xml" });
    fireEvent.change(screen.getByLabelText("Drawing of the cross-section"), { target: { files: [file] } });
    return onForm;
  };
  it("is a circle until a drawing is brought in", async () => {
    const onForm = await bring([1, 0.5, 1, 0.5, 1, 0.5, 1, 0.5]);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe("Cross-section: a circle");
    await vi.waitFor(() => expect(onForm).toHaveBeenCalled());
    expect(onForm.mock.lastCall?.[0].section).toHaveLength(8);
  });
  it("is refused where the drawing is none", async () => {
    const onForm = await bring(null);
    expect((await screen.findByRole("alert")).textContent).toContain("no cross-section");
    expect(onForm).not.toHaveBeenCalled();
  });
  it("is drawn with its front below, and can be made round again", () => {
    expect(pathOf([1, 0.5, 0.5, 0.5])).toMatch(/^M-?0\.00 20\.00L-10\.00 /);
    const onForm = vi.fn();
    inStudio(<Section form={{ ...FIRST_TRACE, section: [1, 1, 1, 1, 1, 1, 1, 1] }} onForm={onForm} />);
    fireEvent.click(screen.getByRole("button", { name: "Round again" }));
    expect(onForm).toHaveBeenCalledWith(FIRST_TRACE);
  });
});

describe("what keeps a shape flat", () => {
  const thread = [0.5, 0, 0.5, 0.5, 24];
  const way = (threads: number[][], rms_w: number, firmness = 0.5) => ({
    threads,
    firmness,
    error: { rms_mm: rms_w * 5.6, rms_w, volume_ratio: 1.1 },
  });
  const told = (ways: object[]) => {
    const job = { id: 3, state: "done", progress: 100, error: "" };
    vi.stubGlobal("fetch", (request: Request) =>
      Promise.resolve(Response.json(request.url.endsWith("/answer") ? { job: "flat", ways } : job)),
    );
  };
  const asked = () => {
    const onThreads = vi.fn();
    inStudio(<Flat question={{ recipe: {}, gauge: {} } as never} threads={[]} onThreads={onThreads} />);
    fireEvent.click(screen.getByRole("button", { name: "Keep it flat" }));
    return onThreads;
  };
  it("is told side by side, and taken with one press", async () => {
    told([way([], 0.96), way([thread, thread], 0.48), way([], 0.91, 0)]);
    const onThreads = asked();
    fireEvent.click(await screen.findByRole("button", { name: "Take: 2 threads sewn through" }));
    expect(onThreads).toHaveBeenCalledWith([thread, thread]);
  });
  it("says why it could not be tried", async () => {
    const failed = { id: 3, state: "failed", progress: 0, error: "The shape divides into 2." };
    vi.stubGlobal("fetch", () => Promise.resolve(Response.json(failed)));
    asked();
    expect((await screen.findByRole("alert")).textContent).toBe("The shape divides into 2.");
  });
  it("names the danger of a thread, and says when none would help", async () => {
    told([way([], 0.5), way([], 0.49, 0)]);
    asked();
    expect(await screen.findByText(/It bulges nowhere that threads would hold back/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Take/ })).toBeNull();
    expect(screen.getByText("soft filling")).toBeTruthy();
  });
});

describe("the board of a traced outline", () => {
  const nothing = () => {};
  const board = (form: Traced, more: object = {}) => {
    const onForm = vi.fn();
    const onBack = vi.fn();
    inStudio(
      <Board
        design={{ id: 1 } as never}
        form={form}
        line="front"
        curve={[]}
        focused={null}
        onFocus={nothing}
        onForm={onForm}
        onBack={onBack}
        measuring={false}
        length={null}
        onLength={nothing}
        {...more}
      />,
    );
    return { onForm, onBack, handles: screen.getAllByRole("slider") };
  };
  it("names every handle and where it lies", () => {
    const { handles } = board(FIRST_TRACE);
    expect(handles.map((h) => h.getAttribute("aria-label"))).toEqual([
      "Start pole",
      "Handle 1",
      "Handle 2",
      "Handle 3",
      "Handle 4",
      "End",
    ]);
    expect(handles[1]?.getAttribute("aria-valuetext")).toBe("26 mm from the middle, 8 mm up");
  });
  it("is worked with keys: arrows move, Delete removes, + adds, Ctrl+Z takes back", () => {
    const { handles, onForm, onBack } = board(FIRST_TRACE);
    const second = handles[2] as Element;
    fireEvent.keyDown(second, { key: "ArrowRight" });
    expect(onForm.mock.lastCall?.[0].front[2]).toEqual([35, 32]);
    fireEvent.keyDown(second, { key: "ArrowDown", shiftKey: true });
    expect(onForm.mock.lastCall?.[0].front[2]).toEqual([34, 22]);
    fireEvent.keyDown(second, { key: "Delete" });
    expect(onForm.mock.lastCall?.[0].front).toHaveLength(5);
    fireEvent.keyDown(second, { key: "+" });
    expect(onForm.mock.lastCall?.[0].front).toHaveLength(7);
    fireEvent.keyDown(second, { key: "z", ctrlKey: true });
    expect(onBack).toHaveBeenCalledOnce();
    const before = onForm.mock.calls.length;
    fireEvent.keyDown(second, { key: "q" });
    expect(onForm.mock.calls.length).toBe(before);
  });
});

describe("what a typed size settles to", () => {
  const settled = (height_mm: number, width_mm: number) =>
    ({ measures: { height_mm, width_mm } }) as unknown as Settled;
  it("is said at once where it falls short", () => {
    render(<SettledSize size={[72, 72, 72]} settled={settled(65, 73)} />);
    expect(screen.getByRole("status").textContent).toBe(
      "Settles to 65 mm high and 73 mm wide: 7 mm lower than the shape. Compensate redraws it to come nearer.",
    );
  });
  it("is told plainly where it is met", () => {
    cleanup();
    render(<SettledSize size={[40, 40, 40]} settled={settled(39.5, 41)} />);
    expect(screen.getByRole("status").textContent).toMatch(/as the shape asks/);
  });
  it("allows what fabric allows: 3 in a hundred, or a millimetre and a half", () => {
    expect(differs(100, 97.1, "lower", "higher")).toBeNull();
    expect(differs(100, 96.9, "lower", "higher")).toBe("3 mm lower");
    expect(differs(20, 21.4, "lower", "higher")).toBeNull();
    expect(differs(20, 21.6, "lower", "higher")).toBe("2 mm higher");
  });
});
