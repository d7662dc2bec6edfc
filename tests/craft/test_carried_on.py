"""Sentences that carry the shaping on round by round: every round of them is written out, or it is said that none is."""

from __future__ import annotations

import pytest

from craft.text.check import check
from craft.text.freehand.carried_on import Carried, carried_on
from craft.text.freehand.lexer import Vocabulary

HAT = "Hat\nR1: 4 sc in ring (4)\nR2: (1 sc, inc) x 2 (6)\nR3: (2 sc, inc) x 2 (8)\n"
GROWN = (4, 6, 8, 10, 12, 14, 16)

SAID = [
    "Continue to increase 2 sts in every round in this way until you have 16 sts.",
    "Continue to increase 2 sts in every round in this way until you have 16 sts (4 more rounds).",
    "Continue in this manner, increasing two stitches per round, until you have 16 sts.",
    "Continue increasing in the same way for 4 more rounds. (16)",
    "Continue in the same way for 4 more rounds.",
    "Keep increasing by 2 every round until 16 sts.",
    "Work 4 more rounds, increasing 2 sts in each round. 16 sts.",
    "R4-7: continue increasing 2 sts each round as established (16)",
    "R4-R7: Increase 2 sts evenly each round (10, 12, 14, 16)",
    "Rnds 4–7: cont inc 2 sts every rnd (16 sts at end of rnd 7)",
]

STARTS = {
    "de": "Hut\nRd 1: 6 fM in Ring (6)\nRd 2: 6 Zun (12)\nRd 3: (1 fM, Zun) x 6 (18)\n",
    "fr": "Bonnet\nTour 1 : 6 ms dans un cercle magique (6)\nTour 2 : 6 aug (12)\nTour 3 : (1 ms, aug) x 6 (18)\n",
    "es": "Gorro\nV1: 6 pb en anillo mágico (6)\nV2: 6 aum (12)\nV3: (1 pb, aum) x 6 (18)\n",
    "it": "Cappello\nGiro 1: 6 mb nel cerchio magico (6)\nGiro 2: 6 aum (12)\nGiro 3: (1 mb, aum) x 6 (18)\n",
    "nl": "Muts\nToer 1: 6 v in magische ring (6)\nToer 2: 6 meerd (12)\nToer 3: (1 v, meerd) x 6 (18)\n",
}

IN_LANGUAGES = [
    ("de", "Auf diese Weise in jeder Runde 6 Maschen zunehmen, bis 36 Maschen erreicht sind."),
    ("de", "So weiter zunehmen, bis es 36 M sind."),
    ("de", "In jeder Runde 6 M zunehmen bis 36 M."),
    ("de", "Rd 4-6: in jeder Runde 6 M zunehmen (36)"),
    ("fr", "Continuer à augmenter de 6 mailles à chaque tour jusqu'à obtenir 36 mailles."),
    ("fr", "Tours 4 à 6 : augmenter 6 mailles à chaque tour (36)"),
    ("es", "Continuar aumentando 6 puntos en cada vuelta hasta tener 36 puntos."),
    ("es", "Seguir así, aumentando 6 puntos por vuelta, 3 vueltas más (36)."),
    ("it", "Continuare ad aumentare 6 maglie a ogni giro fino ad avere 36 maglie."),
    ("it", "Continuare in questo modo per altri 3 giri (36)."),
    ("nl", "Ga zo door en meerder 6 steken per toer tot je 36 steken hebt."),
    ("nl", "Meerder op deze manier elke toer 6 steken tot 36 steken."),
]

NOT_TO_BE_TOLD = [
    "Continue in this way, increasing two stitches each round, until you have 15 stitches.",
    "Continue in this way, increasing 2 sts each round, until you have 6 sts.",
    "Continue to increase 2 sts in every round until you have 16 sts (7 more rounds).",
    "R4-R8: Increase 2 sts evenly each round (16)",
    "Continue increasing every other round as before for a while, 4 sts at a time, until there are 17 sts.",
]


