"""Texts that were once called sound although work of theirs was left out, or counted that nobody meant."""

from __future__ import annotations

import pytest

from craft.text.check import check

BALL = "Ball\nR1: 6 sc in ring (6)\nR2: inc around (12)\n"

LEFT_OUT = {
    "a ring that is repeated": "R1: (6 sc in ring) x 6\nR2: sc around\n",
    "a chain behind 'and'": BALL + "R3: sc in each st and ch (13)\n",
    "numbers that nobody knows": BALL + "XXV-KK giro: 24 mb\nR3: sc around (12)\n",
    "rounds on one line": (
        "Corpo, tutto d'un fiato MR 6 mb [6] poi (1 mb, aum) 3x [9] poi (2 mb, aum) 3x [12]\n"
        "Pinna\nR1: 4 sc in ring [4]\nR2: sc [4]\n"
    ),
    "a count in a sentence": BALL + "Whereupon increase somehow in fancy ways so you have 18.\nR3: sc around (12)\n",
}


@pytest.mark.parametrize("why", LEFT_OUT)
def test_it_is_not_called_sound(why: str) -> None:
    assert not check(LEFT_OUT[why]).sound


@pytest.mark.parametrize(
    "text",
    [
        BALL + "Stuff it, so that you have 2 eyes to look at.\nR3: sc around (12)\n",
        BALL + "dec: 2 sc\nR3: sc around (12)\n",
        BALL + "Leave a tail of 20 cm.\nR3: sc around (12)\n",
    ],
)
def test_words_that_tell_no_work_stay_words(text: str) -> None:
    assert check(text).sound
