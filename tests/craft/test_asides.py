"""What stands in a round and is no work of it: kept as a remark, and never a count, a round or a stitch."""

from __future__ import annotations

import pytest

from benchmarks.reading import counts_of
from craft.text.check import check

START = "R1: 6 sc in ring (6)\nR2: inc x 6 (12)\n"


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("R3: sc around, placing eyes at each side between rows 1 and 2. (12)", "placing eyes at each side"),
        ("R3: sc in each st, keeping your loops nice and loose (12)", "keeping your loops nice and loose"),
        ("R3: sc around while humming along (12)", "humming"),
    ],
)
def test_a_clause_without_stitches_is_a_remark_that_stays(line: str, said: str) -> None:
    found = check(START + line + "\n")
    assert found.sound, found.problems
    assert counts_of(found)[0][-1] == 12
    assert found.translation is not None
    assert said in found.translation.text


@pytest.mark.parametrize(
    "line",
    [
        "R3: sc around, working 2 flumps in each (12)",
        "R3: (1, dec) round, 13. Sew shut.",
        "R3: sc2tog 6 times - 7 sts. Fasten off.",
        "R3: sc around, except the last two (12)",
    ],
)
def test_a_clause_that_counts_or_turns_the_sense_is_none(line: str) -> None:
    assert not check(START + line + "\n").sound


@pytest.mark.parametrize(
    ("label", "many"),
    [
        ("(3), (4), (5) sc around", 3),
        ("{R3-R5} sc around", 3),
        ("3 rounds even", 3),
        ("Rnd 3, Rnd 4 and Rnd 5: sc around", 3),
        ("Rounds 3, 4 and 5: sc around", 3),
        ("One more round of sc", 1),
    ],
)
def test_numbers_before_a_round_are_rounds_and_never_an_aside(label: str, many: int) -> None:
    lead = "(1) 6 sc in ring (6)\n(2) inc x 6 (12)\n" if label.startswith("(") else START
    found = check(f"{lead}{label} (12)\n")
    assert found.sound, found.problems
    assert counts_of(found)[0] == (6, 12, *[12] * many)


def test_a_line_of_stitches_where_a_number_is_left_out_is_told() -> None:
    """The round is told there, in words that are not read."""
    found = check(f"{START}Then somehow sc on and on over the flumps\nR4: (2 sc, dec) x 3 (9)\n")
    assert not found.sound
    assert "passed-over" in {p.code for p in found.problems}


def test_a_table_of_changes_tells_rounds_and_a_change_that_does_not_fit_is_a_fault() -> None:
    table = "| Rnd | +/- | sts |\n|---|---|---|\n| 1 | MR | 6 |\n| 2 | +6 | 12 |\n| 3-4 | 0 | 12 |\n| 5 | -6 | 6 |\n"
    found = check(table)
    assert found.sound, found.problems
    assert counts_of(found) == ((6, 12, 12, 12, 6),)
    assert not check(table.replace("| 2 | +6", "| 2 | +5")).sound


def test_a_thumb_grows_from_the_stitches_that_a_gap_passed_over() -> None:
    text = (
        "MITTEN\nRnd 1. 6 sc in magic ring\nRnd 2. inc 6 (12)\nRnd 3. sc 3, ch 3, skip 3 sts, sc 6 (12)\n"
        "Rnd 4. sc in all sts (12)\n\nThumb: join yarn at the gap\n"
        "Rnd 1. sc 3 along the skipped sts, sc 3 along the other side of the chains (6)\n"
    )
    found = check(text)
    assert found.sound, found.problems
    assert counts_of(found) == ((6, 12, 12, 12), (6,)) or counts_of(found) == ((6, 12, 12, 12, 6),)
