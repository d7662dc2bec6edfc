"""How it begins and closes, drawn from a figure's own counts."""

from __future__ import annotations

import re
from xml.etree import ElementTree

import pytest

from craft.document.techniques import Technique, techniques_of
from craft.rounds.stitches import Language
from craft.text.catalogue import Words
from craft.text.check import check

LEGS = """\
## Leg (make 2)
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: sc around [12]
## Body
R4: ch 3, 12 sc around the first leg, 3 sc along the chain, 12 sc around the second leg, 3 sc along the other side of the chain [30]
R5: (3 sc, dec) x 6 [24]
R6: (2 sc, dec) x 6 [18]
R7: (sc, dec) x 6 [12]
R8: dec x 6 [6]
Close.
"""
SOLE = """\
Ch 7
R1: 5 sc, inc3, along the other side of the chain 4 sc, inc [14]
R2: inc, 4 sc, 3 inc, 4 sc, 2 inc [20]
R3: sc around [20]
"""
OPEN_RING = "R1: 8 sc in ring [8]\nR2: inc x 8 [16]\nFasten off, leaving a tail.\n"


def drawn(text: str, *, left: bool = False, words: Words | None = None) -> tuple[Technique, ...]:
    checked = check(text)
    assert checked.sound, checked.problems
    pairs = list(zip(checked.reading.pattern.parts, checked.parts, strict=True))
    return techniques_of(pairs, words=words or Words(), left=left)


def numbers(technique: Technique) -> list[int]:
    """The numbers in a drawing, in its order."""
    return [int(n) for n in re.findall(r"<text[^>]*>(\d+)</text>", technique.svg)]


def xs(technique: Technique) -> list[float]:
    """Where its numbers stand, from left to right of the middle."""
    found = ElementTree.fromstring(technique.svg).iter("{http://www.w3.org/2000/svg}text")
    return [round(float(t.get("x", "0")), 1) for t in found]


def test_every_stitch_of_the_ring_and_of_the_last_round_is_there() -> None:
    ring, joined, closed = drawn(LEGS)
    assert numbers(ring) == [1, 2, 3, 4, 5, 6]
    assert ring.svg.count("M") == 6 + 3, "six crosses, the loop, its tail and the arrow"
    assert numbers(closed) == [1, 2, 3, 4, 5, 6]
    assert "12, 3, 12, 3" in joined.caption
    assert sorted(numbers(joined)) == [3, 3, 12, 12]
    assert joined.caption.endswith("(Body, R4).")


def test_what_stays_open_is_not_closed() -> None:
    (ring,) = drawn(OPEN_RING)
    assert numbers(ring) == list(range(1, 9))


def test_an_oval_is_drawn_with_the_stitches_of_its_first_two_rounds() -> None:
    (oval,) = drawn(SOLE)
    rounds = re.findall(r'data-round="(\d+)"', oval.svg)
    assert len(set(re.findall(r'data-stitch="(\d+)"', oval.svg))) > 14
    assert max(map(int, rounds)) - min(map(int, rounds)) <= 2, "the rest of the sole is not in it"


def test_two_chains_in_the_place_of_a_ring_are_no_ring() -> None:
    assert drawn("R1: 6 sc in 2nd ch from hook [6]\nR2: inc x 6 [12]\nFasten off.\n") == ()


def test_rows_and_tubes_from_nowhere_need_no_drawing() -> None:
    assert drawn("Ch 11\nRow 1: 10 sc [10]\nRow 2: 10 sc [10]\n") == ()


@pytest.mark.parametrize("text", [LEGS, OPEN_RING])
def test_the_left_hand_works_the_other_way_round(text: str) -> None:
    for right, left in zip(drawn(text), drawn(text, left=True), strict=True):
        assert xs(left) == [-x or 0.0 for x in xs(right)]
        assert numbers(left) == numbers(right)
        assert left.caption == right.caption


@pytest.mark.parametrize("language", [None, *Language])
def test_what_is_printed_below_them_is_read_as_no_round(language: Language | None) -> None:
    """A booklet that is brought in again has the parts that it had."""
    for text in (LEGS, SOLE):
        said = [t.caption for t in drawn(text, words=Words(language))]
        again = check("How it begins and closes\n\n" + "\n".join(said) + "\n\n" + text)
        parts = [(p.name, p.counts) for p in check(text).parts if p.counts]
        assert [counts for _, counts in parts] == [p.counts for p in again.parts if p.counts]


@pytest.mark.parametrize("language", list(Language))
def test_they_are_told_in_every_language(language: Language) -> None:
    for text in (LEGS, SOLE):
        for here, there in zip(drawn(text), drawn(text, words=Words(language)), strict=True):
            assert here.caption != there.caption
            assert "single crochet" not in there.svg
            assert " in one" not in there.svg
            assert re.findall(r"\d+", here.caption) == re.findall(r"\d+", there.caption)
