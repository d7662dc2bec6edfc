"""Motifs and colours that repeat: as often as before, or as far from each other as before, as she chooses."""

from __future__ import annotations

import itertools

import numpy as np
import pytest

from craft.design.design import Design
from craft.design.grading import Sized, State, asked_for, at_size, phases_of
from craft.design.parts import Part
from craft.design.size import Size, SizeKind
from craft.rounds.stitches import STITCHES, Terms
from tests.craft.test_grading import first

AROUND = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\n"
DOTS = (
    AROUND
    + "R5: sc around\nR6: (3 sc, bobble) x 6\nR7-R8: sc around\nR9: (3 sc, bobble) x 6\nR10-R12: sc around [24]\n"
)
STRIPES = AROUND + "".join(f"R{n}: (with red, 2 sc, with white, 2 sc) x 6\n" for n in range(5, 13))


def graded(text: str, scale: float, *, apart: bool) -> Sized:
    sized = first(Design("Ball", parts=(Part("b", "Ball", text),)))
    widest = max(sized.parts[0].worked.counts)
    return at_size(sized, Size("s", "s", SizeKind.COUNT, count=round(widest * scale), apart=apart))


def bobbles(sized: Sized) -> list[int]:
    """How many bobbles each round has, of those that have any."""
    worked = sized.parts[0].worked
    number = list(STITCHES).index("bobble")
    many = (int(np.sum(worked.graph.kind[t.first : t.end] == number)) for t in worked.rounds)
    return [n for n in many if n]


@pytest.mark.parametrize("scale", [0.75, 1.5, 2.0])
def test_bobbles_keep_their_number_unless_she_says_otherwise(scale: float) -> None:
    assert bobbles(graded(DOTS, scale, apart=False)) == [6, 6]


@pytest.mark.parametrize("scale", [0.75, 1.5, 2.0])
def test_bobbles_come_at_the_distance_they_had(scale: float) -> None:
    sized = graded(DOTS, scale, apart=True)
    around = max(sized.parts[0].worked.counts)
    assert all(n == pytest.approx(around / 4, abs=1) for n in bobbles(sized))
    rounds = [k for k, line in enumerate(_written_out(sized)) if "bobble" in line]
    assert {b - a for a, b in itertools.pairwise(rounds)} <= {3}
    rows = [f for f in sized.features if f.kind == "bobble"]
    assert [(f.state, f.why) for f in rows] == [(State.CHANGED, "They repeat at the distance they had.")]


def _written_out(sized: Sized) -> list[str]:
    worked = sized.parts[0].worked
    text = {line.split(":")[0]: line for line in sized.parts[0].text(Terms.US).splitlines()}
    out: list[str] = []
    for tally in worked.rounds:
        assert tally.number is not None
        out.append(next(v for k, v in text.items() if _holds(k, tally.number)))
    return out


def _holds(label: str, number: int) -> bool:
    numbers = [int("".join(c for c in piece if c.isdigit())) for piece in label.split("-")]
    return numbers[0] <= number <= numbers[-1]


@pytest.mark.parametrize(("apart", "times"), [(False, 6), (True, 12)])
def test_colours_around_keep_their_number_or_their_width(apart: bool, times: int) -> None:
    sized = graded(STRIPES, 2.0, apart=apart)
    graph = sized.parts[0].worked.graph
    last = sized.parts[0].worked.rounds[-1]
    colours = graph.colour[last.first : last.end]
    changes = int(np.sum(colours != np.roll(colours, 1)))
    assert changes == 2 * times
    rows = [f for f in sized.features if f.kind == "colours around"]
    assert [(f.before, f.after) for f in rows] == ([("6 times", "12 times")] if apart else [])


def test_a_motif_that_stands_alone_stays_one() -> None:
    nose = AROUND + "R5: 11 sc, bobble, 12 sc\nR6-R9: sc around\n"
    assert bobbles(graded(nose, 2.0, apart=True)) == [1]


@pytest.mark.parametrize("scale", [0.6, 1.0, 1.7])
def test_ladders_are_laid_beside_each_other_by_what_rounds_stand_for(scale: float) -> None:
    sized = graded(DOTS, scale, apart=False)
    laid = phases_of(sized.parts[0])
    assert laid.before == first(sized.design).parts[0].worked.counts
    assert laid.after == sized.parts[0].worked.counts
    befores, afters = zip(*laid.links, strict=True)
    assert list(befores) == sorted(befores)
    assert list(afters) == sorted(afters)
    assert all(0 <= b < len(laid.before) for b in befores)
    assert all(0 <= a < len(laid.after) for a in afters)


def test_the_report_stands_on_the_rounds_that_it_names() -> None:
    text = AROUND + "R5-R9: sc around\nPlace eyes between R6 and R7.\nR10: (2 sc, dec) x 6\n"
    sized = asked_for(first(Design("B", parts=(Part("b", "Ball", text),))), Size("s", "s", SizeKind.COUNT, count=48))
    laid = phases_of(sized.parts[0])
    assert laid.marks
    for mark in laid.marks:
        numbers = [t.number for t in (sized.parts[0].source.worked if mark.first else sized.parts[0].worked).trunk]
        assert f"R{numbers[mark.at]}" in mark.words.replace("-R", " R") or "-" in mark.words


CHECKS = AROUND + "".join(
    f"R{n}: (with {one}, 2 sc, with {other}, 2 sc) x 6\n"
    for n, (one, other) in enumerate(2 * [*2 * [("red", "white")], *2 * [("white", "red")]], 5)
)
"""A board of fields of two stitches by two rounds."""


def _fields(sized: Sized) -> list[str]:
    """The colour of the first stitch of every round that has both colours."""
    graph = sized.parts[0].worked.graph
    rows = [graph.colour[t.first : t.end] for t in sized.parts[0].worked.rounds]
    return [graph.colours[row[0]] for row in rows if len(set(row)) > 1]


@pytest.mark.parametrize("scale", [0.5, 1.5, 2.0])
def test_a_picture_comes_again_upwards_at_the_distance_it_had(scale: float) -> None:
    sized = graded(CHECKS, scale, apart=True)
    fields = _fields(sized)
    assert len(fields) == pytest.approx(8 * scale, abs=1.5)
    assert fields == [("red", "white")[k // 2 % 2] for k in range(len(fields))]
    (row,) = (f for f in sized.features if f.kind == "colours upwards")
    assert (row.state, row.before, row.why) == (State.CHANGED, "2 times", "They repeat at the distance they had.")


def test_a_picture_that_she_leaves_grows_with_its_figure() -> None:
    fields = _fields(graded(CHECKS, 2.0, apart=False))
    runs = [len(list(run)) for _, run in itertools.groupby(fields)]
    assert len(runs) == 4
    assert min(runs) >= 3
