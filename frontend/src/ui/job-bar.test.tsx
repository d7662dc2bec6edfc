import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { JobBar, placeInLine } from "./job-bar";

describe("a job's bar", () => {
  it("tells how many come before it while it waits", () => {
    render(
      <JobBar name="Settling" way={{ percent: 0, ahead: 3 }}>
        Settling …
      </JobBar>,
    );
    expect(screen.getByRole("status").textContent).toBe("3 before it in lineSettling …");
    expect(screen.getByRole("progressbar", { name: "Settling" })).toHaveProperty("value", 0);
  });
  it("says nothing of a line that it does not stand in", () => {
    expect([placeInLine(null), placeInLine(0)]).toEqual(["", ""]);
  });
});
