"""Colours that are told within a round: every stitch is worked in the one that is meant, wherever its name stands."""

from __future__ import annotations

import pytest

from craft.rounds.fabric import WorkedPart
from craft.text.check import check

HEAD = {
    "en": "Ball\nYarn: blue, white\nR1: 6 sc in magic ring (6)\nR2: inc x 6 (12)\nR3: {} ({})\n",
    "de": "Kugel\nFarben: blau, weiß\n1. Rd: 6 fM in Fadenring (6)\n2. Rd: 6 x zun (12)\n3. Rd: {} ({})\n",
    "fr": "Balle\nCouleurs : bleu, blanc\nT1 : 6 ms dans un cercle magique (6)\nT2 : 6 aug (12)\nT3 : {} ({})\n",
}


def colours_of(part: WorkedPart) -> list[tuple[str, int]]:
    """The colours of a part's last round in working order, in small letters, each with how many stitches it works on end."""
    last = part.rounds[-1]
    many = len(part.graph.kind)
    worked = [part.graph.colours[c].lower() for c in part.graph.colour[many - last.live : many]]
    runs: list[tuple[str, int]] = []
    for colour in worked:
        if runs and runs[-1][0] == colour:
            runs[-1] = (colour, runs[-1][1] + 1)
        else:
            runs.append((colour, 1))
    return runs


@pytest.mark.parametrize(
    ("language", "work", "count", "worked"),
    [
        ("en", "6 sc in white, 6 sc in blue", 12, [("white", 6), ("blue", 6)]),
        ("en", "6 sc (white), 6 sc (blue)", 12, [("white", 6), ("blue", 6)]),
        ("en", "sc 6 in white and 6 in blue", 12, [("white", 6), ("blue", 6)]),
        ("en", "in white 6 sc, in blue 6 sc", 12, [("white", 6), ("blue", 6)]),
        ("en", "3 sc in white, 6 sc in blue, 3 sc in white", 12, [("white", 3), ("blue", 6), ("white", 3)]),
        ("en", "6 sc in blue, (sc, inc) x 3 in white", 15, [("blue", 6), ("white", 9)]),
        ("en", "sc in next 6 sts in white, sc in next 6 sts in blue", 12, [("white", 6), ("blue", 6)]),
        ("de", "6 fM in weiß, 6 fM in blau", 12, [("weiß", 6), ("blau", 6)]),
        ("fr", "6 ms en blanc, 6 ms en bleu", 12, [("blanc", 6), ("bleu", 6)]),
    ],
)
def test_a_colour_behind_its_stitches_is_theirs(
    language: str, work: str, count: int, worked: list[tuple[str, int]]
) -> None:
    found = check(HEAD[language].format(work, count))
    assert found.sound, found.problems
    assert colours_of(found.parts[0]) == worked


@pytest.mark.parametrize("told", ["Ball (MC blue, CC white)", "Ball\nYarn: blue (MC), white (CC)"])
def test_mc_is_a_colour_beside_a_ring_of_another_name(told: str) -> None:
    found = check(f"{told}\nR1: 6 sc in magic ring (6)\nR2: inc x 6 (12)\nR3: 6 sc in MC, 6 sc in CC (12)\n")
    assert found.sound, found.problems
    assert colours_of(found.parts[0]) == [("mc", 6), ("cc", 6)]


def test_mc_is_the_ring_where_nothing_else_is() -> None:
    found = check("Ball (CC white)\nR1: 6 sc in MC (6)\nR2: inc x 6 (12)\n")
    assert found.sound, found.problems
    assert found.parts[0].counts == (6, 12)
