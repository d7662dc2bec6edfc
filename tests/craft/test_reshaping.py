"""Changes of rounds on the ladder: what they do, and what they leave alone."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.problems import Severity
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.reshaping import (
    Change,
    CloseEnd,
    Copy,
    Decreases,
    Insert,
    Joining,
    Limb,
    OpenEnd,
    Recolour,
    Rotate,
    Spread,
    Swap,
    Widen,
    add_shift,
    fold_flat,
    keep_sides,
    mirrored_body,
    reshape,
    rotated_body,
    work_in,
)

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


HOST = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R9: sc around [24]\n"
    "Stuff.\nR10: (2 sc, dec) x 6 [18]\n"
)
ARM = "R1: 6 sc in ring [6]\nR2: (2 sc, inc) x 2 [8]\nR3-R6: sc around [8]\nLeave a long tail for sewing.\n"


def test_a_sewn_limb_becomes_one_that_is_worked_in() -> None:
    arm = fold_flat(ARM, Terms.US, 8)
    assert "4 sc through both layers [4]" in arm
    assert "tail for sewing" not in arm
    body = work_in(HOST, Terms.US, 7, [Limb("first arm", 4, 4), Limb("second arm", 16, 4)])
    assert (
        "R5-R6: sc around [24]\nR7: 4 sc, 4 sc through the first arm, 8 sc, 4 sc through the second arm, 4 sc [24]\nR8-R9:"
        in body
    )
    assert "Stuff.\nR10: (2 sc, dec) x 6 [18]" in body, "other lines stay as typed"
    found = check(f"Arms (make 2)\n{arm}\nBody\n{body}")
    assert found.sound
    assert not [p for p in found.problems if p.severity is Severity.WARNING]


@pytest.mark.parametrize(
    ("round_at", "limb", "said"),
    [
        (4, Limb("arm", 1, 4), "increases"),
        (99, Limb("arm", 1, 4), "no round 99"),
        (7, Limb("arm", 22, 4), "The arm has 4 stitches, and R5-R9 only 2 from there on"),
        (4, Limb("arm", 19, 4), "Where the arm goes, R4 increases, decreases or works something in already"),
    ],
)
def test_a_limb_that_cannot_be_worked_in_says_why(round_at: int, limb: Limb, said: str) -> None:
    with pytest.raises(CraftError, match=said):
        work_in(HOST, Terms.US, round_at, [limb])


def test_an_odd_tube_does_not_fold() -> None:
    with pytest.raises(CraftError, match="even"):
        fold_flat(ARM, Terms.US, 9)


def test_shift_stitches_bring_the_start_back_and_change_no_count() -> None:
    text = add_shift(HOST, Terms.US, 6, 3)
    assert "R5: sc around [24]\nR6: 24 sc, shift 3 [24]\nR7-R9: sc around [24]" in text
    assert check(text).sound
    more = add_shift(text, Terms.US, 6, 2)
    assert "R6: 24 sc, shift 5 [24]" in more, "another shift is added to the one that is there"
    with pytest.raises(CraftError, match="1 to 200"):
        add_shift(HOST, Terms.US, 6, 0)


def test_shaping_is_moved_along_so_that_it_stays_on_its_side() -> None:
    start = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R6: sc around [12]\n"
    text = start + "R7: 3 inc, 9 sc [15]\nR8-R10: sc around [15]\nR11: 3 inc, 12 sc [18]\n"
    lines = text.count("\n")
    moved = keep_sides(text, Terms.US, 4, lines, 0.4)
    assert "R7: 3 inc, 9 sc [15]" in moved, "the first of the rounds stays"
    assert "R11: 2 sc, inc x 3, 10 sc [18]" in moved, "four rounds drift by 4 × 0.4 / 15 of 15 stitches, about two"
    assert check(moved).sound
    with pytest.raises(CraftError, match="nothing to move"):
        keep_sides(text, Terms.US, 4, lines, 0.0)


# --- a whole part -----------------------------------------------------------------------------

SHUT = BALL + "R9: (sc, dec) x 6 [12]\nR10: dec x 6 [6]\nFasten off and close.\n"


def test_decreases_become_invisible_and_plain_again() -> None:
    quiet = done(Decreases(True))
    assert "R8: (2 sc, inv dec) x 6 [18]" in quiet
    assert "Rnd 4: (2 sc, inc) x 6 (24) and breathe" in quiet, "what has no decrease stays as typed"
    assert done(Decreases(False), quiet) == BALL
    with pytest.raises(CraftError, match="no invisible decrease"):
        done(Decreases(False))


def test_a_spiral_becomes_joined_rounds_and_a_spiral_again() -> None:
    joined = done(Joining(True))
    assert sound(joined), check(joined).problems
    assert check(joined).parts[0].counts == check(BALL).parts[0].counts
    assert all(t.joined for t in check(joined).parts[0].rounds)
    again = done(Joining(False), joined)
    assert not any(t.joined for t in check(again).parts[0].rounds)
    assert check(again).parts[0].counts == check(BALL).parts[0].counts
    with pytest.raises(CraftError, match="a spiral already"):
        done(Joining(False))
    with pytest.raises(CraftError, match="joined already"):
        done(Joining(True), joined)


def test_an_open_end_is_drawn_in_and_closed() -> None:
    shut = done(CloseEnd())
    worked = check(shut).parts[0]
    assert sound(shut), check(shut).problems
    assert worked.closed
    assert worked.counts[-2:] == (12, 6)
    assert shut.startswith(BALL.rstrip())
    with pytest.raises(CraftError, match="closed already"):
        done(CloseEnd(), shut)


def test_a_closed_end_is_opened_behind_a_round() -> None:
    wide = done(OpenEnd(8), SHUT)
    worked = check(wide).parts[0]
    assert not worked.closed
    assert worked.counts[-1] == 18
    assert "close" not in wide.lower()
    assert wide.endswith("R8: (2 sc, dec) x 6 [18]\nLeave a long tail for sewing.\n")
    with pytest.raises(CraftError, match="no round 40 in"):
        done(OpenEnd(40), SHUT)
    with pytest.raises(CraftError, match="open there already"):
        done(OpenEnd(8))


def test_opening_keeps_what_is_said_of_the_rounds_that_stay() -> None:
    wide = done(OpenEnd(7), SHUT)
    assert wide.endswith("R5-R7: sc around [24]\nStuff.\nLeave a long tail for sewing.\n")


@given(st.integers(10, 60))
@settings(max_examples=30, deadline=None)
def test_law_any_open_tube_can_be_closed(count: int) -> None:
    text = f"R1: {count} sc in ring [{count}]\nR2-R4: sc around [{count}]\n"
    shut = done(CloseEnd(), text)
    assert sound(shut), check(shut).problems
    assert check(shut).parts[0].closed
    assert check(shut).parts[0].counts[-1] <= 8
