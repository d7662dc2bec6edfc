"""What is remembered stays within its bounds."""

from __future__ import annotations

import pytest

from craft.gauge import Gauge
from craft.remembered import LONG, by_bytes, of_short
from craft.shape.profile import inflated_profile


def test_the_oldest_goes_when_the_bytes_are_used_up() -> None:
    asked: list[int] = []

    @by_bytes(100, len)
    def text_of(n: int) -> bytes:
        asked.append(n)
        return bytes(40)

    for n in (1, 2, 1, 3, 1, 2):
        text_of(n)
    assert asked == [1, 2, 3, 2], "two fit; 2 was used longest ago when 3 came"


def test_what_is_larger_than_all_room_is_worked_out_each_time_and_pushes_nothing_out() -> None:
    asked: list[int] = []

    @by_bytes(100, len)
    def text_of(n: int) -> bytes:
        asked.append(n)
        return bytes(n)

    for n in (50, 101, 50, 101):
        text_of(n)
    assert asked == [50, 101, 101]


def test_answers_to_long_questions_are_not_kept() -> None:
    asked: list[int] = []

    @of_short(10)
    def length(text: str, more: int = 0) -> int:
        """How long it is."""
        asked.append(len(text))
        return len(text) + more

    for text in ("x" * LONG, "x" * (LONG + 1)) * 2:
        assert length(text, more=1) == len(text) + 1
    assert asked == [LONG, LONG + 1, LONG + 1]
    assert length.__doc__ == "How long it is."


def test_an_estimate_is_worked_out_once_and_nobody_writes_into_it() -> None:
    gauge = Gauge(6.0, 5.5)
    counts = [6, 12, 18, 24, 24, 18, 12, 6]
    first = inflated_profile(counts, gauge, closed=True)
    assert inflated_profile(tuple(counts), gauge, closed=True) is first
    assert inflated_profile(counts, gauge, closed=False) is not first
    assert inflated_profile(counts, gauge, closed=True, heights=[1.0] * 7 + [2.0]) is not first
    with pytest.raises(ValueError, match="read-only"):
        first.radius[0] = 1.0


def test_what_is_longer_than_asked_is_worked_out_anew() -> None:
    asked: list[str] = []

    @of_short(8, 4)
    def length(text: str) -> int:
        asked.append(text)
        return len(text)

    assert [length("four"), length("four"), length("fives"), length("fives")] == [4, 4, 5, 5]
    assert asked == ["four", "fives", "fives"]
