"""A text's own way of numbering its rounds, told by the numbers going on."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.text.check import check
from craft.text.freehand.numbering import numbered

WORK = ("6 sc in ring (6)", "6 inc (12)", "(sc, inc) x 6 (18)", "sc around (18)", "(sc, dec) x 6 (12)")


@pytest.mark.parametrize(
    "label", ["Tr{}.", "Lap {}:", "R-{}:", "{} ", "Turn {} -", "Rdl. {}:", "no{} =", "Umgang {}:", "{}° cerchio:"]
)
def test_whatever_stands_around_the_numbers_is_a_label(label: str) -> None:
    text = "Ball, US terms\n" + "".join(f"{label.format(n)} {work}\n" for n, work in enumerate(WORK, 1))
    found = check(text)
    assert found.sound, found.problems
    assert [r.live for r in found.parts[0].rounds] == [6, 12, 18, 18, 12]


@pytest.mark.parametrize("fold", ["Tr4 et 5.", "Tr4-Tr5.", "Tr4, 5:", "Tr4 à 5 :", "Tr4/5 -", "Tr4 & 5 ="])
def test_two_numbers_are_a_range(fold: str) -> None:
    lines = ["Tr1. 6 ms", "Tr2. 6 aug", "Tr3. (1 ms, 1 aug) x 6", f"{fold} 18 ms", "Tr6. (1 ms, 1 dim) x 6"]
    assert numbered(lines)[3] == "R4-R5: 18 ms"


def test_the_next_number_tells_whether_a_dash_is_a_range() -> None:
    single = ["Rnd 1 - 5 sc in ring", "Rnd 2 - 5 inc", "Rnd 3 - 10 sc"]
    assert numbered(single) == single
    ranged = ["Rnd 5 Inc around", "Rnds 6 - 9 Sc around", "Rnd 10 Dec around"]
    assert numbered(ranged)[1] == "R6-R9: Sc around"


@pytest.mark.parametrize(
    "lines",
    [
        ["1 ball of cotton", "2 eyes", "3 buttons", "4 pins"],
        ["1. Sew the head on", "2. Sew the arms on", "3. Weave in"],
        ["Leg 1", "Leg 2", "Leg 3"],
        ["6 sc", "12 sc", "18 sc"],
        ["1 | 6 sc | 6", "2 | 6 inc | 12", "3 | 12 sc | 12"],
    ],
)
def test_lists_of_other_things_stay_as_they_are(lines: list[str]) -> None:
    assert numbered(lines) == lines


@given(st.lists(st.text(max_size=30), max_size=12))
def test_any_lines_at_all_keep_their_number(lines: list[str]) -> None:
    assert len(numbered(lines)) == len(lines)


@given(st.integers(1, 90), st.integers(3, 9))
def test_a_range_holds_all_its_rounds(first: int, many: int) -> None:
    lines = [f"Lap {first + k} to {first + k}: sc around" for k in range(many)]
    assert all(line.startswith(f"R{first + k}: ") for k, line in enumerate(numbered(lines)))