@pytest.mark.parametrize("sentence", SAID)
def test_every_round_of_it_is_written_out(sentence: str) -> None:
    found = check(f"{HAT}{sentence}\nR8: sc around (16)\n")
    assert found.sound
    assert found.parts[0].counts == (*GROWN, 16)
    assert any("goes on as in the rounds before" in p.message for p in found.problems)


@pytest.mark.parametrize(("language", "sentence"), IN_LANGUAGES)
def test_in_every_language(language: str, sentence: str) -> None:
    found = check(f"{STARTS[language]}{sentence}\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, 24, 30, 36)


@pytest.mark.parametrize("sentence", NOT_TO_BE_TOLD)
def test_what_does_not_work_out_is_never_sound(sentence: str) -> None:
    assert not check(f"{HAT}{sentence}\n").sound


def test_every_other_round_has_plain_ones_between() -> None:
    found = check(HAT + "Continue increasing 2 sts every other round until there are 12 sts.\n")
    assert found.sound
    assert found.parts[0].counts == (4, 6, 8, 8, 10, 10, 12)


def test_decreases_are_carried_on_with_the_shaping_first_where_it_was_first() -> None:
    text = "Cone\nR1: 24 sc in ring (24)\nR2: (dec, 4 sc) x 4 (20)\nContinue decreasing 4 sts every round until 12 sts remain.\n"
    found = check(text)
    assert found.parts[0].counts == (24, 20, 16, 12)
    assert found.translation is not None
    assert "R3: (dec, 3 sc) x 4 [16]" in found.translation.text


def test_like_this_after_plain_rounds_is_plain() -> None:
    found = check(
        "Tube\nR1: 6 sc in ring (6)\nR2: sc around (6)\nR3: sc around (6)\nContinue like this for 3 more rounds.\n"
    )
    assert found.sound
    assert found.parts[0].counts == (6,) * 6


@pytest.mark.parametrize(
    "sentence",
    [
        "sc around",
        "(3 sc, inc) x 2",
        "increase 2 sts evenly",
        "Sew the ears in this way.",
        "as before",
        "inc and dec each round for 3 rounds",
    ],
)
def test_what_carries_nothing_on(sentence: str) -> None:
    assert carried_on(sentence, Vocabulary()) is None


def test_what_is_said_is_told_by_its_words() -> None:
    said = carried_on("Continue to increase six stitches every other round until you have 48 sts", Vocabulary())
    assert said == Carried(grows=True, by=6, until=48, rounds=None, every=2)


@pytest.mark.parametrize(
    ("language", "sentence"),
    [
        ("de", "Nun 3 Runden ohne Zunahmen häkeln."),
        ("fr", "Faire 3 tours sans augmentation."),
        ("es", "Tejer tres vueltas sin aumentos."),
        ("it", "Lavorare altri tre giri senza aumenti."),
        ("nl", "Haak nog 3 toeren zonder meerderen."),
    ],
)
def test_plain_rounds_are_told_in_every_language(language: str, sentence: str) -> None:
    found = check(f"{STARTS[language]}{sentence}\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, 18, 18, 18)


@pytest.mark.parametrize(
    "sentence", ["Work two more rounds with no increases.", "sc 2 rounds plain", "Then 2 rounds even."]
)
def test_plain_rounds_in_a_sentence_are_rounds(sentence: str) -> None:
    found = check(f"{HAT}{sentence}\n")
    assert found.sound
    assert found.parts[0].counts == (4, 6, 8, 8, 8)


@pytest.mark.parametrize(
    "sentence",
    [
        "After 3 rounds without increases, insert the eyes.",
        "Attach the eyes 3 rnds above the neck, 4 sts apart.",
        "Repeat round 3 until your hat is as long as you like.",
    ],
)
def test_what_is_said_of_rounds_makes_none(sentence: str) -> None:
    found = check(f"{HAT}R4: sc around (8)\n{sentence}\nR5: sc around (8)\n")
    assert found.sound
    assert found.parts[0].counts == (4, 6, 8, 8, 8)
