"""Numbers as words: read and said from one place."""

from __future__ import annotations

import re

import pytest

from craft.rounds.numbers import CARDINAL, CARDINALS, ORDINALS, TIMES, often, place_of_word
from craft.text.check import check
from craft.text.notation import read


@pytest.mark.parametrize(
    ("word", "place"),
    [
        ("first", 1), ("1st", 1), ("one", 1), ("1", 1), ("a", 1), ("an", 1), ("Second", 2), ("2nd", 2), ("3rd", 3),
        ("twelfth", 12), ("12", 12), ("left", None), ("", None), ("th", None), ("est", None), ("٣", None),
    ],
)  # fmt: skip
def test_which_one_a_word_means(word: str, place: int | None) -> None:
    assert place_of_word(word) == place


@pytest.mark.parametrize(
    ("n", "said"), [(1, "once"), (2, "twice"), (3, "three times"), (12, "twelve times"), (13, "13 times")]
)
def test_how_often_in_words(n: int, said: str) -> None:
    assert often(n) == said


def test_tables_agree() -> None:
    assert list(CARDINALS.values()) == list(ORDINALS.values()) == list(range(1, 21))
    assert list(TIMES.values()) == [1, 2, 3]
    assert all(re.fullmatch(CARDINAL, word) for word in CARDINALS)


@pytest.mark.parametrize(("word", "n"), CARDINALS.items())
def test_every_cardinal_is_read_as_a_number_of_stitches(word: str, n: int) -> None:
    counted = check(
        f"R1: 20 sc in ring [20]\nR2: {word} sc, {20 - n} sc [20]" if n < 20 else "R1: twenty sc in ring [20]"
    )
    assert counted.sound, counted.problems


@pytest.mark.parametrize(("word", "n"), [*CARDINALS.items()])
def test_every_cardinal_makes_a_part_so_often(word: str, n: int) -> None:
    assert read(f"Leg (make {word})\nR1: 6 sc in ring [6]").pattern.parts[0].make == n


@pytest.mark.parametrize(("said", "times"), [("thrice", 3), ("six times", 6), ("twelve times", 12)])
def test_every_number_of_times_is_read(said: str, times: int) -> None:
    assert check(f"R1: {times} sc in ring [{times}]\nR2: *inc* {said} [{2 * times}]").sound
