"""The skein plan against brute force: every way of putting pieces on skeins, the fewest of them."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.figure.materials import PieceNeed, skein_plan

metres_st = st.lists(st.integers(1, 50), min_size=1, max_size=6)


def needs(metres: list[int]) -> list[PieceNeed]:
    return [PieceNeed(f"piece {n}", float(m)) for n, m in enumerate(metres)]


def fewest(metres: list[int], room: int) -> int:
    """By trying every way."""
    for many in range(1, len(metres) + 1):
        for at in itertools.product(range(many), repeat=len(metres)):
            if all(sum(m for m, a in zip(metres, at, strict=True) if a == n) <= room for n in range(many)):
                return many
    return len(metres)


@settings(max_examples=150, deadline=None)
@given(metres_st, st.integers(50, 120))
def test_as_few_skeins_as_there_can_be(metres: list[int], room: int) -> None:
    plan = skein_plan(needs(metres), room)
    assert len(plan.skeins) == fewest(metres, room)


@settings(max_examples=200, deadline=None)
@given(st.lists(st.floats(0.01, 400), max_size=30), st.floats(20, 200))
def test_every_piece_is_served_once_and_no_skein_is_overdrawn(metres: list[float], room: float) -> None:
    plan = skein_plan([PieceNeed(f"piece {n}", m) for n, m in enumerate(metres)], room)
    assert all(s.used_m <= room + 1e-6 for s in plan.skeins)
    assert sum(s.used_m for s in plan.skeins) == pytest.approx(sum(metres))
    served = [p for s in plan.skeins for p in s.pieces]
    for n, m in enumerate(metres):
        assert served.count(f"piece {n}") == max(1, math.ceil(m / room - 1e-9))
        assert (f"piece {n}" in plan.joined) == (m > room + 1e-9)


def test_largest_first_alone_would_take_more() -> None:
    # The largest first alone fills four: 44 17, 24 24 8, 22 21 8 6, 6. Worked out by hand.
    metres = [44, 24, 24, 22, 21, 17, 8, 8, 6, 6]
    assert len(skein_plan(needs(metres), 61).skeins) == 3 == fewest_by_sum(metres, 61)


def fewest_by_sum(metres: list[int], room: int) -> int:
    return math.ceil(sum(metres) / room)


def test_wrong_numbers_are_refused() -> None:
    with pytest.raises(CraftError):
        skein_plan(needs([1]), 0)
    with pytest.raises(CraftError):
        PieceNeed("x", -1)
