import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import { ConflictDialog } from "./conflict";

it("a conflict shows both texts and marks what differs", async () => {
  const settle = vi.fn();
  render(
    <ConflictDialog
      conflict={{ mine: "R1\nmine", theirs: "R1\ntheirs", etag: "t" }}
      name="Body"
      settle={settle}
    />,
  );
  const mine = screen.getByRole("region", { name: "Typed here" });
  expect(within(mine).getByText("mine").className).toContain("weld");
  expect(within(mine).getByText("R1").className).not.toContain("weld");
  await userEvent.click(within(mine).getByRole("button", { name: "Keep this text" }));
  expect(settle).toHaveBeenCalledWith("mine");
});

function Typing() {
  const [text, setText] = useState("");
  const conflict = text.length < 4 ? null : { mine: text, theirs: "theirs", etag: "t" };
  return (
    <>
      <textarea aria-label="Rounds" value={text} onChange={(e) => setText(e.target.value)} />
      <button type="button">In between</button>
      <ConflictDialog conflict={conflict} name="Body" settle={vi.fn()} />
    </>
  );
}

it("a conflict that opens while she types takes no key from her, is told aloud, and Tab leads to it", async () => {
  render(<Typing />);
  await userEvent.type(screen.getByLabelText("Rounds"), "typed right on");
  const mine = screen.getByRole("region", { name: "Typed here" });
  expect(within(mine).getByText("typed right on")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("Nothing is lost");
  await userEvent.tab();
  expect(document.activeElement?.textContent).toBe("Keep this text");
});
