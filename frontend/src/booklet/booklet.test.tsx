/** The reading desk: what is asked for, where findings are mended, how photographs are cut, what a release asks. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, within } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Overlays } from "../ui/overlays";
import { cutTo, edgesOf } from "./cropping";
import { editionsOf, fileUrl, firstAsked, shownUrl } from "./edition";
import { NextRelease } from "./next-release";
import { orderOf, put } from "./order";
import { moved } from "./photos";
import { Findings, wayTo } from "./proof";
import { sizeSaid } from "./releases";
import { translated } from "./translated";
import { Errata } from "./what-is-new";

const DESIGN = {
  id: 7,
  name: "Moth",
  revision: 3,
  terms: "uk",
  origin: null,
  sizes: { sizes: [{ key: "tall0001", name: "tall", kind: "height" }] },
} as unknown as Design;

const FINDING: Schemas["FindingOut"] = {
  code: "count",
  blocks: true,
  forbids: false,
  text: "Body: R3 is wrong.",
  stop: "rounds",
  part: "abcd",
  round: 3,
  step: null,
};

function shown(children: ReactNode) {
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <Overlays>
        <MemoryRouter>{children}</MemoryRouter>
      </Overlays>
    </QueryClientProvider>,
  );
}

describe("editions", () => {
  it("begin in the design's own terms and name every size", () => {
    expect(firstAsked(DESIGN).terms).toBe("uk");
    expect(editionsOf(DESIGN).map(([key]) => key)).toEqual(["as-it-is", "all", "tall0001"]);
  });

  it("are told in the address of every file and picture", () => {
    const asked = { ...firstAsked(DESIGN), edition: "tall0001", large: true };
    const file = new URL(fileUrl(DESIGN, asked, "pdf"), "http://x");
    expect(file.pathname).toBe("/api/designs/7/booklet.pdf");
    expect(Object.fromEntries(file.searchParams)).toMatchObject({
      edition: "tall0001",
      terms: "uk",
      large: "true",
    });
    expect(shownUrl(DESIGN, asked, "step:a&b")).toContain("key=step%3Aa%26b&revision=3");
  });
});

describe("translations", () => {
  it("replace each other by what they translate, and an empty one is none", () => {
    const one = translated([], "de", "A moth.", "Eine Motte.");
    expect(one).toEqual([{ language: "de", source: "A moth.", text: "Eine Motte." }]);
    const two = translated(one, "fr", "A moth.", "Un papillon.");
    expect(two).toHaveLength(2);
    expect(translated(two, "de", "A moth.", " ")).toEqual([
      { language: "fr", source: "A moth.", text: "Un papillon." },
    ]);
  });
});

describe("the order of parts", () => {
  const parts = ["a", "b", "c"].map((key) => ({ key })) as Design["parts"];
  it("begins with what was put in order, and forgets what is gone", () => {
    expect(orderOf({ parts }, ["c", "gone"])).toEqual(["c", "a", "b"]);
    expect(put(["a", "b", "c"], 0, 2)).toEqual(["b", "c", "a"]);
  });
});

describe("findings", () => {
  it("lead to the part at its stop", () => {
    expect(wayTo(DESIGN, FINDING)).toBe("/designs/7/rounds?part=abcd&round=3");
    expect(wayTo(DESIGN, { ...FINDING, round: null })).toBe("/designs/7/rounds?part=abcd");
    expect(wayTo(DESIGN, { ...FINDING, stop: "assembly", step: "ear1" })).toBe(
      "/designs/7/assembly?step=ear1",
    );
    expect(wayTo(DESIGN, { ...FINDING, stop: "brief", part: null })).toBe("/designs/7/brief");
    shown(<Findings design={DESIGN} title="Blocks the release" found={[FINDING]} bad />);
    expect(screen.getByRole("link", { name: "Rounds" }).getAttribute("href")).toBe(
      "/designs/7/rounds?part=abcd&round=3",
    );
    expect(screen.getByText("Blocks the release (1)")).toBeTruthy();
  });
});

describe("photographs", () => {
  it("are cut at their edges, and some of them always stays", () => {
    const photo = { key: "a", picture: 1, left: 0.1, top: 0, wide: 0.6, tall: 1 };
    expect(edgesOf(photo)).toEqual({ left: 10, top: 0, right: 30, bottom: 0 });
    expect(cutTo({ left: 10, top: 0, right: 30, bottom: 0 })).toEqual({
      left: 0.1,
      top: 0,
      wide: 0.6,
      tall: 1,
    });
    const least = cutTo({ left: 95, top: 0, right: 95, bottom: 0 });
    expect(least.wide).toBeCloseTo(0.05);
    expect((least.left ?? 0) + (least.wide ?? 0)).toBeLessThanOrEqual(1);
  });

  it("are moved among each other", () => {
    expect(moved(["a", "b", "c"], 2, -1)).toEqual(["a", "c", "b"]);
    expect(moved(["a", "b", "c"], 0, 1)).toEqual(["b", "a", "c"]);
  });
});

describe("the next release", () => {
  const next: Schemas["NextRelease"] = {
    number: 2,
    version: "1.1",
    blocked: true,
    findings: [FINDING],
    errata: [{ part: "Body", at: "R3", before: "18 sc", after: "(sc, inc) x 6" }],
    changes: "Body, R3: new",
    unchanged: false,
  };

  it("is made only with a reason while something blocks it", () => {
    const post = vi.spyOn(globalThis, "fetch").mockResolvedValue(Response.json({}, { status: 201 }));
    shown(<NextRelease design={DESIGN} next={next} first={firstAsked(DESIGN)} onClose={() => {}} />);
    const make = screen.getByRole<HTMLButtonElement>("button", { name: "Release it all the same" });
    expect(make.disabled).toBe(true);
    fireEvent.change(screen.getByLabelText("Release it all the same, because"), {
      target: { value: "For testers." },
    });
    expect(make.disabled).toBe(false);
    post.mockRestore();
  });

  it("is made with no reason at all while terms of others forbid it", () => {
    const terms = { ...FINDING, code: "terms-private", forbids: true, text: "Stump arm may not be changed." };
    shown(
      <NextRelease
        design={DESIGN}
        next={{ ...next, findings: [terms] }}
        first={firstAsked(DESIGN)}
        onClose={() => {}}
      />,
    );
    expect(screen.getByText("Stump arm may not be changed.")).toBeTruthy();
    expect(screen.queryByLabelText("Release it all the same, because")).toBeNull();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Make release 2" }).disabled).toBe(true);
  });

  it("needs a file, and may have several editions", () => {
    shown(
      <NextRelease
        design={DESIGN}
        next={{ ...next, blocked: false, findings: [] }}
        first={{ ...firstAsked(DESIGN), files: ["pdf"] }}
        onClose={() => {}}
      />,
    );
    const make = screen.getByRole<HTMLButtonElement>("button", { name: "Make release 2" });
    const one = within(screen.getByRole("listitem", { name: "Edition 1" }));
    fireEvent.click(one.getByLabelText("PDF"));
    expect(make.disabled).toBe(true);
    fireEvent.click(one.getByLabelText("EPUB"));
    expect(make.disabled).toBe(false);
    fireEvent.click(screen.getByRole("button", { name: "Another edition" }));
    expect(screen.getAllByRole("listitem", { name: /^Edition/ })).toHaveLength(2);
    fireEvent.click(screen.getByRole("button", { name: "Leave edition 2 out" }));
    expect(screen.getAllByRole("listitem", { name: /^Edition/ })).toHaveLength(1);
  });

  it("shows old beside new", () => {
    shown(<Errata found={next.errata} />);
    expect(screen.getAllByRole("row").map((r) => r.textContent)).toEqual([
      "WhereWasIs now",
      "Body, R318 sc(sc, inc) x 6",
    ]);
  });

  it("says sizes as people do", () => {
    expect([sizeSaid(400), sizeSaid(45_600), sizeSaid(2_340_000)]).toEqual(["1 kB", "46 kB", "2.3 MB"]);
  });
});
