import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { AssemblySteps } from "./assembly-steps";
import { NetMark } from "./net-mark";
import { type Progress, piecesOf, progressOf } from "./progress";
import { RoundCard } from "./round-card";
import { rung, SHEET } from "./sheet.fixture";
import { Measure } from "./sheets/measure";
import { Note } from "./sheets/note";
import { Otherwise } from "./sheets/otherwise";
import { Overview } from "./sheets/overview";
import { RemarkSheet } from "./sheets/remark";
import { Report } from "./sheets/report";
import type { LogEvent, What } from "./types";
import type { MakingState } from "./use-making";

beforeAll(() => {
  // jsdom knows the element and not how it opens.
  HTMLDialogElement.prototype.showModal = function show(this: HTMLDialogElement) {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close(this: HTMLDialogElement) {
    this.open = false;
  };
});

function log(...said: Partial<LogEvent>[]): LogEvent[] {
  return said.map((e, i) => ({
    id: `e${i}`,
    device: "d",
    seq: i,
    at: 1_790_000_000_000 + i,
    ...e,
  })) as LogEvent[];
}

function state(events: LogEvent[] = [], more: object = {}) {
  const said: What[] = [];
  const progress: Progress = progressOf(events);
  const made = {
    row: {
      id: "m",
      token: "t",
      designer: "Lanternwick",
      making: {
        title: "First",
        edition: "Draft",
        sheet: { ...SHEET, yarns: [{ name: "Moss", colour: "", grams: 8 }], cautions: [], ...more },
        answers: [],
      },
    },
    events,
    progress,
    photos: new Map(),
    say: vi.fn(async (what: What) => {
      said.push(what);
      return true;
    }),
    photograph: vi.fn(async () => true),
  };
  return { made: made as unknown as MakingState, said };
}

const [ball] = piecesOf(SHEET);
const common = (made: MakingState) => ({ state: made, piece: ball ?? null, round: 1, onClose: vi.fn() });

describe("the round in hand", () => {
  const card = (more: object) => {
    const turned = { onStitches: vi.fn(), onTurn: vi.fn(), onBack: vi.fn() };
    const place = { part: "ball", piece: 1, done: 2, stitches: 3 };
    const made = {
      ...rung("R3", 18),
      before: ["Stuff."],
      ticks: [{ text: "sc, inc", times: 6, stitches: 3 }],
    };
    render(
      <RoundCard
        rung={made}
        place={place}
        number={2}
        elsewhere={false}
        clicks={false}
        last={5}
        {...turned}
        {...more}
      />,
    );
    return turned;
  };
  it("says what comes before it, and is ticked off piece by piece", async () => {
    const { onStitches } = card({});
    expect(screen.getByRole("list", { name: "Before this round" }).textContent).toBe("Stuff.");
    const boxes = within(screen.getByRole("list", { name: "Pieces of the round" })).getAllByRole("button");
    expect(boxes.map((b) => b.getAttribute("aria-pressed"))).toEqual(["true", ...Array(5).fill("false")]);
    await userEvent.click(boxes[2] as HTMLElement);
    expect(onStitches).toHaveBeenLastCalledWith(9);
    await userEvent.click(boxes[0] as HTMLElement);
    expect(onStitches).toHaveBeenLastCalledWith(0);
  });
  it("looked at from elsewhere, leads back and ticks nothing", async () => {
    const { onBack } = card({ elsewhere: true, number: 1 });
    expect(screen.queryByRole("list", { name: "Pieces of the round" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Done already. Back to the round in hand" }));
    expect(onBack).toHaveBeenCalled();
  });
});

describe("did otherwise", () => {
  it("is one tap for the usual", async () => {
    const { made, said } = state();
    render(<Otherwise {...common(made)} />);
    await userEvent.click(screen.getByRole("button", { name: "13 instead of 12" }));
    await userEvent.click(screen.getByRole("button", { name: "Left it out" }));
    expect(said).toEqual([
      { kind: "otherwise", part: "ball", piece: 1, round: 2, what: "count", many: 13, colour: "", text: "" },
      {
        kind: "otherwise",
        part: "ball",
        piece: 1,
        round: 2,
        what: "left-out",
        many: 0,
        colour: "",
        text: "",
      },
    ]);
  });
  it("takes no count that is none", async () => {
    const { made, said } = state();
    render(<Otherwise {...common(made)} />);
    await userEvent.type(screen.getByLabelText("It came to"), "many");
    expect(screen.getByRole("button", { name: "stitches" })).toHaveProperty("disabled", true);
    await userEvent.clear(screen.getByLabelText("It came to"));
    await userEvent.type(screen.getByLabelText("It came to"), "14");
    await userEvent.click(screen.getByRole("button", { name: "stitches" }));
    expect(said).toMatchObject([{ what: "count", many: 14 }]);
  });
  it("ripped back says which round is the last that stands", async () => {
    const { made, said } = state(log({ kind: "done", part: "ball", piece: 1, round: 2 }));
    render(<Otherwise {...common(made)} />);
    await userEvent.type(screen.getByLabelText("In words"), "Too tight");
    await userEvent.click(screen.getByRole("button", { name: "Ripped back: R1 is the last that stands" }));
    expect(said).toEqual([{ kind: "ripped", part: "ball", piece: 1, round: 1, text: "Too tight" }]);
  });
  it("has nothing to rip where nothing is done, and no round where all are", () => {
    const { made } = state();
    render(<Otherwise {...common(made)} />);
    expect(screen.queryByText(/Ripped back/)).toBeNull();
    render(<Otherwise {...common(made)} piece={null} />);
    expect(screen.getByText(/All rounds are worked/)).toBeTruthy();
  });
});

describe("a note", () => {
  it("says where it was written", async () => {
    const { made, said } = state();
    render(<Note {...common(made)} />);
    await userEvent.type(screen.getByLabelText("What is to be remembered"), "Soft");
    await userEvent.click(screen.getByRole("button", { name: "Keep the note" }));
    expect(said).toEqual([{ kind: "note", text: "Soft", part: "ball", round: 2 }]);
  });
  it("a picture that is too large is refused before it is kept", async () => {
    const { made } = state();
    render(<Note {...common(made)} />);
    const file = new File(["x"], "a.jpg", { type: "image/jpeg" });
    Object.defineProperty(file, "size", { value: 11 * 2 ** 20 });
    await userEvent.upload(screen.getByLabelText("Take a photograph, or choose one"), file);
    expect(screen.getByRole("alert").textContent).toContain("at most 10 MB; this one has 11");
    expect(made.photograph).not.toHaveBeenCalled();
  });
});

describe("measures", () => {
  it("are typed in cm and kept in mm, with a comma or a point", async () => {
    const { made, said } = state();
    render(<Measure {...common(made)} />);
    await userEvent.type(screen.getByLabelText("Height of the figure, cm"), "9,5{Enter}");
    await userEvent.type(screen.getByLabelText("Around ball at R2, cm"), "7.2{Enter}");
    await userEvent.type(screen.getByLabelText("Ball after working, g"), "41.5{Enter}");
    expect(said).toEqual([
      { kind: "measured", what: "height", mm: 95, part: "", round: 0 },
      { kind: "measured", what: "girth", mm: 72, part: "ball", round: 2 },
      { kind: "weighed", yarn: "Moss", grams: 41.5, after: true },
    ]);
  });
  it("that are none are said to be none, and stay as typed", async () => {
    const { made, said } = state();
    render(<Measure {...common(made)} />);
    await userEvent.type(screen.getByLabelText("Hook, mm"), "90{Enter}");
    expect(screen.getByText("A number from 0.4 to 40.")).toBeTruthy();
    expect(screen.getByLabelText("Hook, mm")).toHaveProperty("value", "90");
    expect(said).toEqual([]);
  });
});

describe("a tester", () => {
  const remarked = log({ kind: "remark", what: "unclear", part: "ball", round: 2, text: "Which?" });
  it("points at the round, or at the whole", async () => {
    const { made, said } = state();
    render(<RemarkSheet {...common(made)} />);
    await userEvent.click(screen.getByRole("button", { name: "Unclear" }));
    await userEvent.click(screen.getByRole("button", { name: "The whole pattern" }));
    await userEvent.click(screen.getByRole("button", { name: "I liked this" }));
    expect(said).toEqual([
      { kind: "remark", what: "unclear", text: "", part: "ball", round: 2 },
      { kind: "remark", what: "liked", text: "", part: "", round: 0 },
    ]);
  });
  it("reads what was answered, and takes a remark back", async () => {
    const { made, said } = state(remarked);
    made.row.making.answers = [{ event: "e0", state: "changed", text: "Says it now.", version: "1.1" }];
    render(<RemarkSheet {...common(made)} />);
    expect(screen.getByText("changed in version 1.1: Says it now.")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: /Take back/ }));
    expect(said).toEqual([{ kind: "withdrawn", event: "e0" }]);
  });
  it("reports what she used, with nothing made up for what she left empty", async () => {
    const { made, said } = state();
    render(<Report {...common(made)} />);
    await userEvent.type(screen.getByLabelText("Yarn that you used"), "Fennel Fields DK");
    await userEvent.type(screen.getByLabelText("Hours it took"), "2,5");
    await userEvent.click(screen.getByLabelText("My photographs may be shown"));
    await userEvent.click(screen.getByRole("button", { name: "Send the report" }));
    expect(said).toMatchObject([
      {
        kind: "report",
        yarn: "Fennel Fields DK",
        minutes: 150,
        weight: null,
        hook_mm: 0,
        across: 0,
        pictures: true,
        named: "",
      },
    ]);
  });
  it("is told which number is none, and cannot send it", async () => {
    const { made } = state();
    render(<Report {...common(made)} />);
    await userEvent.type(screen.getByLabelText("Hook, mm"), "four");
    expect(screen.getByRole("alert").textContent).toBe("A number from 0.4 to 40.");
    expect(screen.getByRole("button", { name: "Send the report" })).toHaveProperty("disabled", true);
  });
});

describe("the whole", () => {
  it("shows every piece with how far it is, and turns to those that are not done", async () => {
    const { made } = state(
      log(
        { kind: "done", part: "ball", piece: 1, round: 3 },
        { kind: "note", text: "Soft", part: "", round: 0 },
      ),
    );
    const onPiece = vi.fn();
    render(<Overview {...common(made)} pieces={piecesOf(SHEET)} onPiece={onPiece} />);
    expect(screen.getByRole("button", { name: "ball done" })).toHaveProperty("disabled", true);
    await userEvent.click(screen.getByRole("button", { name: "foot 2 of 2 0 of 2 rounds" }));
    expect(onPiece).toHaveBeenCalledWith(expect.objectContaining({ piece: 2 }));
    expect(screen.getByText("Last note: Soft")).toBeTruthy();
  });
  it("is put together step by step, with what is to be minded", async () => {
    const { made, said } = state([], { cautions: ["Small parts: not for a child under three."] });
    render(<AssemblySteps state={made} />);
    expect(screen.getByRole("list", { name: "Safety" }).textContent).toContain("under three");
    await userEvent.click(screen.getByRole("button", { name: "1. Sew." }));
    await userEvent.click(screen.getByRole("button", { name: "It is finished (1 step is not ticked off)" }));
    expect(said).toEqual([{ kind: "step", step: 1, undone: false }, { kind: "finished" }]);
  });
});

describe("the net", () => {
  it("says what waits, and what could not be taken and why", () => {
    render(
      <NetMark
        net={{ waiting: 3, outcome: { state: "offline" } }}
        refused={["The clock is not set."]}
        onTry={vi.fn()}
      />,
    );
    expect(screen.getByRole("status").textContent).toBe("3 wait");
    expect(screen.getByRole("alert").textContent).toBe("1 could not be taken: The clock is not set.");
  });
});
