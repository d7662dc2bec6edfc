"""Rows for parts that settle slimmer or stouter at a size than their counts say."""

from __future__ import annotations

import math
import re

import pytest

from benchmarks.grading import MOST_OFF, PLUSH, demo_designs
from craft.design.design import Design
from craft.design.grading import SettledShape, Sized, State, by_gauge, first_size, proportions_settled, scaled
from craft.design.grading.settled import SAID
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.figure.settling import measure, settle

TUBE = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4-R15: sc around\nR16: (sc, dec) x 6\nR17: dec x 6\n"


def first_of(design: Design) -> Sized:
    return first_size(design, run_parts(design))


@pytest.fixture(scope="module")
def tube() -> Sized:
    return first_of(Design("Tube", parts=(Part("k", "Tube", TUBE),)))


def shape(height: float, width: float) -> SettledShape:
    return SettledShape(height, math.pi * width)


def test_a_part_that_settles_as_it_was_reckoned_has_no_row(tube: Sized) -> None:
    larger = scaled(tube, 1.5)
    for off in (0.97, 1.0, 1.04):
        assert proportions_settled(tube, larger, {"k": shape(80, 40)}, {"k": shape(120 * off, 60)}) == ()


@pytest.mark.parametrize(("off", "than", "way"), [(0.9, "stouter", "more"), (1.1, "slimmer", "fewer")])
def test_one_that_does_not_says_by_how_much_and_what_brings_it_back(
    tube: Sized, off: float, than: str, way: str
) -> None:
    larger = scaled(tube, 1.5)
    (row,) = proportions_settled(tube, larger, {"k": shape(80, 40)}, {"k": shape(120 * off, 60)})
    assert (row.part, row.kind, row.state) == ("Tube", "proportions", State.CHANGED)
    assert (row.before, row.after) == (
        "settles 2.00 times as high as wide",
        f"settles {2 * off:.2f} times as high as wide",
    )
    assert f"The settled fabric is 10% {than}" in row.why
    rounds = int(re.search(r"(\d+) plain rounds? (?:more|fewer)", row.why)[1])  # type: ignore[index]
    assert way in row.why
    assert rounds * tube.gauge.round_mm == pytest.approx(12, abs=tube.gauge.round_mm / 2)


def test_less_than_a_round_is_said_to_be_that(tube: Sized) -> None:
    (row,) = proportions_settled(tube, scaled(tube, 1.5), {"k": shape(4, 8)}, {"k": shape(4.4, 8)})
    assert row.why.endswith("That is less than a round.")


def test_what_the_counts_say_already_is_not_said_again() -> None:
    dome = first_of(Design("Dome", parts=(Part("k", "Dome", "R1: 6 sc in ring\nR2: inc x 6\nR3-R4: sc around\n"),)))
    small = scaled(dome, 0.6)
    assert any(f.kind in SAID for f in small.parts[0].features)
    assert proportions_settled(dome, small, {"k": shape(10, 10)}, {"k": shape(5, 10)}) == ()


def test_a_part_that_is_not_settled_yet_is_passed_over(tube: Sized) -> None:
    assert proportions_settled(tube, scaled(tube, 1.5), {"k": shape(80, 40)}, {}) == ()
    with pytest.raises(CraftError):
        SettledShape(0.0, 10.0)


@pytest.mark.parametrize("design", list(demo_designs()), ids=lambda d: d.name)
def test_every_part_of_the_demo_is_made_at_every_twentieth_between(design: Design) -> None:
    """From 60 % to 240 % in steps of 5 %: only what is too small for its yarn stays as it is."""
    first = first_of(design)
    for step in range(12, 49):
        for part in scaled(first, step / 20).parts:
            if part.how == "not sized":
                (row,) = [f for f in part.features if f.kind == "part"]
                assert "less than two rounds or 6 stitches" in row.why, (step, row.why)


def settled_shape(sized: Sized, key: str) -> SettledShape:
    part = next(p for p in sized.parts if p.source.key == key)
    found = measure(settle(part.worked, part.gauge))
    return SettledShape(found.height_mm, max(r.girth_mm for r in found.rounds))


@pytest.mark.parametrize("design", list(demo_designs()), ids=lambda d: d.name)
def test_no_part_of_the_demo_changes_its_proportions_unsaid(design: Design) -> None:
    """In plush and at 150 %: within 5 %, or a row that says why. (At 60 %, and all figures: bench grading-truth.)"""
    first = first_of(design)
    keys = [p.source.key for p in first.parts if len(p.worked.rounds) < 30]
    before = {key: settled_shape(first, key) for key in keys}
    for sized in (scaled(first, 1.5), by_gauge(first, PLUSH)):
        after = {key: settled_shape(sized, key) for key in keys}
        rows = [f for p in sized.parts for f in p.features if f.kind in SAID]
        rows += proportions_settled(first, sized, before, after)
        told = {f.part for f in rows}
        for part in sized.parts:
            key = part.source.key
            if key in before and abs(after[key].slimness / before[key].slimness - 1) > MOST_OFF:
                assert part.source.name in told, part.source.name
