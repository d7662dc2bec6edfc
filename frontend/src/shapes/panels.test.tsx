import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Overlays } from "../ui/overlays";
import { BoxSizes } from "./box-sizes";
import { PanelNet } from "./panel-net";
import { FlatPanels } from "./panels";
import { FIRST_BOX, recipeFor, withBase } from "./recipe";

vi.mock("../figure/views", () => ({ SettledFigure: () => <p>figure</p> }));

const SQUARE: [number, number][] = [
  [0, 0],
  [50, 0],
  [50, 50],
  [0, 50],
];
const side = (letter: string, from: number) => ({
  letter,
  stitches: 8,
  line: [SQUARE[from % 4], SQUARE[(from + 1) % 4]] as [number, number][],
});
const PANELS: Schemas["PanelsOut"] = {
  parts: [
    {
      name: "Front and back",
      make: 2,
      text: "Row 1: 8 sc [8]",
      rows: 9,
      stitches: 120,
      recipe: { kind: "panel", panel: "Front", form: FIRST_BOX },
    },
  ],
  panels: [{ name: "Front", part: 0, outline: SQUARE, sides: ["A", "B", "C", "D"].map(side) }],
  seams: [{ letter: "A", one: "Front", other: "Top", stitches: 8 }],
  too_round: ["Top"],
};

afterEach(() => vi.unstubAllGlobals());

it("the panels laid flat name every side and say their seams", () => {
  render(<PanelNet panels={PANELS} />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain("A: Front to Top, 8 stitches");
  for (const letter of "ABCD") expect(screen.getByText(`${letter} 8`)).toBeTruthy();
  const at = (letter: string) => {
    const text = screen.getByText(`${letter} 8`);
    return [Number(text.getAttribute("x")), Number(text.getAttribute("y"))] as const;
  };
  // A lies at the foot, C at the head, B to the right of D.
  expect(at("A")[1]).toBeGreaterThan(at("C")[1]);
  expect(at("B")[0]).toBeGreaterThan(at("D")[0]);
});

it("a box has three sizes, and keeps how to draft", () => {
  const change = vi.fn();
  render(<BoxSizes form={FIRST_BOX} onForm={change} />);
  fireEvent.change(screen.getByLabelText("Depth (mm)"), { target: { value: "35" } });
  expect(change).toHaveBeenCalledWith({ ...FIRST_BOX, depth_mm: 35 });
  expect(withBase({ ...recipeFor("egg"), simplicity: 0.5 }, "box")).toMatchObject({
    form: FIRST_BOX,
    simplicity: 0.5,
  });
});

describe("flat panels", () => {
  const open = (answers: Record<string, () => Response>) => {
    const asked: { url: string; body: unknown }[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      const url = new URL(request.url).pathname;
      asked.push({ url, body: request.method === "POST" ? await request.clone().json() : null });
      const found = Object.entries(answers).find(([path]) => url.endsWith(path));
      return found ? found[1]() : Response.json({ id: 4, state: "running", progress: 30, error: "" });
    });
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Overlays>
          <FlatPanels
            design={{ id: 1, parts: [] } as never}
            question={{ recipe: {}, gauge: {} } as never}
            palette={{}}
            onMade={() => {}}
          />
        </Overlays>
      </QueryClientProvider>,
    );
    fireEvent.click(screen.getByRole("button", { name: "Work it as flat panels" }));
    return asked;
  };
  it("tell their parts, and which of them rounds would suit better", async () => {
    open({ "/shapes/panels": () => Response.json(PANELS) });
    expect(await screen.findByText("Front and back")).toBeTruthy();
    expect(screen.getByText(/× 2: 9 rows and an edging, 120 stitches each/)).toBeTruthy();
    expect(screen.getByText(/Top: rounder than a panel likes to be/)).toBeTruthy();
    expect(await screen.findByRole("progressbar", { name: "Sewing together" })).toBeTruthy();
  });
  it("say why there are none", async () => {
    open({
      "/shapes/panels": () =>
        Response.json(
          { title: "No", status: 422, detail: "Panels are cut from a closed shape." },
          { status: 422, headers: { "Content-Type": "application/problem+json" } },
        ),
    });
    expect((await screen.findByRole("alert")).textContent).toContain("closed shape");
    expect(screen.queryByRole("button", { name: "Add the panels as parts" })).toBeNull();
  });
  it("are added as parts of their own", async () => {
    const asked = open({
      "/shapes/panels": () => Response.json(PANELS),
      "/parts": () => Response.json({ id: 1, parts: [{ key: "k" }] }),
    });
    fireEvent.click(await screen.findByRole("button", { name: "Add the panels as parts" }));
    await vi.waitFor(() => expect(asked.some((a) => a.url.includes("/designs/1"))).toBe(true));
    const body = asked.find((a) => a.url.includes("/designs/1"))?.body;
    expect(body).toMatchObject({
      parts: [
        {
          name: "Front and back",
          make: 2,
          text: "Row 1: 8 sc [8]",
          recipe: { kind: "panel", panel: "Front", form: FIRST_BOX },
        },
      ],
    });
  });
});
