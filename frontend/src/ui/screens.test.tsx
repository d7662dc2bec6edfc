import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Door } from "../accounts/door";
import { Sections } from "../booklet/sections";
import { PageRefusal, SaveMark } from "../design/save-state";
import { Thread } from "../design/thread";
import { Silhouette } from "../figure/silhouette";
import type { Preview, Problem } from "../rounds/ask";
import { ProblemList, roundFaults } from "../rounds/problems";
import { Outline } from "../shapes/outline";
import { solidOf } from "../shapes/recipe";
import { Shelf } from "../shelf/shelf";
import { Keys, matching, useCommands } from "./keys";
import { Guess, Overlays, useSay } from "./overlays";

type Reply = { status: number; body: unknown };
let replies: Record<string, Reply> = {};
const asked: string[] = [];

beforeEach(() => {
  asked.length = 0;
  replies = {};
  vi.stubGlobal("fetch", async (request: Request) => {
    const name = `${request.method} ${new URL(request.url).pathname}`;
    asked.push(name);
    const { status, body } = replies[name] ?? {
      status: 404,
      body: { type: "x", title: "x", status: 404, detail: "Nothing here." },
    };
    return new Response(status === 204 ? null : JSON.stringify(body), {
      status,
      headers: { "Content-Type": "application/json" },
    });
  });
});
afterEach(() => vi.unstubAllGlobals());

function Frame({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <Overlays>
        <MemoryRouter initialEntries={["/designs/3/rounds"]}>
          <Keys>
            <Routes>
              <Route path="/designs/:id/:stop" element={children} />
              <Route path="*" element={<p>Elsewhere</p>} />
            </Routes>
          </Keys>
        </MemoryRouter>
      </Overlays>
    </QueryClientProvider>
  );
}

const shown = (what: ReactNode) => render(what, { wrapper: Frame });

