import { act, fireEvent, render, renderHook, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { layStitches } from "./geometry";
import { Ladder } from "./ladder";
import { rungPath } from "./rung";
import { bands } from "./rungs";
import type { FigurePart, Round } from "./types";
import { stitchesFor } from "./use-drag";
import { useLatest } from "./use-latest";

function round(label: string, live: number, more: Partial<Round> = {}): Round {
  return {
    label,
    line: 1,
    taken: live,
    made: live,
    live,
    stated: live,
    marks: [],
    loops: "both",
    lie: "wall",
    radius: live,
    z: 0,
    height: 5,
    turn: 0,
    colours: [0],
    sentence: `${label}: ${live} stitches`,
    drawn: true,
    flat: false,
    held: 0,
    rest: 0,
    holes: [],
    section: "",
    plain: true,
    shift: 0,
    ...more,
  };
}

const PART: FigurePart = {
  rounds: [
    round("R1", 6, { z: 1 }),
    round("R2", 12, {
      z: 4,
      marks: [
        [0, 1],
        [6, 1],
      ],
    }),
    round("R3", 12, { z: 9, colours: [0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1] }),
  ],
  colours: ["#aa7744", "#ffffff"],
  closed: false,
};

describe("what lies flat", () => {
  const rows = [1, 2].map((n) => round(`Row ${n}`, 4, { flat: true, radius: 10, z: 5 * n }));
  const at = (matrices: Float32Array, k: number) => [...matrices.slice(16 * k + 12, 16 * k + 15)];
  it("lies in one plane, as wide as its rows", () => {
    const { matrices, count } = layStitches({ ...PART, layers: 1, rounds: rows });
    expect(count).toBe(8);
    const places = Array.from({ length: 8 }, (_, k) => at(matrices, k));
    expect(new Set(places.map(([, y]) => y))).toEqual(new Set([0]));
    expect(places.slice(0, 4).map(([x]) => x)).toEqual([7.5, 2.5, -2.5, -7.5]);
    expect(places.map(([, , z]) => z)).toEqual([2.5, 2.5, 2.5, 2.5, 7.5, 7.5, 7.5, 7.5]);
  });
  it("has half of a pressed tube's stitches behind the others", () => {
    const { matrices } = layStitches({ ...PART, layers: 2, rounds: rows });
    const places = Array.from({ length: 4 }, (_, k) => at(matrices, k));
    expect(places.map(([x]) => x)).toEqual([5, -5, -5, 5]);
    expect(places.map(([, y]) => y)).toEqual([-5, -5, 5, 5]);
  });
});

describe("a rung", () => {
  const width = (path: string) => {
    const xs = [...path.matchAll(/[ML](-?[\d.]+) /g)].map((m) => Number(m[1]));
    return Math.max(...xs) - Math.min(...xs);
  };
  it("is as wide as its round", () => {
    expect(width(rungPath(12, 12, [], 5, 10))).toBe(60);
  });
  it("is notched up at an increase and nicked at a decrease, in the true place", () => {
    const up = rungPath(12, 12, [[5, 1]], 5, 10);
    expect(up).toContain("L0 -15");
    const down = rungPath(10, 10, [[2, -1]], 5, 10);
    expect(down).toContain("L-12.5 -5");
  });
});

it("colours of a round are bands on its rung", () => {
  expect(bands({ colours: [0] })).toEqual([{ colour: 0, from: 0, to: 1 }]);
  expect(bands({ colours: [0, 1, 1, 0] })).toEqual([
    { colour: 0, from: 0, to: 0.25 },
    { colour: 1, from: 0.25, to: 0.75 },
    { colour: 0, from: 0.75, to: 1 },
  ]);
});

describe("the ladder", () => {
  it("reads as sentences and walks with the keys", () => {
    const lit = vi.fn();
    render(
      <Ladder
        part={PART}
        label="Ladder of Body"
        lit={0}
        onLit={lit}
        faults={new Map([[1, { severity: "fault", message: "too many" }]])}
      />,
    );
    expect(screen.getAllByRole("option").map((o) => o.getAttribute("aria-label"))).toEqual([
      "R1: 6 stitches",
      "R2: 12 stitches; too many",
      "R3: 12 stitches",
    ]);
    const box = screen.getByRole("listbox", { name: "Ladder of Body" });
    fireEvent.keyDown(box, { key: "ArrowUp" });
    expect(lit).toHaveBeenLastCalledWith(1);
    fireEvent.keyDown(box, { key: "End" });
    expect(lit).toHaveBeenLastCalledWith(2);
    fireEvent.keyDown(box, { key: "x" });
    expect(lit).toHaveBeenCalledTimes(2);
    expect(box.getAttribute("aria-activedescendant")).toBe(screen.getAllByRole("option")[0]?.id);
  });
  it("runs from right to left for a left-hander, and what is written stays readable", () => {
    const { container } = render(<Ladder part={PART} label="Body" mirrored onLit={() => {}} />);
    const turned = container.querySelectorAll("[data-rung] > g[transform='scale(-1 1)']");
    expect(turned).toHaveLength(3);
    for (const text of container.querySelectorAll("text"))
      expect(text.closest("g[transform='scale(-1 1)']")).toBeNull();
  });
  it("lights the round that the pointer moves to, once", () => {
    const lit = vi.fn();
    const { rerender } = render(<Ladder part={PART} label="Body" onLit={lit} />);
    const rung = screen.getAllByRole("option")[1] as Element;
    fireEvent.pointerEnter(rung);
    expect(lit).not.toHaveBeenCalled();
    fireEvent.pointerMove(rung);
    expect(lit).toHaveBeenCalledWith(1);
    rerender(<Ladder part={PART} label="Body" lit={1} onLit={lit} />);
    fireEvent.pointerMove(rung);
    expect(lit).toHaveBeenCalledTimes(1);
  });
  it("is a picture with a name where it is not for walking", () => {
    render(<Ladder part={PART} label="Body" compact />);
    expect(screen.getByRole("img").getAttribute("aria-label")).toBe("Body: 3 rounds, at most 12 stitches");
  });
});

it("every stitch has its place, colour and round", () => {
  const laid = layStitches(PART);
  expect(laid.count).toBe(30);
  expect([...laid.rounds].filter((r) => r === 1)).toHaveLength(12);
  expect([...laid.colours].filter((c) => c === 1)).toHaveLength(6);
  expect(laid.matrices.every(Number.isFinite)).toBe(true);
  const [x, y] = [laid.matrices[12] ?? 0, laid.matrices[13] ?? 0];
  expect(y).toBeLessThan(0);
  expect(x).toBeLessThan(0);
});

describe("one question in flight", () => {
  it("skips to the newest and shows only its answer", async () => {
    const open: ((v: string) => void)[] = [];
    const asked: number[] = [];
    const ask = (q: number) => {
      asked.push(q);
      return new Promise<string>((done) => open.push(done));
    };
    const { result, rerender } = renderHook(({ q }) => useLatest(q, ask), { initialProps: { q: 1 } });
    for (const q of [2, 3, 4]) rerender({ q });
    await act(async () => open[0]?.("one"));
    expect(asked).toEqual([1, 4]);
    expect(result.current.answer).toBeNull();
    await act(async () => open[1]?.("four"));
    expect(result.current).toMatchObject({ answer: "four", current: true, error: null });
  });
  it("tells what went wrong, and goes on", async () => {
    const ask = async (q: number) => {
      if (q === 1) throw new Error("no");
      return q;
    };
    const { result, rerender } = renderHook(({ q }) => useLatest(q, ask), { initialProps: { q: 1 } });
    await act(async () => {});
    expect(result.current.error).toBeInstanceOf(Error);
    rerender({ q: 2 });
    expect(result.current.current).toBe(false);
    await act(async () => {});
    expect(result.current).toMatchObject({ answer: 2, current: true, error: null });
  });
});

describe("the ladder as a tool", () => {
  it("gives a round more or fewer stitches by key, and moves shaping with Alt", () => {
    const widen = vi.fn();
    const move = vi.fn();
    render(<Ladder part={PART} label="Ladder" lit={1} onLit={vi.fn()} onWiden={widen} onMove={move} />);
    const list = screen.getByRole("listbox");
    fireEvent.keyDown(list, { key: "ArrowRight" });
    fireEvent.keyDown(list, { key: "ArrowLeft" });
    fireEvent.keyDown(list, { key: "ArrowRight", altKey: true });
    expect(widen.mock.calls).toEqual([
      [1, 1],
      [1, -1],
    ]);
    expect(move).toHaveBeenCalledWith(1);
  });

  it("chooses a run of rounds with Shift", () => {
    const choose = vi.fn();
    render(
      <Ladder
        part={PART}
        label="Ladder"
        lit={0}
        onLit={vi.fn()}
        range={{ from: 0, to: 0 }}
        onRange={choose}
      />,
    );
    fireEvent.keyDown(screen.getByRole("listbox"), { key: "ArrowUp", shiftKey: true });
    expect(choose).toHaveBeenCalledWith({ from: 0, to: 1 });
  });

  it("counts two stitches for every stitch's width that an end is pulled", () => {
    expect([stitchesFor(0, 5), stitchesFor(5, 5), stitchesFor(-7.6, 5)]).toEqual([0, 2, -3]);
  });
});
