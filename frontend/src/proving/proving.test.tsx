import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { ByYarn } from "./by-yarn";
import { CountLadder } from "./count-ladder";
import { Deviations } from "./deviations";
import { InTheWay } from "./in-the-way";
import { Learned } from "./learned";
import { Papers } from "./papers";
import { Remarks } from "./remarks";
import type { Call, Makings, Summary } from "./use-proving";

const DESIGN = { id: 7, booklet: { version: "1.2" } } as unknown as Design;
let asked: { method: string; path: string; body: unknown }[] = [];
let answers: Record<string, unknown> = {};

beforeEach(() => {
  asked = [];
  answers = {};
  vi.stubGlobal("fetch", async (request: Request) => {
    const path = new URL(request.url).pathname;
    const text = await request.text();
    asked.push({ method: request.method, path, body: text ? JSON.parse(text) : null });
    return Response.json(answers[path] ?? {});
  });
});

afterEach(() => {
  vi.unstubAllGlobals();
});

function shown(children: ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <MemoryRouter>
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    </MemoryRouter>,
  );
}

const MAKING = {
  id: "m1",
  title: "First sample",
  deviations: [
    {
      key: "ball-5-more-1",
      part: "ball",
      part_name: "Ball",
      round: 5,
      told: "After R5 1 more round was worked.",
      pieces: [1],
      verdict: null,
    },
    {
      key: "ball-3-count-20",
      part: "ball",
      part_name: "Ball",
      round: 3,
      told: "R3 came to 20.",
      pieces: [1],
      verdict: "text",
    },
  ],
} as unknown as Summary;

describe("did against says", () => {
  it("is decided by one click, and what stands in the text is not decided again", async () => {
    shown(<Deviations design={DESIGN} one={MAKING} />);
    expect(screen.getByText("Done otherwise than it says (1 to decide)")).toBeTruthy();
    const rows = screen.getAllByRole("listitem");
    expect(within(rows[1] as HTMLElement).queryByRole("button")).toBeNull();
    await userEvent.click(within(rows[0] as HTMLElement).getByRole("button", { name: /Into the text/ }));
    expect(asked[0]).toEqual({
      method: "PUT",
      path: "/api/designs/7/makings/m1/deviations/ball-5-more-1",
      body: { verdict: "text" },
    });
  });
});

const group = (more: object) => ({
  key: "ball-3-unclear",
  part: "ball",
  round: 3,
  place: "Ball R3",
  what: "unclear",
  says: "(sc, inc) x 6 [18]",
  asks: true,
  testers: 2,
  said: [
    { by: "Rowan", text: "Which?", event: "e1", at: 1 },
    { by: "Sorrel", text: "", event: "e2", at: 2 },
  ],
  answers: [],
  writes: [],
  ...more,
});
const call = (more: object) => ({ id: 3, groups: [], by_weight: [], ...more }) as unknown as Call;

