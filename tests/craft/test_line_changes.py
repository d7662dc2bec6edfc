"""Changes of whole lines: numbers in order after a line was moved, one repeat more or less."""

from __future__ import annotations

import itertools
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.rounds.stitches import Terms
from craft.text.notation import read
from craft.text.reshaping import is_folded, renumbered, with_repeat


@pytest.mark.parametrize(
    ("line", "by", "made"),
    [
        ("R4: (2 sc, inc) x 6 [24]", 1, "R4: (2 sc, inc) x 7 [24]"),
        ("R4: (2 sc, inc) x 6 [24]", -1, "R4: (2 sc, inc) x 5 [24]"),
        ("Rnd 4: *2 sc, inc* 6 times (24)", 1, "Rnd 4: *2 sc, inc* 7 times (24)"),
        ("R5: 24 sc [24]", 1, "R5: 25 sc [24]"),
        ("R5: (sc, inc) x 1", -1, "R5: (sc, inc) x 1"),
        ("R2: ((sc, inc) x 2, dec) x 3", 1, "R2: ((sc, inc) x 2, dec) x 4"),
        ("Rounds 3 to 5: (2 sc, inc) x 6 [24]", 1, "Rounds 3 to 5: (2 sc, inc) x 7 [24]"),
    ],
)
def test_one_repeat_more_or_less(line: str, by: int, made: str) -> None:
    assert with_repeat(f"R1: 6 sc in ring [6]\n{line}", Terms.US, 2, by) == f"R1: 6 sc in ring [6]\n{made}"


def test_letters_have_repeats_too() -> None:
    assert with_repeat("R4: (2X, V) * 6 (24)", Terms.LETTERS, 1, 1) == "R4: (2X, V) * 7 (24)"


@pytest.mark.parametrize("line", ["R7: sc around [18]", "R7: inc, sc"])
def test_a_line_without_a_number_says_so(line: str) -> None:
    with pytest.raises(CraftError, match="no repeat"):
        with_repeat(line, Terms.US, 1, 1)
    with pytest.raises(CraftError, match="no round"):
        with_repeat(line, Terms.US, 9, 1)


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("R1: sc\nR3: sc\nR3: inc", "R1: sc\nR2: sc\nR3: inc"),
        ("R1: sc\nNote R9\nR5-R8: inc\nStuff.\nR2: dec", "R1: sc\nNote R9\nR2-R5: inc\nStuff.\nR6: dec"),
        ("R1: 6 sc in ring\nRounds 3 to 5: sc around\nR6: dec", "R1: 6 sc in ring\nRounds 2 to 4: sc around\nR5: dec"),
        ("R1: sc\nR4: sc around (6 rounds)\nR2: dec", "R1: sc\nR2: sc around (6 rounds)\nR8: dec"),
        ("Rnd 1: sc\nRnd 2-4: sc\nRnd 5: sc", "Rnd 1: sc\nRnd 2-4: sc\nRnd 5: sc"),
        ("- [ ] R2: sc\n- [x] R2: inc", "- [ ] R1: sc\n- [x] R2: inc"),
    ],
)
def test_numbers_in_order(before: str, after: str) -> None:
    assert renumbered(before, Terms.US) == after


def test_limbs_of_a_split_go_on_from_the_trunk() -> None:
    text = (
        "R1: 12 sc in ring [12]\nR2: sc around [12]\nR4: sc around [12]\n## First leg\nR5: 6 sc, skip 6, join [6]\n"
        "R6: sc around [6]\n## Second leg\nRejoin at the held stitches.\nR5: 6 sc [6]\nR6: sc around [6]\n"
    )
    made = renumbered(text, Terms.US)
    assert re.findall(r"^R(\d+)", made, re.M) == ["1", "2", "3", "4", "5", "4", "5"]
    assert renumbered(made.replace("R2: sc around [12]\n", ""), Terms.US).count("R3: ") == 2, "both legs follow"


LINES = st.lists(
    st.sampled_from(["R{}: sc around", "R{}: inc x 6", "Rounds {} to {}: sc around", "Stuff.", "- R{}: dec"]),
    max_size=8,
)


@given(LINES, st.integers(1, 40))
def test_numbers_follow_each_other_and_nothing_else_changes(lines: list[str], start: int) -> None:
    text = "\n".join(line.format(start + i, start + i + 2) for i, line in enumerate(lines))
    made = renumbered(text, Terms.US)
    assert re.sub(r"\d+", "#", made) == re.sub(r"\d+", "#", text)
    assert renumbered(made, Terms.US) == made
    rounds = [r for p in read(made, Terms.US).pattern.parts for r in p.rounds]
    for above, below in itertools.pairwise(rounds):
        assert below.first == (above.last or 0) + 1


def test_folds_are_known() -> None:
    assert is_folded(read("R1: sc\nR2-R5: sc", Terms.US))
    assert not is_folded(read("R1: sc\nR2: 6 sc", Terms.US))
