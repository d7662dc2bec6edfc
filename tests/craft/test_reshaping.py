"""Changes of rounds on the ladder: what they do, and what they leave alone."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.fabric import check
from craft.reshaping import (
    Change,
    Copy,
    Insert,
    Recolour,
    Rotate,
    Spread,
    Swap,
    Widen,
    mirrored_body,
    reshape,
    rotated_body,
)
from craft.stitches import Terms

BALL = """Start with a smile.
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
Rnd 4: (2 sc, inc) x 6 (24) and breathe
R5-R7: sc around [24]
Stuff.
R8: (2 sc, dec) x 6 [18]
"""


def lines(text: str) -> list[str]:
    return text.splitlines()


def done(change: Change, text: str = BALL) -> str:
    return reshape(text, Terms.US, change)


def sound(text: str) -> bool:
    return not [p for p in check(text).problems if p.code != "steep"]


@pytest.mark.parametrize(
    ("change", "counts"),
    [
        (Widen(5, 26), (6, 12, 18, 26, 26, 26, 26, 18)),
        (Widen(4, 20), (6, 12, 20, 24, 24, 24, 24, 18)),
        (Widen(2, 8), (8, 12, 18, 24, 24, 24, 24, 18)),
        (Widen(6, 30), (6, 12, 18, 24, 30, 30, 30, 18)),
        (Insert(5, 3), (6, 12, 18, 24, 24, 24, 24, 24, 24, 24, 18)),
        (Copy(2, 5, 8, mirrored=False), None),
        (Copy(2, 4, 8, mirrored=True), (6, 12, 18, 24, 24, 24, 24, 18, 12, 6)),
        (Copy(6, 6, 6), (6, 12, 18, 24, 24, 24, 24, 24, 24, 24, 18)),
        (Rotate(4, 5, 1), (6, 12, 18, 24, 24, 24, 24, 18)),
        (Spread(4, 5, stacked=False), (6, 12, 18, 24, 24, 24, 24, 18)),
        (Swap(), (6, 12, 18, 24, 24, 24, 24, 18)),
    ],
)
def test_what_a_change_does_to_the_counts(change: Change, counts: tuple[int, ...] | None) -> None:
    if counts is None:
        with pytest.raises(CraftError):
            done(change)
        return
    made = done(change)
    assert check(made).parts[0].counts == counts
    assert sound(made), made


def test_untouched_lines_stay_as_typed() -> None:
    made = lines(done(Widen(5, 26)))
    before = lines(BALL)
    assert [i for i, (a, b) in enumerate(zip(before, made, strict=True)) if a != b] == [4, 5, 7]
    assert made[4].startswith("Rnd 4: ")
    assert made[4].endswith("and breathe")


def test_labels_behind_inserted_rounds_count_on_in_their_own_spelling() -> None:
    made = lines(done(Insert(3, 2)))
    assert made[3] == "R3-R4: sc around [12]"
    assert made[5].startswith("Rnd 6: (2 sc, inc)")
    assert made[6].startswith("R7-R9")


def test_stagger_and_stack() -> None:
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: (3 sc, inc) x 6 [30]"
    staggered = done(Spread(2, 5, stacked=False), text)
    assert "R4: (sc, inc, sc) x 6" in staggered
    assert done(Spread(2, 5, stacked=True), staggered) == text


def test_a_colour_gets_another_name_everywhere() -> None:
    text = "Change to Oat\nR1: 6 sc in ring [6]\nR2: 3 inc, with Moss, 2 inc, with Oat, inc [12]\n"
    made = done(Recolour("Oat", "Fennel Fog"), text)
    assert made.count("Fennel Fog") == 2
    assert "Oat" not in made
    with pytest.raises(CraftError, match="names Plum"):
        done(Recolour("Plum", "Oat"), text)
    with pytest.raises(CraftError):
        done(Recolour("Oat", "42"), text)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (Widen(1, 20), "no round on that line"),
        (Widen(4, 60), "cannot go evenly"),
        (Widen(4, 0), "from 1 to 2,000"),
        (Insert(5, 0), "from 1 to 2,000"),
        (Rotate(2, 3, 1), "nothing to move"),
        (Spread(6, 6, stacked=True), "None of these rounds"),
        (Copy(5, 4, 6), "ends after it starts"),
        (Copy(4, 4, 7), "no round on that line"),
        (Copy(2, 4, 5, mirrored=True), "there are 24 where"),
    ],
)
def test_what_cannot_be_done_is_said(change: Change, words: str) -> None:
    with pytest.raises(CraftError, match=words):
        done(change)


def test_faulty_words_are_mended_first() -> None:
    with pytest.raises(CraftError, match="mend the faults first"):
        done(Widen(2, 8), "R1: 6 sc in ring [6]\nR2: frobnicate [12]\n")


def test_rows_and_splits_are_left_to_the_text() -> None:
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 6 sc, skip 6, join [6]\n"
    with pytest.raises(CraftError, match="change it in the text"):
        done(Widen(3, 8), "Ch 9\nRow 1: sc in 2nd ch from hook and in each ch across [8]\nRow 2: turn, 8 sc [8]\n")
    assert done(Swap(), text)


@settings(max_examples=60, deadline=None)
@given(st.integers(2, 12), st.integers(-30, 30))
def test_a_round_moved_once_around_is_itself(gap: int, by: int) -> None:
    made = check(f"R1: 6 sc in ring\nR2: inc x 6 [12]\nR3: ({gap} sc, inc) around").reading.pattern.parts[0].rounds[2]
    live = (gap + 1) * 6
    moved = rotated_body(made.body, live, by)
    back = rotated_body(moved, live, -by)
    assert rotated_body(back, live, 0) == rotated_body(made.body, live, 0)
    assert mirrored_body(mirrored_body(made.body, live), live) == rotated_body(made.body, live, 0)
