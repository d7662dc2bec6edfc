import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Overlays } from "../ui/overlays";
import type { Board } from "./ask";
import { BringInDesign } from "./bring-in";

type Body = { text: string; corrections: { line: number; taken: string | null }[]; words: unknown[] };

const asked: { path: string; body: Body }[] = [];
let refuse: string | null = null;

function line(number: number, text: string, taken: Board["lines"][number]["taken"], more = {}) {
  return {
    line: number,
    last_line: number,
    column: 0,
    text,
    taken,
    understood: "",
    severity: null,
    message: "",
    corrected: false,
    joined: false,
    ...more,
  };
}

function board(body: Body): Board {
  const said = body.corrections.find((c) => c.line === 2)?.taken;
  return {
    title: "",
    terms: "uk",
    terms_how: "it says so",
    into: "uk",
    unconverted: null,
    parts: [
      { name: said ? "Hat" : "Brim first", make: 1, text: "", counts: [6, 12], stitches: 18, faults: 1 },
      { name: "Ear", make: 2, text: "", counts: [4], stitches: 4, faults: 0 },
    ],
    lines: [
      line(1, "Hat", said ? "part" : "note"),
      line(2, "Brim first", said ? "note" : "part", { corrected: Boolean(said) }),
      line(3, "R1: 6 zog (6)", "round", { severity: "fault", message: "'zog' is no stitch." }),
    ],
    more_lines: 0,
    doubts: [{ severity: "fault", message: "'zog' is no stitch.", part: "", line: 3, column: 0 }],
    beside: ["title", "assembly"],
    sound: false,
  };
}

const reply = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

beforeEach(() => {
  asked.length = 0;
  refuse = null;
  sessionStorage.clear();
  vi.stubGlobal("fetch", async (request: Request | string, init?: RequestInit) => {
    const path = typeof request === "string" ? request : new URL(request.url).pathname;
    if (path === "/api/bench/text") {
      const sent = init?.body;
      const file = sent instanceof FormData ? sent.get("file") : null;
      if (!(file instanceof File)) throw new Error("no file was sent");
      return reply({ name: file.name, text: "Hat\nBrim first\nR1: 6 zog (6)\n", job: null });
    }
    const body = JSON.parse(await (request as Request).text()) as Body;
    asked.push({ path, body });
    if (refuse) return reply({ type: "x/invalid", title: "x", status: 422, detail: refuse }, 422);
    return path === "/api/bench/board" ? reply(board(body)) : reply({ id: 9, name: "Hat", parts: [] }, 201);
  });
});
afterEach(() => vi.unstubAllGlobals());

async function opened() {
  const made = vi.fn();
  const user = userEvent.setup();
  const client = new QueryClient();
  const tree = (open: boolean) => (
    <QueryClientProvider client={client}>
      <Overlays>
        <BringInDesign open={open} onOpen={() => {}} onMade={made} />
      </Overlays>
    </QueryClientProvider>
  );
  const view = render(tree(true));
  await user.type(screen.getByLabelText("Or pasted"), "Hat");
  await user.click(screen.getByRole("button", { name: "Read it" }));
  await screen.findByText("Parts found");
  return { user, made, view, tree };
}

const row = (number: number) => screen.getByRole("button", { name: new RegExp(`^Line ${number},`) });
const last = () => asked.at(-1)?.body;

describe("the board", () => {
  it("says first what is doubtful, and leads to its line", async () => {
    const { user } = await opened();
    const doubts = screen.getByRole("region", { name: "Doubts" });
    await user.click(within(doubts).getByRole("button"));
    expect(document.activeElement).toBe(row(3));
  });

  it("takes a line for something else by one key, undoes it and does it again", async () => {
    const { user } = await opened();
    expect(document.activeElement).toBe(row(1));
    await user.keyboard("{ArrowDown}n");
    const found = screen.getByRole("region", { name: "Parts found" });
    await waitFor(() => expect(within(found).getByRole("checkbox", { name: "Hat" })).toBeTruthy());
    expect(last()?.corrections).toEqual([{ line: 2, column: 0, taken: "note", joined: false }]);
    expect(document.activeElement).toBe(row(2));
    await user.keyboard("{Control>}z{/Control}");
    await waitFor(() => expect(row(2).textContent).toContain("Part heading"));
    await user.keyboard("{Control>}{Shift>}z{/Shift}{/Control}");
    await waitFor(() => expect(row(2).textContent).toContain("Note"));
  });

  it("takes it by mouse, too", async () => {
    const { user } = await opened();
    await user.click(row(2));
    await user.click(await screen.findByRole("menuitem", { name: /^Note/ }));
    await waitFor(() => expect(row(2).textContent).toContain("as you said"));
  });

  it("shows a refused explanation at its field and keeps what was typed", async () => {
    const { user } = await opened();
    row(3).focus();
    await user.keyboard("e");
    expect((screen.getByLabelText("Word") as HTMLInputElement).value).toBe("zog");
    refuse = "What 'zog' means is not understood.";
    await user.type(screen.getByLabelText("Means"), "wibble{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("not understood");
    refuse = null;
    await user.clear(screen.getByLabelText("Means"));
    await user.type(screen.getByLabelText("Means"), "increase{Enter}");
    await screen.findByText("Explained by you");
    expect(last()?.words).toEqual([{ word: "zog", means: "increase" }]);
    await user.click(screen.getByRole("button", { name: "Forget what zog means" }));
    await waitFor(() => expect(screen.queryByText("Explained by you")).toBeNull());
  });

  it("parts a line with the arrows", async () => {
    const { user } = await opened();
    row(3).focus();
    await user.keyboard("/{ArrowRight}{Enter}");
    await waitFor(() =>
      expect(last()?.corrections).toEqual([{ line: 3, column: 6, taken: null, joined: false }]),
    );
  });

  it("makes a design of the chosen parts, with or without what stands beside them", async () => {
    const { user, made } = await opened();
    await user.click(screen.getByRole("checkbox", { name: "Ear × 2" }));
    await user.click(
      screen.getByRole("checkbox", { name: /^With what stands beside the rounds: title, assembly/ }),
    );
    await user.click(screen.getByRole("button", { name: "Make a design of 1 part" }));
    await waitFor(() => expect(made).toHaveBeenCalled());
    expect(last()).toMatchObject({ parts: [0], sections: false, name: "pasted.txt" });
  });

  it("is there again after a reload", async () => {
    const { user, view, tree } = await opened();
    await user.keyboard("{ArrowDown}n");
    await waitFor(() => expect(row(2).textContent).toContain("Note"));
    view.unmount();
    render(tree(true));
    await screen.findByText("Parts found");
    await waitFor(() => expect(row(2).textContent).toContain("Note"));
  });
});
