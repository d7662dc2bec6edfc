import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Overlays } from "../ui/overlays";
import { against, ComesOut } from "./comes-out";

const HEIGHT = { value: 80, low: 77, high: 83, how: "from 4 makings of this figure, by their median" };

function shown(makers: number, wished: number | null, counts: number[] = [6, 12]) {
  const column = { height: HEIGHT, height_makers: makers, parts: [{}] };
  const table = { columns: [column], things: [], job: null };
  vi.stubGlobal("fetch", async () => new Response(JSON.stringify(table), { status: 200 }));
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Overlays>
        <ComesOut design={{ id: 1, revision: 1, parts: [{ counts }] }} wished={wished} />
      </Overlays>
    </QueryClientProvider>,
  );
}

afterEach(() => vi.unstubAllGlobals());

describe("the height that comes out", () => {
  it("is held against the wish by its range", () => {
    expect(against(80, 77, 83)).toBe("as wished");
    expect(against(70, 77, 83)).toBe("more than wished");
    expect(against(90, 77, 83)).toBe("less than wished");
  });

  it("says whether it was measured or estimated", async () => {
    shown(4, 95);
    expect((await screen.findByRole("status")).textContent).toMatch(
      /as 4 makings measured: less than wished/,
    );
  });

  it("says nothing of a wish that is not made, and nothing of a figure without rounds", async () => {
    shown(0, null);
    expect((await screen.findByRole("status")).textContent).toMatch(/by the estimate\./);
    shown(0, 80, []);
    expect(screen.getAllByRole("status")).toHaveLength(1);
  });
});
