"""The direction for the eyes: read, said anew, put in."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.rounds.pattern import Step, StepKind
from craft.rounds.stitches import Terms
from craft.text.eye_directions import (
    EyeWords,
    eye_direction,
    find_direction,
    insert_direction,
    rewrite_direction,
    round_for_eyes,
)
from craft.text.notation import read

WORDS = st.builds(
    EyeWords,
    below=st.integers(1, 900),
    between=st.none() | st.integers(1, 99),
    eye_mm=st.none() | st.sampled_from([4.0, 6.0, 7.5, 12.0]),
    embroidered=st.booleans(),
)


@pytest.mark.parametrize(
    ("line", "below", "between", "eye_mm"),
    [
        ("Insert the eyes between R7 and R8, with 6 stitches visible between.", 7, 6, None),
        ("Place 8 mm safety eyes between rounds 13 & 14, 7 sts apart.", 13, 7, 8.0),
        ("Eyes (7.5mm): between Rnd 9 and Rnd 10, leaving 5 visible sts between them", 9, 5, 7.5),
        ("Embroider the eyes above round 11.", 11, None, None),
        ("> attach eyes between R12-13 with 1 stitch between", 12, 1, None),
        ("Fit the eyes between rows 8 and 7", 7, None, None),
    ],
)
def test_reads_every_usual_spelling(line: str, below: int, between: int | None, eye_mm: float | None) -> None:
    found = find_direction(f"R1: 6 sc in ring [6]\n{line}\nR2: inc x 6 [12]\n")
    assert found is not None
    assert (found.said.below, found.said.between, found.said.eye_mm) == (below, between, eye_mm)
    assert found.said.embroidered is line.startswith("Embroider")


@pytest.mark.parametrize(
    "text",
    [
        "",
        "R7: sc around [24]",
        "Insert the eyes.",
        "Sew the ears between R7 and R8.",
        "The hedgehog keeps an eye on you between two meals.",
    ],
)
def test_finds_none_where_none_is(text: str) -> None:
    assert find_direction(text) is None
    assert rewrite_direction(text, EyeWords(3, 4)) == text


def test_keeps_her_own_words_and_everything_around_them() -> None:
    text = "R1: 6 sc in ring [6]\r\n  * place the 8 mm eyes btw., i.e. between Rnd 9 + 10 (one stitch either side)\r\nR2: x"
    anew = rewrite_direction(text, EyeWords(12, 8, 10.0))
    assert anew == text.replace("8 mm", "10 mm").replace("Rnd 9 + 10", "Rnd 12 + 13")


def test_says_one_stitch_and_many() -> None:
    one = rewrite_direction("Eyes between R3 and R4, 2 stitches between.", EyeWords(3, 1))
    assert one == "Eyes between R3 and R4, 1 stitch between."
    assert rewrite_direction(one, EyeWords(3, 5)) == "Eyes between R3 and R4, 5 stitches between."


@given(WORDS)
def test_what_is_written_is_read_back(words: EyeWords) -> None:
    found = find_direction(eye_direction(words))
    assert found is not None
    assert (found.said.below, found.said.between, found.said.embroidered) == (
        words.below,
        words.between,
        words.embroidered,
    )
    assert found.said.eye_mm == (None if words.embroidered else words.eye_mm)


@given(WORDS, WORDS)
def test_saying_anew_is_the_same_twice_and_says_it(first: EyeWords, then: EyeWords) -> None:
    anew = rewrite_direction(eye_direction(first), then)
    assert rewrite_direction(anew, then) == anew
    found = find_direction(anew)
    assert found is not None
    assert found.said.below == then.below
    if first.between is not None and then.between is not None:
        assert found.said.between == then.between


def test_a_direction_is_put_behind_its_round_and_is_a_step_there() -> None:
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: sc around [12]"
    made = insert_direction(text, EyeWords(1, 3, 6.0), 2)
    part = read(made, Terms.US).pattern.parts[0]
    steps = [(i, item) for i, item in enumerate(part.items) if isinstance(item, Step)]
    assert [(i, s.kind) for i, s in steps] == [(2, StepKind.EYES)]
    assert insert_direction(made, EyeWords(2, 3, 6.0), 2).count("eyes") == 1
    assert insert_direction(text, EyeWords(1), 99).endswith("[12]\nInsert the eyes between R1 and R2.\n")


def test_a_line_that_only_says_that_eyes_go_in_becomes_the_direction() -> None:
    text = "R1: 6 sc in ring [6]\nInsert the eyes.\nR2: inc x 6 [12]\n"
    told = insert_direction(text, EyeWords(1, 2, 8.0), 2)
    assert told == text.replace(
        "Insert the eyes.", "Insert the 8 mm eyes between R1 and R2, with 2 stitches visible between."
    )
    apart = "R1: 6 sc in ring [6]\nInsert the eyes and nose as the picture shows.\n"
    assert insert_direction(apart, EyeWords(1), 1).count("\n") == 3, "more than that is hers and stays"


@pytest.mark.parametrize(
    ("counts", "below", "after"),
    [
        ([6, 12, 18, 24, 30, 30, 30, 24, 18, 12, 6], 5, 7),  # up to the last round before it narrows
        ([6, 12, 18, 18, 18, 12], 3, 4),  # few stitches: as soon as the round above is there
        ([6, 12], 2, 2),
        ([6, 12, 24, 30], 1, 4),  # nothing narrows: at the end
    ],
)
def test_eyes_go_in_before_the_part_narrows(counts: list[int], below: int, after: int) -> None:
    assert round_for_eyes(counts, below) == after


def test_eyes_that_lie_nowhere_are_refused() -> None:
    with pytest.raises(CraftError):
        eye_direction(EyeWords())
    with pytest.raises(CraftError):
        round_for_eyes([6, 12], 3)
