import { describe, expect, it } from "vitest";
import type { Yarn } from "../yarns/basket";
import { entryOf } from "./add-size";

const YARN = {
  id: 4,
  name: "Fog",
  colour: "#9aa6a8",
  weight: 5,
  wraps: 7,
  plush: true,
  skein_m: 80,
  skein_g: 100,
  diameter_mm: 3.5,
} satisfies Yarn;
const ASKED = { name: "", hook: "6", strands: 2, height: 128 };

describe("a size that is asked for", () => {
  it("in another yarn keeps the yarn whole, and is called after it", () => {
    const { key, ...entry } = entryOf("yarn", ASKED, YARN) ?? { key: "" };
    expect(key).toMatch(/^[0-9a-f]{8}$/);
    expect(entry).toEqual({
      kind: "yarn",
      name: "Fog",
      hook_mm: 6,
      strands: 2,
      height_mm: null,
      yarn: {
        yarn_id: 4,
        name: "Fog",
        colour: "#9aa6a8",
        weight: 5,
        wraps: 7,
        plush: true,
        skein_m: 80,
        skein_g: 100,
      },
    });
  });
  it("at another height is called after it, unless she names it", () => {
    expect(entryOf("height", ASKED, undefined)).toMatchObject({
      name: "12.8 cm",
      height_mm: 128,
      yarn: null,
    });
    expect(entryOf("height", { ...ASKED, name: "No. 2 (tall)" }, undefined)?.name).toBe("No. 2 (tall)");
  });
  it("is none while the yarn or the height is missing", () => {
    expect(entryOf("yarn", ASKED, undefined)).toBeNull();
    expect(entryOf("height", { ...ASKED, height: null }, YARN)).toBeNull();
  });
});
