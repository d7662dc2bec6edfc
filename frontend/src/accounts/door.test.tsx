import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Overlays } from "../ui/overlays";
import { AccountDialog } from "./account-dialog";
import { Door } from "./door";

type Asked = { method: string; path: string; body: unknown };
const asked: Asked[] = [];
let answered: () => Response = () => Response.json(null);

const refusal = (field: string, detail: string) => () =>
  Response.json(
    { type: "/problems/invalid", title: "invalid", status: 422, detail, field },
    { status: 422, headers: { "Content-Type": "application/problem+json" } },
  );

beforeEach(() => {
  asked.length = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    const body = request.method === "GET" ? null : await request.clone().json();
    asked.push({ method: request.method, path: new URL(request.url).pathname, body });
    return answered();
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const shown = (what: ReactElement) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Overlays>{what}</Overlays>
    </QueryClientProvider>,
  );
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
const type = (label: string, text: string) => userEvent.type(screen.getByLabelText(label), text);

describe("the door", () => {
  it("asks for what is missing at its field, and sends nothing", async () => {
    shown(<Door demo={false} />);
    await press("Sign in");
    expect(screen.getAllByRole("alert").map((said) => said.textContent)).toEqual([
      "Type your name.",
      "Type your password.",
    ]);
    expect(asked).toEqual([]);
  });
  it("says a refusal at the field it names", async () => {
    answered = refusal("password", "Name and password do not go together.");
    shown(<Door demo />);
    await type("Name", "fern");
    await type("Password", "velvet");
    await press("Sign in");
    expect((await screen.findByRole("alert")).textContent).toBe("Name and password do not go together.");
    expect(screen.getByLabelText("Password").getAttribute("aria-invalid")).toBe("true");
    expect(asked.at(-1)).toMatchObject({ method: "POST", body: { username: "fern", password: "velvet" } });
  });
  it("opens a studio, and keeps what was typed when she changes her mind", async () => {
    answered = refusal("username", "That name is taken; choose another.");
    shown(<Door demo={false} />);
    await type("Name", "fern");
    await press("Make a new studio");
    expect(screen.getByLabelText("Name")).toHaveProperty("value", "fern");
    await type("Password", "velvet-lantern-9");
    await press("Open the studio");
    expect(screen.getByText("Give your studio a name.")).toBeTruthy();
    await type("Studio", "Fern & Moss");
    await press("Open the studio");
    expect(await screen.findByText("That name is taken; choose another.")).toBeTruthy();
    expect(asked.at(-1)?.body).toMatchObject({ username: "fern", studio: "Fern & Moss" });
    await press("I have one already");
    expect(screen.queryByRole("alert")).toBeNull();
  });
});

describe("her account", () => {
  const me = { username: "fern", studio: "Fern & Moss", terms: "us" as const, left_handed: false };
  const open = () =>
    shown(<AccountDialog me={me as Parameters<typeof AccountDialog>[0]["me"]} open onOpen={vi.fn()} />);
  it("keeps her preferences", async () => {
    answered = () => Response.json({ ...me, left_handed: true });
    open();
    await userEvent.click(screen.getByLabelText("I crochet left-handed"));
    await userEvent.selectOptions(screen.getByLabelText("New designs are written in"), "uk");
    await press("Save");
    expect(asked.at(-1)?.body).toEqual({ studio: "Fern & Moss", terms: "uk", left_handed: true });
    expect(await screen.findByText("Saved.")).toBeTruthy();
  });
  it("refuses an empty studio before it is sent", async () => {
    open();
    await userEvent.clear(screen.getByLabelText("Studio"));
    await press("Save");
    expect(screen.getByText("Give your studio a name.")).toBeTruthy();
    expect(asked).toEqual([]);
  });
  it("says at which password something is wrong", async () => {
    answered = refusal("present", "The present password is not right.");
    open();
    await press("Change it");
    expect(screen.getByText("Type the password that you have.")).toBeTruthy();
    await type("Present password", "old-lantern-1");
    await type("New password", "new-lantern-2");
    await press("Change it");
    expect(await screen.findByText("The present password is not right.")).toBeTruthy();
    expect(screen.getByLabelText("Present password").getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByLabelText("New password").getAttribute("aria-invalid")).toBeNull();
  });
});