describe("remarks", () => {
  it("of several testers on one place are answered together", async () => {
    shown(<Remarks design={DESIGN} call={call({ groups: [group({})] })} version="1.2" />);
    expect(screen.getByText("Remarks (1 to answer)")).toBeTruthy();
    expect(screen.getByText("Rowan: “Which?”")).toBeTruthy();
    await userEvent.type(screen.getByLabelText("What you answer on Ball R3"), "With brackets now.");
    await userEvent.click(screen.getByRole("button", { name: /Changed in 1.2/ }));
    expect(asked[0]?.body).toEqual({
      events: ["e1", "e2"],
      state: "changed",
      text: "With brackets now.",
      version: "1.2",
    });
  });
  it("of what was done otherwise go into the text, and are answered by that", async () => {
    const writes = [{ making: "m2", key: "ball-5-more-1", told: "After R5 1 more round was worked." }];
    shown(
      <Remarks
        design={DESIGN}
        call={call({ groups: [group({ what: "otherwise", writes })] })}
        version="1.2"
      />,
    );
    await userEvent.click(
      screen.getByRole("button", { name: "Into the text: After R5 1 more round was worked." }),
    );
    await waitFor(() => expect(asked.length).toBe(2));
    expect(asked[0]).toEqual({
      method: "PUT",
      path: "/api/designs/7/makings/m2/deviations/ball-5-more-1",
      body: { verdict: "text" },
    });
    expect(asked[1]?.body).toMatchObject({ events: ["e1", "e2"], state: "changed", version: "1.2" });
  });
  it("that praise ask for nothing", () => {
    const liked = group({
      key: "x",
      what: "liked",
      asks: false,
      said: [{ by: "Rowan", text: "Lovely", event: "e3", at: 1 }],
    });
    shown(<Remarks design={DESIGN} call={call({ groups: [liked] })} version="" />);
    expect(screen.getByText("Remarks (all answered)")).toBeTruthy();
    expect(screen.getByText("Liked: Ball R3 (Lovely)")).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("what stands in the way", () => {
  it("is told with what blocks first, each with the way to where it is mended", async () => {
    answers["/api/designs/7/tests"] = {
      calls: [],
      columns: [],
      open: [
        {
          code: "remark",
          text: "Ball R3: Rowan says unclear; not answered yet.",
          blocks: true,
          stop: "proving",
          part: "ball",
          round: 3,
          step: null,
        },
        {
          code: "tail-length",
          text: "Ear: a tail.",
          blocks: false,
          stop: "rounds",
          part: "ear",
          round: null,
          step: null,
        },
      ],
    };
    shown(<InTheWay design={DESIGN} />);
    const blocks = await screen.findByRole("region", { name: "Blocks the release" });
    expect(blocks.textContent).toContain("Rowan says unclear");
    expect(screen.getByRole("link", { name: "Rounds" }).getAttribute("href")).toBe(
      "/designs/7/rounds?part=ear",
    );
  });
  it("is nothing where nothing blocks", async () => {
    answers["/api/designs/7/tests"] = { calls: [], columns: [], open: [] };
    shown(<InTheWay design={DESIGN} />);
    expect(await screen.findByText("Nothing blocks a release.")).toBeTruthy();
  });
});

describe("reports on paper", () => {
  it("say which lines were not taken, and why", async () => {
    answers["/api/designs/7/tests/3/papers"] = {
      fresh: 2,
      testers: 1,
      unread: [{ line: 4, why: "There is no part “Nose”." }],
    };
    shown(<Papers design={DESIGN} call={call({})} columns={["tester", "part", "round", "kind", "text"]} />);
    await userEvent.click(screen.getByRole("button", { name: "Reports on paper …" }));
    await userEvent.type(screen.getByLabelText("The table"), "x");
    await userEvent.click(screen.getByRole("button", { name: "Take them in" }));
    expect(await screen.findByText("Line 4 was not taken: There is no part “Nose”.")).toBeTruthy();
    expect(screen.getByRole("status").textContent).toContain("2 new remarks of 1 tester.");
  });
});

describe("measures by yarn class", () => {
  it("have a middle from three makers on, and say how many they lack", () => {
    const rows = [
      { weight: 3, quantity: "height", makers: 3, ratio: 1.04, ratios: [1.02, 1.04, 1.1] },
      { weight: null, quantity: "hours", makers: 1, ratio: null, ratios: [1.4] },
    ];
    shown(<ByYarn call={call({ by_weight: rows })} />);
    expect(screen.getByText("middle 104 % of 3 makers")).toBeTruthy();
    expect(screen.getByText("1 of 3 makers that a middle needs")).toBeTruthy();
    expect(screen.getByText("yarn not said")).toBeTruthy();
  });
});

describe("a ladder of counts", () => {
  it("fills what is done and marks where testers stumbled, each rung with its words", () => {
    shown(
      <CountLadder
        counts={[6, 12]}
        labels={["R1", "R2"]}
        fill="#7a5238"
        done={1}
        heat={[0, 2]}
        label="Ball"
      />,
    );
    const rungs = screen.getByRole("img", { name: "Ball" }).querySelectorAll("rect");
    expect(rungs[0]?.getAttribute("fill")).toBe("#7a5238");
    expect(rungs[1]?.getAttribute("fill")).toBe("var(--madder)");
    expect(screen.getByText("R2: 12 stitches, 2 stumbled")).toBeTruthy();
  });
});

describe("what was measured", () => {
  const height = {
    quantity: "height",
    makers: 3,
    ratio: 1.04,
    share: 0.05,
    pairs: [],
    before: null,
    now: null,
    printed: 0,
  };
  const found = (...learned: unknown[]) =>
    ({ makings: [], learned, samples: [], sizes: [], releases: [] }) as unknown as Makings;

  it("is printed in the booklet by one click", async () => {
    shown(<Learned design={DESIGN} found={found(height)} />);
    screen.getByText(/The booklet prints the estimate/);
    await userEvent.click(screen.getByRole("button", { name: "Print it as measured: Height" }));
    await waitFor(() =>
      expect(asked).toEqual([
        { method: "POST", path: "/api/designs/7/makings/size", body: { quantity: "height" } },
      ]),
    );
  });

  it("offers what more makings say, and nothing where it is printed already or too few made it", () => {
    const older = { ...height, printed: 3, makers: 5 };
    const few = { ...height, quantity: "width", ratio: null, share: null, makers: 2 };
    shown(<Learned design={DESIGN} found={found(older, few)} />);
    screen.getByText(/prints it as of 3 makings/);
    expect(screen.getAllByRole("button")).toHaveLength(1);
    shown(<Learned design={DESIGN} found={found({ ...height, printed: 3 })} />);
    screen.getByText(/as measured on 3 makings/);
    expect(screen.getAllByRole("button")).toHaveLength(1);
  });
});
