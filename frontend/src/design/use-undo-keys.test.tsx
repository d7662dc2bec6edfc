import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { useUndoKeys } from "./use-undo-keys";

function Design({ act }: { act: (change: { do: string }) => void }) {
  useUndoKeys(act);
  return (
    <>
      <button type="button">Bench</button>
      <input aria-label="Rounds" />
      <div role="dialog">
        <button type="button">In the dialog</button>
      </div>
    </>
  );
}

test.each([
  ["z", false, "undo"],
  ["z", true, "redo"],
  ["y", false, "redo"],
])("%s (shift %s) on the bench does %s", (key, shiftKey, what) => {
  const act = vi.fn();
  render(<Design act={act} />);
  fireEvent.keyDown(screen.getByText("Bench"), { key, shiftKey, ctrlKey: true });
  expect(act).toHaveBeenCalledExactlyOnceWith({ do: what });
});

test("while typing and in a dialog the design is not undone", () => {
  const act = vi.fn();
  render(<Design act={act} />);
  for (const place of [screen.getByLabelText("Rounds"), screen.getByText("In the dialog")])
    for (const key of ["z", "y"]) fireEvent.keyDown(place, { key, ctrlKey: true });
  expect(act).not.toHaveBeenCalled();
});
