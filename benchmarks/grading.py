"""Sizes, measured: how fast a figure is made at six sizes, and how true its settled proportions stay."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

from craft.design.design import Design
from craft.design.grading import PartAtSize, SettledShape, Sized, by_gauge, first_size, proportions_settled, scaled
from craft.design.grading.settled import SAID
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.figure.settling import measure, settle
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft, suggested_start
from craft.shape.stored import form_of
from craft.text.notation import print_rounds

DEMO = Path(__file__).parents[1] / "studio/demo/lanternwick.json"
SIX = (0.6, 0.8, 1.2, 1.5, 2.0, 2.5)
TRUTH = (0.6, 1.5)
MOST_STITCHES = 9_000
MOST_OFF = 0.05

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


def demo_designs() -> Iterator[Design]:
    """Every design of the demo: parts as they are typed, and those with a form drafted at the gauge of the design."""
    for design in json.loads(DEMO.read_text())["designs"]:
        gauge = Design(design["name"]).gauge_now
        parts = tuple(_demo_part(f"p{k}", part, gauge) for k, part in enumerate(design["parts"]))
        yield Design(design["name"], parts=parts)


def _demo_part(key: str, part: dict[str, Any], gauge: Gauge) -> Part:
    make = part.get("make", 1)
    if "solid" not in part and "form" not in part:
        return Part(key, part["name"], "\n".join(part["text"]), make)
    form = form_of(part.get("form") or {"base": "solid", **part["solid"]})
    recipe = Recipe(form, suggested_start(form, gauge))
    return Part(key, part["name"], print_rounds(draft(recipe, gauge).part), make, recipe=recipe, drafted=True)


def grading_truth_table() -> str:
    """Every part of every demo design settled at its first size, at others and in plush: how slim it is against the
    first, and whether the report says so where that is more than 5 %."""
    lines = [
        "Settled proportions at other sizes: height over width against the first size's",
        f"{'design':<16}{'part':<9}{'size':>6}{'rounds':>8}{'h / w':>8}{'change %':>10}  told",
    ]
    offs: list[tuple[float, bool]] = []
    for design in demo_designs():
        first = _first(design)
        before = _shapes(first)
        for size, sized in (*((f"{s:g}", scaled(first, s)) for s in TRUTH), ("plush", by_gauge(first, PLUSH))):
            after = _shapes(sized)
            rows = [f for p in sized.parts for f in p.features if f.kind in SAID]
            rows += proportions_settled(first, sized, before, after)
            for part in sized.parts:
                told = [f.kind for f in rows if f.part == part.source.name]
                lines.append(_truth_line(design.name, size, part, before, after, told))
                if (off := _off(part.source.key, before, after)) is not None:
                    offs.append((abs(off), bool(told)))
    far = [told for off, told in offs if off > MOST_OFF]
    within = len(offs) - len(far)
    lines.append(
        f"{within} of {len(offs)} keep their proportions within {MOST_OFF:.0%}; of the other {len(far)}, {sum(far)} are told"
    )
    return "\n".join(lines)


def _off(key: str, before: Mapping[str, SettledShape], after: Mapping[str, SettledShape]) -> float | None:
    return after[key].slimness / before[key].slimness - 1 if key in before and key in after else None


def _truth_line(
    design: str,
    size: str,
    part: PartAtSize,
    before: Mapping[str, SettledShape],
    after: Mapping[str, SettledShape],
    told: list[str],
) -> str:
    off = _off(part.source.key, before, after)
    change = f"{100 * off:>+10.1f}" if off is not None else f"{'-':>10}"
    shape = after.get(part.source.key)
    shown = f"{shape.slimness:>8.2f}" if shape else f"{'-':>8}"
    head = f"{design:<16}{part.source.name:<9}{size:>6}{len(part.worked.rounds):>8}"
    return f"{head}{shown}{change}  {', '.join(told)}"


def _shapes(sized: Sized) -> dict[str, SettledShape]:
    """The parts as they settle, by key, as the Sizes stop has them: without those that are too large to wait for here."""
    found = {}
    for part in sized.parts:
        if sum(t.made for t in part.worked.rounds) > MOST_STITCHES:
            continue
        try:
            measures = measure(settle(part.worked, part.gauge))
        except CraftError:
            continue
        around = max((r.girth_mm for r in measures.rounds), default=0.0)
        if measures.height_mm > 0 and around > 0:
            found[part.source.key] = SettledShape(measures.height_mm, around)
    return found
