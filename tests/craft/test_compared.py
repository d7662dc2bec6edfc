"""Designs held against each other: what differs, in words."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.design import Design
from craft.design.joins import Join
from craft.design.parts import Part
from craft.design.remix import compared
from tests.craft.figures import HEAD, LEG, figure

# --- compared ------------------------------------------------------------------------------------


def words_of(a: str, b: str) -> tuple[str, ...]:
    designs = [Design("x", parts=(Part("p", "Body", t),)) for t in (a, b)]
    return compared(*designs).parts[0].words


@pytest.mark.parametrize(
    ("was", "now", "said"),
    [
        ("R4-R8: 18 sc [18]", "R4-R8: 18 hdc [18]", "R4 to R8: other stitches."),
        ("R4-R8: 18 sc [18]", "R4-R8: BLO: 18 sc [18]", "R4 to R8: other loops."),
        ("R3: (sc, inc) x 6 [18]", "R3: (inc, sc) x 6 [18]", "R3: shaped at other places."),
        ("R4-R8: 18 sc [18]", "R4-R8:  18 sc  [18]", ""),
    ],
)
def test_what_differs_in_a_round_is_said(was: str, now: str, said: str) -> None:
    assert words_of(HEAD, HEAD.replace(was, now)) == ((said,) if said else ())


def test_more_stitches_are_counted() -> None:
    wider = HEAD.replace("R4-R8: 18 sc [18]", "R4: (2 sc, inc) x 6 [24]\nR5-R7: 24 sc [24]\nR8: (2 sc, dec) x 6 [18]")
    more, back = words_of(HEAD, wider)
    assert more == "R4 to R7 have 6 more each."
    assert back == "R8: shaped at other places."


def test_joins_that_moved_and_sums_are_said() -> None:
    here = figure()
    there = replace(
        here,
        joins=(replace(here.joins[0], place=Place("head", 6, 3)),),
        parts=(here.parts[0], replace(here.parts[1], make=3)),
    )
    found = compared(here, there)
    assert "Leg (left) on Head: 2 rounds nearer its start, at R6 instead of R8." in found.words
    assert found.parts[1].words == ("Made 3 times, was 2 times.",)
    assert any(s.endswith("stitches more") for s in found.sums)


def test_parts_that_came_and_went_are_said() -> None:
    a = Design("a", parts=(Part("p", "Body", HEAD), Part("q", "Leg", LEG)))
    b = Design("b", parts=(Part("p", "Body", HEAD), Part("r", "Wing", LEG)))
    found = {p.name: p.words for p in compared(a, b).parts}
    assert found == {"Body": (), "Leg": ("Not there any more.",), "Wing": ("New, 6 rounds.",)}


def test_a_join_in_another_place_around_is_said() -> None:
    here = replace(figure(), joins=(Join("j1", "leg", "head", Place("head", 8, 3)),))
    there = replace(here, joins=(Join("j1", "leg", "head", Place("head", 8, -3)),))
    assert "Leg (left) on Head: elsewhere around, still at R8." in compared(here, there).words
