"""How hard a figure is, by what it asks for."""

from __future__ import annotations

import pytest

from craft.design.design import Design, Level
from craft.design.difficulty import difficulty_of
from craft.design.parts import DesignYarn, Part
from craft.design.running import run_parts

BALL = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R4: sc around [12]\nR5: dec x 6 [6]\n"


def level(*texts: str, plush: bool = False) -> tuple[Level, str]:
    yarn = DesignYarn("Peat", "#5a4634", 3, plush=plush)
    parts = tuple(Part(f"p{n}", f"Part {n}", text) for n, text in enumerate(texts))
    design = Design("x", yarns=(yarn,), parts=parts)
    found = difficulty_of(design, run_parts(design))
    return found.level, found.reasons


@pytest.mark.parametrize(
    ("text", "wanted", "why"),
    [
        (BALL, Level.BASIC, ""),
        (BALL.replace("R3-R4: sc around", "R3-R4: sc around in BLO"), Level.EASY, "single loops (Part 0, R3-R4)"),
        (BALL.replace("R3-R4: sc around", "R3-R4: hdc around"), Level.EASY, "taller stitches (Part 0, R3-R4)"),
        ("Row 1: ch 7, 6 sc [6]\nRow 2: ch 1, turn, 6 sc [6]\n", Level.EASY, "rows"),
        (BALL.replace("R3-R4: sc around", "R3-R4: (5 sc, bobble) x 2"), Level.INTERMEDIATE, "bobble of five (Part 0, R3-R4)"),
        ("R1: 4 sc in ring [4]\nR2-R9: sc around [4]\n", Level.INTERMEDIATE, "tubes of very few stitches (Part 0)"),
    ],
)  # fmt: skip
def test_a_technique_makes_the_level(text: str, wanted: Level, why: str) -> None:
    found, reasons = level(text)
    assert found is wanted
    assert why in reasons


def test_plush_is_harder_and_many_pieces_too() -> None:
    assert level(BALL, plush=True)[0] is Level.INTERMEDIATE
    many = Design("x", parts=(Part("a", "Spine", BALL, make=20),))
    assert difficulty_of(many, run_parts(many)).level is Level.INTERMEDIATE


def test_many_techniques_together_are_complex() -> None:
    text = "R1: 6 sc in ring [6]\nR2: (sc, bobble) x 3 [6]\nR3: (puff, sc) x 3 [6]\nR4: (popcorn, sc) x 3 [6]\n"
    text += "R5: (spike sc, sc) x 3 [6]\nR6: (loop st, sc) x 3 [6]\n"
    found, reasons = level(text)
    assert found is Level.COMPLEX
    assert reasons.count("(") >= 5


def test_more_never_makes_it_easier() -> None:
    order = list(Level)
    texts = [BALL, BALL.replace("sc around", "sc around in BLO"), BALL.replace("sc around", "(5 sc, bobble) x 2")]
    found = [order.index(level(*texts[: n + 1])[0]) for n in range(3)]
    assert found == sorted(found)
