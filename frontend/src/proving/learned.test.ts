import { describe, expect, it } from "vitest";
import { told } from "./learned";
import type { Makings } from "./use-proving";

type One = Makings["learned"][number];
const one = (makers: number, ratio: number | null, share: number | null) =>
  ({ quantity: "height", pairs: [], makers, ratio, share }) as One;

describe("what makings say", () => {
  it("is nothing from one or two", () => {
    expect(told(one(1, null, null))).toBe("1 making: too few to reckon with (three are needed).");
    expect(told(one(2, null, null))).toContain("2 makings: too few");
  });
  it("names its spread and from how many it comes", () => {
    expect(told(one(4, 1.08, 0.05))).toBe(
      "+8 % against the estimate, give or take 5 %, by the median of 4 makings.",
    );
    expect(told(one(3, 0.94, 0.1))).toContain("−6 %");
  });
});
