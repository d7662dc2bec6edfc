import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { NumberField, readNumber, TextField } from "./controls";
import { cm, inches, rounded, spread } from "./units";

describe("typed numbers", () => {
  it.each([
    ["12", 12],
    [" 12,5 ", 12.5],
    ["", "Type a number from 5 to 600."],
    ["pear", "“pear” is no number."],
    ["-3", "It must be from 5 to 600."],
    ["1e9", "It must be from 5 to 600."],
    ["Infinity", "“Infinity” is no number."],
  ])("%s", (text, meant) => {
    expect(readNumber(text, 5, 600, false)).toBe(meant);
  });
  it("may be left out where that makes sense", () => {
    expect(readNumber(" ", 5, 600, true)).toBeNull();
  });
});

function Wide({ heard }: { heard: (n: number | null) => void }) {
  const [value, setValue] = useState<number | null>(40);
  return (
    <NumberField
      label="Width"
      unit="mm"
      least={5}
      most={600}
      value={value}
      onValue={(n) => {
        heard(n);
        setValue(n);
      }}
    />
  );
}

describe("a number field", () => {
  it("hears only what makes sense, and says what is wrong at its place", async () => {
    const heard = vi.fn();
    render(<Wide heard={heard} />);
    const input = screen.getByLabelText("Width (mm)");
    await userEvent.clear(input);
    await userEvent.type(input, "x");
    expect(screen.getByRole("alert").textContent).toBe("“x” is no number.");
    expect(input.getAttribute("aria-invalid")).toBe("true");
    expect(input.getAttribute("aria-describedby")).toBe(screen.getByRole("alert").id);
    expect(heard).not.toHaveBeenCalled();
    await userEvent.clear(input);
    await userEvent.type(input, "72");
    expect(heard).toHaveBeenLastCalledWith(72);
    expect(screen.queryByRole("alert")).toBeNull();
  });
  it("keeps what is refused as it was typed, with the reason, after she has left it", async () => {
    const heard = vi.fn();
    render(<Wide heard={heard} />);
    const input = screen.getByLabelText("Width (mm)") as HTMLInputElement;
    await userEvent.clear(input);
    await userEvent.type(input, "99999");
    await userEvent.tab();
    expect(input.value).toBe("99999");
    expect(screen.getByRole("alert").textContent).toBe("It must be from 5 to 600.");
    expect(heard.mock.calls.every(([n]) => n <= 600)).toBe(true);
    await userEvent.clear(input);
    await userEvent.type(input, "60");
    await userEvent.tab();
    expect(screen.queryByRole("alert")).toBeNull();
  });
  it("that is heard on leaving takes the whole number, not its first digit", async () => {
    const heard = vi.fn();
    render(
      <NumberField
        label="That length is"
        unit="mm"
        least={1}
        most={2000}
        value={null}
        onValue={heard}
        heard="leaving"
      />,
    );
    const input = screen.getByLabelText("That length is (mm)");
    await userEvent.type(input, "120");
    expect(heard).not.toHaveBeenCalled();
    await userEvent.tab();
    expect(heard.mock.calls).toEqual([[120]]);
  });
  it("moves with the arrow keys, within its bounds", () => {
    const heard = vi.fn();
    render(<Wide heard={heard} />);
    const input = screen.getByLabelText("Width (mm)");
    fireEvent.keyDown(input, { key: "ArrowUp" });
    expect(heard).toHaveBeenLastCalledWith(41);
    fireEvent.keyDown(input, { key: "ArrowDown" });
    expect(heard).toHaveBeenLastCalledWith(40);
  });
});

it("a field's error is tied to it", () => {
  render(<TextField label="Name" error="That name is taken." />);
  expect(screen.getByLabelText("Name").getAttribute("aria-describedby")).toBe(screen.getByRole("alert").id);
});

it("lengths read as people say them", () => {
  expect([cm(74.4), cm(180), cm(182.6), inches(70), inches(180)]).toEqual([
    "7.4 cm",
    "18 cm",
    "18.5 cm",
    "2¾ in",
    "7 in",
  ]);
  expect(rounded(2, 1)).toBe("2");
  expect(spread({ value: 100, low: 88, high: 112, how: "" })).toBe(12);
});