describe("the door", () => {
  it("shows a refusal at the field it belongs to", async () => {
    replies["POST /api/session"] = {
      status: 422,
      body: {
        type: "/problems/invalid",
        title: "invalid",
        status: 422,
        detail: "Name and password do not go together.",
        field: "password",
      },
    };
    shown(<Door demo />);
    expect(screen.getByText(/glow-by-night/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText("Name"), "fern");
    await userEvent.type(screen.getByLabelText("Password"), "wrong");
    await userEvent.click(screen.getByRole("button", { name: "Sign in" }));
    const alert = await screen.findByRole("alert");
    expect(screen.getByLabelText("Password").getAttribute("aria-describedby")).toBe(alert.id);
    await userEvent.click(screen.getByRole("button", { name: "Make a new studio" }));
    expect(screen.queryByRole("alert")).toBeNull();
    expect(screen.getByLabelText("Studio")).toBeTruthy();
    expect(screen.queryByText(/glow-by-night/)).toBeNull();
  });
});

describe("the shelf", () => {
  const row = {
    id: 3,
    name: "Moth",
    changed: "2026-01-01T00:00:00Z",
    parts: 2,
    rounds: 20,
    stitches: 1234,
    faults: 0,
    audience: "play",
    origin: null,
    revision: 4,
  };
  it("offers the next step when it is empty", async () => {
    replies["GET /api/designs"] = { status: 200, body: [] };
    shown(<Shelf />);
    await userEvent.click(await screen.findByRole("button", { name: "Start a design" }));
    expect(screen.getByRole("dialog", { name: "A new design" })).toBeTruthy();
  });
  it("tells faults in words, and asks before it removes", async () => {
    replies["GET /api/designs"] = {
      status: 200,
      body: [
        row,
        { ...row, id: 4, name: "Bat", faults: 2 },
        { ...row, id: 5, name: "Egg", parts: 0, rounds: 0 },
      ],
    };
    replies["DELETE /api/designs/3"] = { status: 204, body: null };
    shown(<Shelf />);
    expect(await screen.findByText("2 faults")).toBeTruthy();
    expect(screen.getByText("adds up")).toBeTruthy();
    expect(screen.getByText("no parts yet")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Remove Moth" }));
    expect(asked).not.toContain("DELETE /api/designs/3");
    await userEvent.click(within(screen.getByRole("alertdialog")).getByRole("button", { name: "Remove it" }));
    await waitFor(() => expect(asked).toContain("DELETE /api/designs/3"));
  });
  it("says when the studio does not answer", async () => {
    shown(<Shelf />);
    expect((await screen.findByRole("alert")).textContent).toBe("Nothing here.");
  });
});

it("the thread tells each stop's state in words", () => {
  shown(
    <Thread
      stops={[
        { stop: "brief", state: "untouched" },
        { stop: "rounds", state: "faults" },
        { stop: "sizes", state: "sound" },
        { stop: "gauge", state: "under-way" },
      ]}
    />,
  );
  const names = screen.getAllByRole("link").map((l) => l.textContent);
  expect(names).toEqual(["Brief, untouched", "Rounds, has faults", "Sizes, sound", "Gauge, under way"]);
  expect(screen.getByRole("link", { current: "page" }).textContent).toContain("Rounds");
});

const PROBLEM: Problem = {
  code: "short",
  severity: "fault",
  message: "R3 needs 14 stitches, but R2 gives 12.",
  round: "R3",
  line: 3,
  column: 5,
  start: 10,
  end: 20,
  fix: { start: 18, end: 19, text: "6", label: "repeat 6 times" },
};

function preview(problems: Problem[], lines: number[]): Preview {
  const rounds = lines.map((line, i) => ({ line, label: `R${i + 1}` }));
  return {
    number: 1,
    spans: [],
    problems,
    part: { rounds, colours: [], closed: false },
    steps: [],
    size: null,
    sound: !problems.length,
    terms: "us",
    terms_how: "",
  } as unknown as Preview;
}

describe("problems", () => {
  it("hang on their rounds, the worst first", () => {
    const hint: Problem = { ...PROBLEM, severity: "hint", message: "steep" };
    expect(roundFaults(preview([hint, PROBLEM], [1, 2, 3, 3])).get(2)).toBe(PROBLEM);
    expect(roundFaults(preview([{ ...PROBLEM, line: 9 }], [1])).size).toBe(0);
  });
  it("are sentences to go to, with the mend beside them", async () => {
    const [go, mend] = [vi.fn(), vi.fn()];
    shown(<ProblemList preview={preview([PROBLEM], [1])} onGo={go} onMend={mend} />);
    await userEvent.click(screen.getByRole("button", { name: /^Fault:\s*R3 needs 14/ }));
    await userEvent.click(screen.getByRole("button", { name: "repeat 6 times" }));
    expect(go).toHaveBeenCalledWith(PROBLEM);
    expect(mend).toHaveBeenCalledWith(PROBLEM.fix);
  });
  it("are none when everything adds up", () => {
    shown(<ProblemList preview={preview([], [1])} onGo={vi.fn()} onMend={vi.fn()} />);
    expect(screen.getByRole("status").textContent).toBe("Every count adds up.");
  });
});

it("whether it is saved is told in words, and a refusal with its choices", async () => {
  const settle = vi.fn();
  const problem = { type: "/problems/stale-page", title: "s", status: 409, detail: "Changed elsewhere." };
  const { rerender } = shown(
    <>
      <SaveMark state="saving" />
      <PageRefusal state="stale" problem={problem} settle={settle} />
    </>,
  );
  expect(screen.getByText("Saving …").getAttribute("data-save")).toBe("saving");
  await userEvent.click(screen.getByRole("button", { name: "Keep what I typed here" }));
  expect(settle).toHaveBeenCalledWith("mine");
  rerender(<PageRefusal state="offline" problem={problem} settle={settle} />);
  expect(screen.queryByRole("alert")).toBeNull();
});

it("an outline's handles move with the keys, a ball's both ways at once", () => {
  const heard = vi.fn();
  const ball = { base: "solid" as const, ...solidOf("sphere"), width_mm: 50, height_mm: 50 };
  shown(
    <Outline
      points={[
        [0, 0],
        [25, 25],
        [0, 50],
      ]}
      solid={ball}
      onSolid={heard}
    />,
  );
  fireEvent.keyDown(screen.getByRole("slider", { name: "Width" }), { key: "ArrowRight" });
  expect(heard).toHaveBeenLastCalledWith(expect.objectContaining({ width_mm: 51, height_mm: 51 }));
  fireEvent.keyDown(screen.getByRole("slider", { name: "Height" }), { key: "PageDown" });
  expect(heard).toHaveBeenLastCalledWith(expect.objectContaining({ width_mm: 40, height_mm: 40 }));
  expect(screen.getByRole("slider", { name: "Width" }).getAttribute("aria-valuetext")).toBe("50 mm");
});

it("an estimate looks like one, a measure does not", () => {
  const format = (v: number) => `${v} mm`;
  const { rerender } = shown(<Guess of={{ value: 100, low: 88, high: 112, how: "x" }} format={format} />);
  expect(screen.getByRole("button").textContent).toBe("≈ about 100 mm± 12 %");
  rerender(<Guess of={{ value: 100, low: 97, high: 103, how: "measured" }} format={format} />);
  expect(screen.getByRole("button").textContent).toBe("100 mm");
});

it("silhouettes are drawn to one scale", () => {
  shown(<Silhouette counts={[6, 12, 6]} width={35} height={35} widest={70} label="Body" />);
  expect(screen.getByRole("img", { name: "Body" }).querySelector("path")?.getAttribute("d")).toContain(
    "M8.8 0.0",
  );
});

it("the booklet's tree becomes a page", () => {
  const lines = [
    {
      kind: "round",
      text: "",
      label: "R1-R3",
      work: "sc around",
      count: "[6]",
      fold: 3,
      fold_said: "3 rounds",
    },
    { kind: "step", text: "Stuff.", label: "", work: "", count: "", fold: 1, fold_said: "" },
  ];
  shown(
    <Sections
      sections={[
        {
          key: "a",
          title: "Body",
          level: 2,
          blocks: [
            { block: "Rounds", lines },
            {
              block: "CountTable",
              rows: [
                ["R1", 6, 6],
                ["R2", 6, 0],
                ["R3", 3, -3],
              ],
            },
          ],
        },
        {
          key: "b",
          title: "Safety",
          level: 1,
          blocks: [
            { block: "Cautions", lines: ["Small parts."] },
            {
              block: "Steps",
              lines: ["Sew."],
              pictures: [[{ key: "step:a", alt: "The ear is new", caption: "" }]],
            },
            { block: "Facts", rows: [["Hook", "3 mm"]] },
          ],
        },
      ]}
      addressOf={(key) => (key === "step:a" ? "/there.jpg" : null)}
    />,
  );
  expect(screen.getByAltText("The ear is new").getAttribute("src")).toBe("/there.jpg");
  expect(screen.getByText(/sc around/).textContent).toBe("sc around (3 rounds)");
  expect(screen.getAllByRole("row").map((r) => r.textContent)).toEqual([
    "RoundStitches+ or −",
    "R16+6",
    "R26=",
    "R33−3",
  ]);
  expect(screen.getByText("Hook").tagName).toBe("DT");
});

const run = vi.fn();
const COMMANDS = [
  { name: "Go to Gauge", run },
  { name: "Undo the last action", keys: "Ctrl + Z", run },
];

function Offering() {
  useCommands(COMMANDS);
  const say = useSay();
  return (
    <button type="button" onClick={() => say("Something failed.", true)}>
      fail
    </button>
  );
}

describe("commands", () => {
  it("are found by typing, and run with Enter", async () => {
    shown(<Offering />);
    await userEvent.keyboard("{Control>}k{/Control}");
    await userEvent.keyboard("gauge");
    expect(screen.getAllByRole("option")).toHaveLength(1);
    await userEvent.keyboard("{Enter}");
    expect(run).toHaveBeenCalledOnce();
    await userEvent.keyboard("?");
    expect(
      within(screen.getByRole("dialog", { name: "Shortcuts" })).getByText("Undo the last action"),
    ).toBeTruthy();
  });
  it("leave the editor its own key: with Shift it deletes a line there", async () => {
    shown(<Offering />);
    await userEvent.keyboard("{Control>}{Shift>}K{/Shift}{/Control}");
    expect(screen.queryByRole("dialog")).toBeNull();
  });
  it("are walked through with the arrows, round at the ends, and nothing runs where none is found", async () => {
    run.mockClear();
    shown(<Offering />);
    await userEvent.keyboard("{Control>}k{/Control}");
    const box = screen.getByRole("combobox", { name: "Search commands" });
    const active = () =>
      document.getElementById(box.getAttribute("aria-activedescendant") ?? "")?.textContent;
    expect(active()).toBe("Go to Gauge");
    await userEvent.keyboard("{ArrowUp}");
    expect(active()).toBe("Shortcuts?");
    await userEvent.keyboard("{ArrowDown}{ArrowDown}");
    expect(active()).toBe("Undo the last actionCtrl + Z");
    await userEvent.keyboard("nothing of the kind{Enter}");
    expect(screen.getByText("No command of that name here.")).toBeTruthy();
    expect(run).not.toHaveBeenCalled();
  });
  it("are found by the beginnings of their words", () => {
    expect(matching(COMMANDS, "act un").map((c) => c.name)).toEqual(["Undo the last action"]);
    expect(matching(COMMANDS, "ction")).toEqual([]);
    expect(matching(COMMANDS, " ")).toHaveLength(2);
  });
  it("say when something failed", async () => {
    shown(<Offering />);
    await userEvent.click(screen.getByRole("button", { name: "fail" }));
    expect(await screen.findByText("Something failed.")).toBeTruthy();
  });
});
