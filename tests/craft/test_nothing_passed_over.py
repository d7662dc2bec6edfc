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
    "two numbers in signs that nothing reads": (
        "Bolita\nI. 6 pb en anillo mágico (6)\nII. 2 pb en cada p (12)\nIII. pb en cada p (12)\nIV ~ V. pb en cada p (12)\n"
        "VI. 6 dism (6)\n"
    ),
    "a ring that is a number's rest": BALL + "IV IV. 1 sc in each st (12)\nR6: sc around (12)\n",
    "rounds up to a number": BALL
    + "Then crochet in fancy ways, inc and dec, until you have 10 rounds.\nR3: sc around (12)\n",
    "plain rounds in another order": BALL + "Afterwards maybe 3 plain rounds of something odd\nR6: sc around (12)\n",
    "a label and its count alone": "Feelers\nR1: 8 sc in ring (8)\n2-4: 9\n",
    "a list of numbers and counts": "Dome\nR1: 6 sc in ring (6)\n2: 12 (odd)\n3: 18\n4: 24\n5: 24\n",
    "a letter that no part has": (
        "Shell A\nR1: 6 sc in ring (6)\nR2: 6 inc (12)\nShell B\nR1-R2: same as Shell V\nR3: sc around (12)\n"
    ),
    "a count in a sentence": BALL + "Whereupon increase somehow in fancy ways so you have 18.\nR3: sc around (12)\n",
}


def test_numbers_that_jump_are_read_and_the_gap_is_told() -> None:
    text = "Ball\n1: MR 6 sc. 6 sc.\n2: inc every stitch. 12 sc.\n3: sc. 12 sc.\n9: (1 sc, dec) around. 8 sc. Pull tight.\n"
    found = check(text)
    assert found.parts[0].counts == (6, 12, 12, 8)
    assert [p.message for p in found.problems if p.code == "skipped-number"] == ["R4-R8 is missing before R9."]


def test_a_number_with_stitches_behind_it_is_no_prose() -> None:
    text = "Ball\n1: MR 6 sc. 6 sc.\n2: inc every stitch. 12 sc.\n3: sc. 12 sc.\n99: sc in 3 or 4 of them\n"
    assert "passed-over" in {p.code for p in check(text).problems}


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


def test_rounds_up_to_a_number_are_worked() -> None:
    text = "Arm x2: magic ring, 6 sc. Then just keep going round and round until you have worked 10 rounds in total.\n"
    found = check(text)
    assert found.sound
    assert found.parts[0].counts == (6,) * 10


def test_every_other_stitch_is_every_second() -> None:
    found = check(
        "Ball\nR1: 6 sc in ring\nRound 2: increase in every stitch.\nRound 3: increase in every other stitch.\n"
    )
    assert found.parts[0].counts == (6, 12, 18)


def test_plain_rounds_in_a_sentence_are_worked() -> None:
    ring = "Bead: magic ring of six single crochets.\nThen increase in each stitch.\n"
    found = check(ring + "Then one plain round.\nThen two plain rounds.\n")
    assert found.parts[0].counts == (6, 12, 12, 12, 12)
