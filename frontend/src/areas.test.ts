/** How the areas of the front end stand on each other: each imports only areas below it, and only through their doors. */
import { describe, expect, it } from "vitest";

const TEXTS = import.meta.glob<string>(["./*/*.{ts,tsx}", "!./**/*.test.*"], {
  query: "?raw",
  import: "default",
  eager: true,
});

/** From the ground up; the doors of an area are the modules that others may import. */
const AREAS: Record<string, readonly string[]> = {
  api: ["client", "jobs", "schema", "words.json"],
  ui: [
    "broken",
    "controls",
    "file-button",
    "form",
    "ground",
    "job-bar",
    "keys",
    "moved",
    "overlays",
    "refused",
    "told-once",
    "units",
    "use-name",
  ],
  yarns: ["basket", "basket-page", "forms"],
  figure: [
    "ladder",
    "settled",
    "silhouette",
    "stage",
    "use-latest",
    "use-rest",
    "use-settled",
    "views",
    "whole-scene",
  ],
  design: [
    ...["design", "head", "in-turn", "layout", "pending", "save-state", "stop-main"],
    ...["palette", "terms", "unsent", "use-leaving", "use-page", "use-picture", "use-unsent"],
  ],
  accounts: ["account-dialog", "door", "session"],
  bringing: ["bring-in"],
  rounds: ["ask", "rounds", "views"],
  shapes: ["question", "recipe", "shapes", "silhouettes"],
  assembly: ["assembly", "places", "use-scene"],
  sizes: ["sizes", "size-picture", "use-table"],
  pieces: ["find-piece", "piece-card", "pieces", "pieces-page", "terms-fields"],
  bases: ["bases"],
  booklet: ["booklet"],
  brief: ["brief"],
  gauge: ["gauge"],
  making: ["figure-now", "store"],
  proving: ["proving"],
  shelf: ["shelf"],
};

const ORDER = Object.keys(AREAS);

type Way = { from: string; file: string; to: string; module: string };

/** A module's area and its name there, from an address that begins in another file of this area. */
function reached(address: string, own: string): [area: string, module: string] {
  const [up, area = "", ...rest] = address.split("/");
  return up === ".." ? [area, rest.join("/")] : [own, area];
}

/** Every import of a module of another area, by `import` and by `import()`. */
function ways(): Way[] {
  return Object.entries(TEXTS).flatMap(([file, text]) => {
    const own = file.split("/")[1] ?? "";
    return [...text.matchAll(/(?:from |import\()\s*"(\.{1,2}\/[^"]+)"/g)].flatMap((found) => {
      const [to, module] = reached(found[1] ?? "", own);
      return to === own ? [] : [{ from: own, file, to, module }];
    });
  });
}

describe("areas of the front end", () => {
  const all = ways();
  it("are all known", () => {
    const folders = new Set(Object.keys(TEXTS).map((file) => file.split("/")[1]));
    expect([...folders].sort()).toEqual([...ORDER].sort());
    expect(all.length).toBeGreaterThan(100);
  });
  it("import only areas below them", () => {
    const up = all.filter(({ from, to }) => ORDER.indexOf(from) <= ORDER.indexOf(to));
    expect(up).toEqual([]);
  });
  it("are entered through their doors", () => {
    expect(all.filter(({ to, module }) => !AREAS[to]?.includes(module))).toEqual([]);
  });
});
