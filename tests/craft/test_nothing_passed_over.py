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


@pytest.mark.parametrize(
    "closing",
    [
        "Flatten and close with {} sc through both layers.",
        "Fold in half and sc through both layers across: {} sc. FO",
        "Platt drücken, mit {} fM durch beide Lagen schließen.",
    ],
)
def test_stitches_that_close_an_edge_flat_are_half_of_it(closing: str) -> None:
    """As many as the edge has pairs; as many as it has stitches where two parts are laid on each other."""
    closed = BALL + "R3: sc around (12)\n" + closing + "\n"
    assert check(closed.format(6)).sound
    assert check(closed.format(12)).sound
    found = check(closed.format(5))
    assert [(p.code, p.place.round) for p in found.problems if p.severity.value == "fault"] == [("sum", "R3")]


def test_closing_that_leaves_a_gap_says_so() -> None:
    assert check(BALL + "R3: sc around (12)\nClose with 4 sc through both layers, leave a gap for stuffing.\n").sound


@pytest.mark.parametrize(
    ("line", "counts"),
    [
        ("ball: mr 6, inc all (12), 1 sc 1 inc x6 (18), 18, 18, 1 sc 1 dec x6 (12)", (6, 12, 18, 18, 18, 12)),
        ("nose: mr6, 6inc, blo 12, ss, fo", (6, 12, 12)),
        (
            "Neus: 6 v in ring; elke v verdubbelen (12); 1 toer zonder meerderen (12); steeds 2 samen (6). Afhechten.",
            (6, 12, 12, 6),
        ),
        ("Seed: R1: 6X | R2: 6V (12) | R3: 12X | R4: (X,A)*4 (8)", (6, 12, 12, 8)),
    ],
)
def test_every_round_of_a_line_is_worked(line: str, counts: tuple[int, ...]) -> None:
    found = check(f"{line}\n")
    assert found.sound
    assert found.parts[0].counts == counts


@pytest.mark.parametrize("between", ["18", "flo: 18", "back loops only, 18", "then 2 rounds even"])
def test_plain_rounds_that_say_only_their_count_are_worked(between: str) -> None:
    found = check(f"mr 6\n12 (inc around)\n18\n{between}\ndecrease back to 12, then to 6\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, *(18,) * (2 if "2" in between else 1), 12, 6)


def test_what_is_said_of_a_round_is_no_round() -> None:
    found = check(BALL + "R3-4: sc in each st around (12)\nRd 4 is finished with a sl st; leave a tail for sewing.\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 12, 12)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        (
            BALL + "Increase 5 sts somehow in a fancy order until the edge has 17 sts.\nR3: sc around (12)\n",
            "passed-over",
        ),
        (BALL + "R3: sc around (12)\nThen inc 3, hop, sc 2 and dec the others: (11)\n", "passed-over"),
    ],
)
def test_work_in_words_that_nothing_reads_is_a_fault_at_its_line(text: str, told: str) -> None:
    found = check(text)
    assert not found.sound
    line = next(k for k, words in enumerate(text.splitlines(), 1) if "somehow" in words or "hop" in words)
    assert any(p.code == told and p.place.line == line for p in found.problems)


@pytest.mark.parametrize(
    "line",
    [
        "Sew the ears on at R2, 6 sts apart.",
        "Repeat row 2 until the scarf is 20 cm long.",
        "[12] = number of stitches at the end of the round",
        "Place 6 mm eyes between R1 and R2.",
        "inc = 2 sc in one st",
    ],
)
def test_words_that_are_no_work_stay_words(line: str) -> None:
    found = check(f"Ball\n{line}\nR1: 6 sc in ring (6)\nR2: inc around (12)\n" if "=" in line else BALL + line + "\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12)
