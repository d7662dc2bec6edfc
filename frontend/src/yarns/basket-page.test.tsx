import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import { Overlays } from "../ui/overlays";
import { BasketPage } from "./basket-page";

const asked: { method: string; path: string; body: unknown }[] = [];

const YARN: Schemas["YarnOut"] = {
  id: 3,
  name: "Moss",
  colour: "#77834b",
  weight: 3,
  wraps: 11,
  plush: false,
  skein_m: 125,
  skein_g: 50,
  left_g: null,
  diameter_mm: 2.31,
};

let basket: Record<string, unknown>;

beforeEach(() => {
  asked.length = 0;
  basket = {
    yarns: [YARN],
    swatches: [],
    classes: ["lace", "fingering", "sport", "DK"].map((name) => ({ name })),
    hooks: [{ mm: 3, name: "3 mm" }],
  };
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = request.method === "POST" || request.method === "PUT" ? await request.clone().json() : null;
    asked.push({ method: request.method, path: new URL(request.url).pathname, body });
    return Response.json(basket);
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const shown = async () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Overlays>
        <BasketPage />
      </Overlays>
    </QueryClientProvider>,
  );
  await screen.findByRole("heading", { name: "Yarns" });
};

it("a yarn tells its class, its thickness and where that comes from, and its skein", async () => {
  await shown();
  const row = screen.getByText("Moss").closest("li") as HTMLElement;
  expect(row.textContent).toContain("DK (3)");
  expect(row.textContent).toContain("2.3 mm thick");
  expect(row.textContent).toContain("125 m / 50 g");
});

it("what is not known of a yarn is said, not left out", async () => {
  basket = { ...basket, yarns: [{ ...YARN, skein_m: null, wraps: null }] };
  await shown();
  expect(screen.getByText("length of a skein not known")).toBeTruthy();
});

it("what is left of a yarn is kept and shown, also when it is nothing", async () => {
  basket = { ...basket, yarns: [{ ...YARN, left_g: 0 }] };
  await shown();
  expect(screen.getByText("0 g left")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Change Moss" }));
  const field = within(screen.getByRole("dialog")).getByLabelText("Left of it (g)");
  await userEvent.clear(field);
  await userEvent.type(field, "42");
  await userEvent.click(screen.getByRole("button", { name: "Save" }));
  expect(asked.find((a) => a.method === "PUT")?.body).toMatchObject({ name: "Moss", left_g: 42 });
});

it("a swatch that is unlike the others says so", async () => {
  const gauge = { stitch_mm: 5, round_mm: 4.6, lean: 0.4, spread: 0.03, how: "measured" };
  const doubt = "Its stitches are 18 % wider than your other swatches of it on this hook.";
  basket = { ...basket, swatches: [{ id: 1, yarn_id: 3, yarn_name: "Moss", hook_mm: 3, gauge, doubt }] };
  await shown();
  expect(screen.getByText(doubt)).toBeTruthy();
});

it("an empty basket says what to do, and offers no swatch yet", async () => {
  basket = { ...basket, yarns: [] };
  await shown();
  expect(screen.getByText("No yarn yet")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Swatch" })).toHaveProperty("disabled", true);
});

it("a yarn is taken out only when she says so twice", async () => {
  await shown();
  await userEvent.click(screen.getByRole("button", { name: "Remove Moss" }));
  const dialog = screen.getByRole("alertdialog");
  expect(dialog.textContent).toContain("Its swatches go too.");
  expect(asked.every((a) => a.method === "GET")).toBe(true);
  await userEvent.click(within(dialog).getByRole("button", { name: "Take it out" }));
  expect(asked.some((a) => a.method === "DELETE" && a.path.endsWith("/3"))).toBe(true);
});

it("a swatch stands empty, and nothing is kept before it is measured", async () => {
  await shown();
  await userEvent.click(screen.getByRole("button", { name: "Swatch" }));
  const dialog = screen.getByRole("dialog", { name: "A swatch" });
  expect(within(dialog).getByLabelText("Stitches in the round")).toHaveProperty("value", "");
  await userEvent.click(within(dialog).getByRole("button", { name: "Keep the swatch" }));
  expect(within(dialog).getAllByText("Measure it first.").length).toBeGreaterThanOrEqual(4);
  expect(asked.every((a) => a.method === "GET")).toBe(true);
  await userEvent.selectOptions(within(dialog).getByLabelText("Measured on"), "flat");
  expect(within(dialog).getByLabelText("Width of them (mm)")).toBeTruthy();
});
