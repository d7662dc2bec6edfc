"""Several figures together: yarn, eyes, filling, hours."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.design import Printed
from craft.design.grading import Sized, figures_of, first_size, together
from craft.design.parts import DesignYarn
from craft.design.running import run_parts
from craft.errors import CraftError
from tests.craft.figures import figure

MOSS = DesignYarn("Moss", "#77834b", 3, skein_m=125, skein_g=50)


def first(**other: object) -> Sized:
    design = replace(figure(), **other)  # type: ignore[arg-type]
    return first_size(design, run_parts(design))


@given(st.integers(1, 40), st.integers(1, 40))
@settings(max_examples=20, deadline=None)
def test_law_figures_add_up(one: int, two: int) -> None:
    a = first()
    alone = figures_of(a)
    found = together([(a, one), (a, two)])
    assert found.figures == one + two
    assert sum(y.metres.value for y in found.yarns) == pytest.approx(
        (one + two) * sum(u.metres.value for u, _ in alone.yarns)
    )
    assert sum(y.stitches for y in found.yarns) == (one + two) * sum(u.stitches for u, _ in alone.yarns)
    assert found.hours.value == pytest.approx((one + two) * alone.hours.value)
    assert found.filling_g.high == pytest.approx((one + two) * alone.filling_g.high)
    assert found.eyes == ((8, 2 * (one + two)),)


def test_yarns_of_one_name_and_colour_are_bought_together() -> None:
    many = together([(first(), 40)])
    peat = next(y for y in many.yarns if y.name == "Peat")
    assert peat.grams is not None
    assert peat.skeins is not None
    assert peat.skeins < 40 * 1, "not a skein for every figure"
    assert peat.skeins * 50 >= peat.grams.value


def test_yarns_that_only_share_a_name_stay_apart() -> None:
    other = replace(figure().yarns[0], colour="#ffffff")
    found = together([(first(), 1), (first(yarns=(other, MOSS)), 1)])
    assert sorted(y.colour or "" for y in found.yarns if y.name == "Peat") == ["#5a4634", "#ffffff"]


def test_notions_are_named_once() -> None:
    found = together([(first(), 1), (first(printed=Printed(notions=("stitch marker", "wire"))), 3)])
    assert found.notions == ("stitch marker", "wire")


def test_nothing_and_too_many_are_refused() -> None:
    with pytest.raises(CraftError, match="at least one"):
        together([])
    with pytest.raises(CraftError, match="from 1 to 500"):
        together([(first(), 501)])
