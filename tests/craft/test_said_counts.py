"""Counts that are said in words of their own, behind a round or a line below it: none may be another than the stitches'."""

from __future__ import annotations

import pytest

from craft.text.check import check

BALL = "Ball\nR1: 6 sc in ring (6)\nR2: inc around (12)\n"
SAID = {
    "a sentence": "R3: (1 sc, inc) x 6. You now have {n} stitches.\n",
    "a line of its own": "R3: (1 sc, inc) x 6\nTotal stitches: {n}\n",
    "a word and a colon": "R3: (1 sc, inc) x 6. Count: {n}\n",
    "another bracket": "R3: (1 sc, inc) x 6 {{{n}}}, start stuffing\n",
    "gathering": "R3: (1 sc, inc) x 6 (18)\nR4: (1 sc, dec) x 6 (12)\nThread the yarn through the remaining {m} sts.\n",
}
ABROAD = {
    "es": "Bola\nVuelta 1: 6 pb en anillo mágico (6)\nVuelta 2: seis aumentos. Tienes {n} puntos.\n",
    "fr": "Boule\nTour 1 : 6 ms dans un cercle magique (6)\nTour 2 : 6 augmentations. On obtient {n} m.\n",
    "de": "Kugel\nRunde 1: 6 fM in Fadenring (6)\nRunde 2: jede M verdoppeln (12)\n3.-5. Runde: in jede M 1 fM (je {n} M)\n",
}


@pytest.mark.parametrize("how", SAID)
@pytest.mark.parametrize("off", [0, 1, -2])
def test_a_count_in_words_is_a_count(how: str, off: int) -> None:
    found = check(BALL + SAID[how].format(n=18 + off, m=12 + off))
    assert found.sound == (off == 0), [p.message for p in found.problems]


@pytest.mark.parametrize("language", ABROAD)
@pytest.mark.parametrize("off", [0, 1])
def test_so_it_is_in_other_languages(language: str, off: int) -> None:
    found = check(ABROAD[language].format(n=12 + off))
    assert found.sound == (off == 0), [p.message for p in found.problems]


@pytest.mark.parametrize(
    "behind",
    [
        "Leave a tail of 20 cm.",
        "Sew through 3 layers.",
        "Stuff with 10 g.",
        "Place eyes between R2 and R3, 4 sts apart.",
    ],
)
def test_other_numbers_behind_a_round_are_no_counts(behind: str) -> None:
    assert check(BALL + f"R3: (1 sc, inc) x 6 (18)\n{behind}\n").sound


def test_a_number_before_work_is_no_count() -> None:
    assert check("Ball\n(1) 6 sc in MR, 6\n(2) inc all, 12\n(3) sc, inc, rep, 18\n").sound
