import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Broken } from "./broken";

let throws = true;

function Stop() {
  if (throws) throw new Error("a stitch too many");
  return <p>The rounds</p>;
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("a screen that throws", () => {
  it("says so in its place while everything around it goes on, and can be tried again", async () => {
    vi.spyOn(console, "error").mockImplementation(() => {});
    throws = true;
    render(
      <>
        <nav>The other stops</nav>
        <Broken>
          <Stop />
        </Broken>
      </>,
    );
    expect(screen.getByText("The other stops")).toBeTruthy();
    expect(screen.getByRole("alert").textContent).toContain("What was saved is safe");
    expect(screen.getByRole("alert").textContent).not.toContain("a stitch too many");
    throws = false;
    await userEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(screen.getByText("The rounds")).toBeTruthy();
    expect(screen.queryByRole("alert")).toBeNull();
  });
});
