import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Overlays } from "../ui/overlays";
import type { Translation } from "./translated";
import { proposals, type Translator, Translators, takenOver } from "./translators";

const SAID = ["A ball.", "Keep the marker in."];
const ULLA: Translator = {
  id: 3,
  name: "Ulla",
  language: "de",
  expires: "2027-01-30T00:00:00Z",
  closed: false,
  address: null,
  pieces: [
    { source: "A ball.", text: "Ein Ball." },
    { source: "An old sentence.", text: "Ein alter Satz." },
  ],
};
const OLE: Translator = { ...ULLA, id: 4, name: "Ole", language: "nl" };

describe("what a translator wrote", () => {
  it("is proposed where it is not what stands there", () => {
    expect(proposals([ULLA], "A ball.", "")).toEqual([{ by: "Ulla", id: 3, text: "Ein Ball." }]);
    expect(proposals([ULLA], "A ball.", "Ein Ball.")).toEqual([]);
    expect(proposals([ULLA], "Keep the marker in.", "")).toEqual([]);
  });

  it("is taken over at once, without what is said otherwise by now, and leaves the rest alone", () => {
    const before: Translation[] = [
      { language: "de", source: "Keep the marker in.", text: "Marker drinlassen." },
      { language: "nl", source: "A ball.", text: "Een bal." },
    ];
    const after = takenOver(before, "de", ULLA, SAID);
    expect(after).toEqual([...before, { language: "de", source: "A ball.", text: "Ein Ball." }]);
  });
});

describe("the list of translators", () => {
  afterEach(() => vi.unstubAllGlobals());

  function shown(onTake = vi.fn()) {
    const asked: { method: string; body: string }[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      asked.push({ method: request.method, body: await request.text() });
      const made = { ...ULLA, id: 5, address: "/translate/abc" };
      const body = request.method === "GET" ? [ULLA, OLE] : request.method === "POST" ? made : [];
      return new Response(JSON.stringify(body), { status: request.method === "POST" ? 201 : 200 });
    });
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Overlays>
          <Translators design={1} language="de" name="German" said={SAID} all={[]} onTake={onTake} />
        </Overlays>
      </QueryClientProvider>,
    );
    return { asked, onTake };
  }

  it("shows those of the language, and takes over what one wrote", async () => {
    const { onTake } = shown();
    await userEvent.click(await screen.findByRole("button", { name: "Take over all 1 of Ulla" }));
    expect(onTake).toHaveBeenCalledWith([{ language: "de", source: "A ball.", text: "Ein Ball." }]);
    expect(screen.queryByText(/Ole/)).toBeNull();
    expect(screen.getByText(/2 of 2 pieces written/)).toBeTruthy();
  });

  it("makes a link for somebody with a name, and tells its address once", async () => {
    const { asked } = shown();
    expect(screen.getByRole("button", { name: "Make a link" })).toHaveProperty("disabled", true);
    await userEvent.type(screen.getByLabelText("Who translates"), "Ulla");
    await userEvent.click(screen.getByRole("button", { name: "Make a link" }));
    const field = await screen.findByLabelText(/The translator's link/);
    expect(field).toHaveProperty("value", `${window.location.origin}/translate/abc`);
    const post = asked.find((a) => a.method === "POST");
    expect(JSON.parse(post?.body ?? "")).toEqual({ language: "de", name: "Ulla", days: 60 });
    await waitFor(() => expect(asked.filter((a) => a.method === "GET").length).toBeGreaterThan(1));
  });
});
