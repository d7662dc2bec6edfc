"""Chains that begin a joined round and stand for its first stitch, in six languages, and those that do not."""

from __future__ import annotations

import pytest

from craft.text.check import check
from craft.text.freehand.chain_starts import closes_at, counts_at

CIRCLES = {
    "uk": (
        "UK terms\nMake a magic ring.\nRound 1: 3 ch (counts as 1 tr), 11 tr into ring, sl st to top of 3 ch. 12 tr\n"
        "Round 2: 3 ch (counts as 1 tr), 1 tr in same place, 2 tr in each tr to end, ss to 3rd ch of 3 ch. 24 tr\n"
    ),
    "us": (
        "US terms\nRnd 1: Ch 3, 11 dc in 3rd ch from hook, join with sl st in top of beg ch. (12 dc)\n"
        "Rnd 2: Ch 3, dc in same st, 2 dc in each st around, join with sl st in top of ch-3. (24 dc)\n"
    ),
    "de": (
        "Fadenring\n1. Runde: 3 Lm (zählen als 1. Stb), 11 Stb in den Ring, mit Km in die 3. Lm schließen (12 Stb)\n"
        "2. Runde: 3 Lm (ersetzen das 1. Stb), 1 Stb in dieselbe M, je 2 Stb in jedes Stb, Km in die oberste Lm (24 Stb)\n"
    ),
    "fr": (
        "Cercle magique\nTour 1 : 3 ml (comptent pour 1 br), 11 br dans le cercle, 1 mc dans la 3e ml (12)\n"
        "Tour 2 : 3 ml (= 1 br), 1 br dans la même maille, 2 br dans chaque maille, fermer par 1 mc dans la 3e ml (24)\n"
    ),
    "es": (
        "Anillo mágico\nVuelta 1: 3 cad (cuentan como 1 pa), 11 pa en el anillo, cerrar con pr en la 3ª cad (12)\n"
        "Vuelta 2: 3 cad, 1 pa en el mismo punto, 2 pa en cada punto, cerrar con pr (24)\n"
    ),
    "it": (
        "Anello magico\nGiro 1: 3 cat (contano come 1 ma), 11 ma nell'anello, chiudere con mbss nella 3a cat (12)\n"
        "Giro 2: 3 cat, 1 ma nella stessa maglia, 2 ma in ogni maglia, chiudere con mbss (24)\n"
    ),
    "nl": (
        "Magische ring\nToer 1: 3 l (telt als 1 stk), 11 stk in de ring, sluit met hv in de 3e l (12)\n"
        "Toer 2: 3 l (telt als stk), 1 stk in dezelfde steek, 2 stk in elke steek, hv in de 3e losse (24)\n"
    ),
}


@pytest.mark.parametrize("language", CIRCLES)
def test_a_flat_circle_of_tall_stitches_has_its_chains_counted(language: str) -> None:
    found = check(f"Circle\n{CIRCLES[language]}")
    assert found.sound, [p.message for p in found.problems]
    assert [list(part.counts) for part in found.parts] == [[12, 24]]


@pytest.mark.parametrize("language", CIRCLES)
def test_another_count_of_it_is_a_fault(language: str) -> None:
    text = CIRCLES[language]
    at = text.rindex("24")
    assert not check(f"Circle\n{text[:at]}25{text[at + 2 :]}").sound


def test_a_chain_that_counts_for_nothing_is_no_stitch() -> None:
    text = "Hat\nRnd 1: MR, ch 2 (does not count as a st), 10 hdc in ring, sl st in first hdc (10)\n"
    assert [list(part.counts) for part in check(text).parts] == [[10]]
    assert not check(text.replace("(10)", "(11)")).sound


@pytest.mark.parametrize(
    ("said", "counts"),
    [
        (" (counts as 1 tr), 11 tr", True),
        (", which counts as the first dc, 11 dc", True),
        (" (zählen nicht als M)", False),
        (" (ne comptent pas)", False),
        (" (no cuentan como punto)", False),
        (", 11 tr into ring", None),
    ],
)
def test_what_is_said_of_a_chain(said: str, counts: bool | None) -> None:
    found = counts_at(said, 0)
    assert (None if found is None else found[0]) is counts


@pytest.mark.parametrize(
    "said", ["sl st to top of 3 ch", "join with a sl st in 3rd ch of beginning ch-3", "Km in die 3. Lm"]
)
def test_a_slip_stitch_into_that_chain_closes_the_round(said: str) -> None:
    assert closes_at(said, 0) == len(said)


@pytest.mark.parametrize("said", ["sl st in first sc", "sl st in next 3 sts", "ch 3"])
def test_another_slip_stitch_does_not(said: str) -> None:
    assert closes_at(said, 0) is None
