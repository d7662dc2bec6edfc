import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { MemoryRouter } from "react-router";
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
    const body = await request
      .clone()
      .json()
      .catch(() => null);
    asked.push({ method: request.method, path: new URL(request.url).pathname, body });
    return answered();
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const shown = (what: ReactElement, at = "/") =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter initialEntries={[at]}>
        <Overlays>{what}</Overlays>
      </MemoryRouter>
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

describe("a forgotten password", () => {
  it("has a letter sent, and says the same for every name", async () => {
    answered = () => new Response(null, { status: 204 });
    shown(<Door demo={false} />);
    await type("Name", "fern");
    await press("I forgot my password");
    expect(screen.getByLabelText("Name")).toHaveProperty("value", "fern");
    await press("Send me a letter");
    expect((await screen.findByRole("status")).textContent).toContain("a letter is on its way");
    expect(asked.at(-1)).toMatchObject({ path: "/api/session/forgotten", body: { username: "fern" } });
    await press("Back");
    expect(screen.getByRole("button", { name: "Sign in" })).toBeTruthy();
  });
  it("is set anew by the link of a letter, or says why not", async () => {
    answered = () =>
      Response.json(
        { type: "/problems/spent-link", title: "", status: 422, detail: "This link was used." },
        { status: 422, headers: { "Content-Type": "application/problem+json" } },
      );
    shown(<Door demo={false} />, "/new-password/MQ/c0ffee-1");
    await press("Set it, and come in");
    expect(screen.getByText("Type the new password.")).toBeTruthy();
    await type("New password", "another-lantern-4");
    await press("Set it, and come in");
    expect(await screen.findByText("This link was used.")).toBeTruthy();
    expect(asked.at(-1)?.body).toEqual({ user: "MQ", token: "c0ffee-1", password: "another-lantern-4" });
  });
});

const turn = (name: string) => userEvent.click(screen.getByRole("tab", { name }));

describe("her account", () => {
  const me = {
    username: "fern",
    studio: "Fern & Moss",
    terms: "us" as const,
    left_handed: false,
    address: "",
  };
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
    await turn("Password");
    await press("Change it");
    expect(screen.getByText("Type the password that you have.")).toBeTruthy();
    await type("Present password", "old-lantern-1");
    await type("New password", "new-lantern-2");
    await press("Change it");
    expect(await screen.findByText("The present password is not right.")).toBeTruthy();
    expect(screen.getByLabelText("Present password").getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByLabelText("New password").getAttribute("aria-invalid")).toBeNull();
  });
  it("keeps where a way back in goes, with her password", async () => {
    answered = () => Response.json({ me: { ...me, address: "fern@example.org" }, demo: false });
    open();
    await turn("Password");
    await type("Address of mail", "fern@example.org");
    await press("Keep the address");
    expect(screen.getByText("Type the password that you have.")).toBeTruthy();
    await type("Your password", "velvet-lantern-9");
    await press("Keep the address");
    expect(await screen.findByText("The way back in goes there.")).toBeTruthy();
    expect(asked.at(-1)?.body).toEqual({ present: "velvet-lantern-9", address: "fern@example.org" });
  });
  const holding = { name: "Pictures", used: 190, most: 200, unit: "MB", full: "Remove pictures." };
  const state = {
    holdings: [holding, { ...holding, name: "Designs", used: 12, most: 2000, unit: "" }],
    sessions: [
      { id: "a", device: "Firefox on Linux", until: "2026-12-30T10:00:00Z", here: true },
      { id: "b", device: "Safari on iPhone", until: "2026-12-20T10:00:00Z", here: false },
    ],
    leaves: null as string | null,
  };
  it("shows what is used, and what to do about what is nearly full", async () => {
    answered = () => Response.json(state);
    open();
    await turn("Room left");
    expect(await screen.findByRole("meter", { name: "Pictures: 190 of 200 MB" })).toBeTruthy();
    expect(screen.getAllByText("Remove pictures.")).toHaveLength(1);
    expect(screen.getByRole("link", { name: "Save everything as a file" }).getAttribute("href")).toBe(
      "/api/studio/everything.zip",
    );
  });
  it("signs out elsewhere", async () => {
    answered = () => Response.json(state);
    open();
    await turn("Devices");
    answered = () => Response.json({ ...state, sessions: state.sessions.slice(0, 1) });
    await userEvent.click(await screen.findByRole("button", { name: "Sign out Safari on iPhone" }));
    expect(await screen.findByText("You are signed in nowhere else.")).toBeTruthy();
    expect(asked.at(-1)).toMatchObject({ method: "DELETE", path: "/api/studio/sessions/b" });
  });
  it("leaves with her password, and stays after all", async () => {
    answered = () => Response.json(state);
    open();
    await turn("Leaving");
    await screen.findByLabelText("Your password");
    await press("Close the studio");
    expect(screen.getByText("Type the password that you have.")).toBeTruthy();
    await type("Your password", "velvet-lantern-9");
    answered = () => Response.json({ ...state, leaves: "2026-12-14T10:00:00Z" });
    await press("Close the studio");
    expect(await screen.findByText(/This studio closes on/)).toBeTruthy();
    answered = () => Response.json(state);
    await press("Stay after all");
    expect(await screen.findByLabelText("Your password")).toBeTruthy();
    expect(asked.at(-1)).toMatchObject({ method: "DELETE", path: "/api/studio/leave" });
  });
});
