"""Sizes, measured: how fast a figure is made at six sizes, and how true its settled proportions stay."""

from __future__ import annotations

import json
import time
from pathlib import Path

import numpy as np

from craft.design.design import Design
from craft.design.grading import Sized, State, first_size, scaled
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart

DEMO = Path(__file__).parents[1] / "studio/demo/lanternwick.json"
SIX = (0.6, 0.8, 1.2, 1.5, 2.0, 2.5)
TRUTH = (0.6, 1.5)
MOST_STITCHES = 9_000

PLUSH = Gauge(11.0, 10.1)
"""A bulky plush yarn, where the same counts are about twice as large."""


def typed_designs() -> list[tuple[str, Design]]:
    """The demo's designs of typed rounds: ovals, short rows, splits, skirts, limbs worked in, wings in rows."""
    found = []
    for design in json.loads(DEMO.read_text())["designs"]:
        texts = [(p["name"], p.get("text"), p.get("make", 1)) for p in design["parts"]]
        if all(isinstance(text, list) for _, text, _ in texts):
            parts = tuple(Part(f"p{k}", n, "\n".join(t), m) for k, (n, t, m) in enumerate(texts))
            found.append((design["name"], Design(design["name"], parts=parts)))
    return found


def _first(design: Design) -> Sized:
    return first_size(design, run_parts(design))


def grading_speed_table() -> str:
    """Eight parts with features at six sizes, no settling; nothing remembered at the first go."""
    parts = [p for _, design in typed_designs() for p in design.parts]
    parts = [*parts, *parts][:8]
    figure = Design("Eight", parts=tuple(Part(f"k{k}", f"{p.name}", p.text, p.make) for k, p in enumerate(parts[:7])))
    eighth = Part(
        "k8", "Ball", "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4-R8: sc around\nR9: (sc, dec) x 6\n"
    )
    first = _first(Design("Eight", parts=(*figure.parts, eighth)))
    spent = []
    for _ in range(3):
        begun = time.perf_counter()
        for scale in SIX:
            scaled(first, scale)
        spent.append(time.perf_counter() - begun)
    rounds = sum(len(p.worked.rounds) for p in first.parts)
    return (
        f"Sizes: {len(first.parts)} parts with features, {rounds} rounds, at {len(SIX)} sizes (asked: 0.5 s)\n"
        f"first go       {spent[0]:.2f} s\n"
        f"again          {min(spent[1:]):.2f} s"
    )


def grading_truth_table() -> str:
    """Every typed part of the demo settled at its first size and at others: how its height over width changed."""
    lines = [
        "Settled proportions at other sizes: height over width against the first size's",
        f"{'design':<15}{'part':<10}{'size':>6}{'rounds':>8}{'stitches':>10}{'h / w':>8}{'change %':>10}  told",
    ]
    for name, design in typed_designs():
        first = _first(design)
        bases = {p.source.key: _aspect(p.worked, first.gauge) for p in first.parts}
        for scale in TRUTH:
            sized = scaled(first, scale)
            for part in sized.parts:
                lines.append(_truth_line(name, f"{scale:g}", part.worked, bases[part.source.key], first.gauge, sized))
        for part in first.parts:
            lines.append(_truth_line(name, "plush", part.worked, bases[part.source.key], PLUSH, first))
    return "\n".join(lines)


def _truth_line(design: str, size: str, part: WorkedPart, base: float | None, gauge: Gauge, sized: Sized) -> str:
    now = _aspect(part, gauge)
    told = [f.kind for f in sized.features if f.part == part.name and f.state in (State.CHANGED, State.LOST)]
    change = f"{100 * (now / base - 1):>+10.1f}" if now and base else f"{'-':>10}"
    shown = f"{now:>8.2f}" if now else f"{'-':>8}"
    stitches = sum(t.made for t in part.rounds)
    head = f"{design:<15}{part.name or '':<10}{size:>6}{len(part.rounds):>8}{stitches:>10}"
    return f"{head}{shown}{change}  {', '.join(told)}"


def _aspect(part: WorkedPart, gauge: Gauge) -> float | None:
    """Height over width of a part at rest; None for one that does not settle, or is too large to wait for."""
    if sum(t.made for t in part.rounds) > MOST_STITCHES:
        return None
    try:
        x = settle(part, gauge).x
    except CraftError:
        return None
    tall, wide, deep = np.ptp(x[:, 2]), np.ptp(x[:, 0]), np.ptp(x[:, 1])
    return float(tall / max(wide, deep))
