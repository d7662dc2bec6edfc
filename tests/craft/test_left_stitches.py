"""Stitches that are left and taken up again, bridges worked along twice, chains behind a join: as people write them."""

from __future__ import annotations

import numpy as np
import pytest

from craft.problems import Severity
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.numbering import numbered
from craft.text.freehand.phrases import said

BODY = "R1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: (sc, inc) x 6 (18)\nR4: (2 sc, inc) x 6 (24)\n"


def first(text: str, language: str = "en") -> str:
    ways = said(tokens(text, Vocabulary(language, Terms.US)), text)
    return ways[0].work if ways else ""


def lives(text: str) -> list[list[int]]:
    found = check(text)
    assert found.sound, found.problems
    return [[t.live for t in part.rounds if t.number is not None] for part in found.parts]


# --- words --------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "language", "work"),
    [
        ("12 sc, leave the other 12 sts unworked, join", "en", "12 sc, leave 12 sts, join"),
        ("12 sc, leaving the remaining sts on hold", "en", "12 sc, leave the rest"),
        ("12 fM, die restlichen 12 M stilllegen, zur Runde schließen", "de", "12 sc, leave 12 sts, join"),
        ("12 ms, laisser les 12 m restantes en attente, fermer en rond", "fr", "12 sc, leave 12 sts, join"),
        ("12 pb, dejar los 12 puntos restantes sin tejer, unir en redondo", "es", "12 sc, leave 12 sts, join"),
        ("12 mb, lasciare in sospeso le 12 maglie restanti, chiudere in tondo", "it", "12 sc, leave 12 sts, join"),
        ("12 v, laat de overige 12 steken onbewerkt, sluit de ring", "nl", "12 sc, leave 12 sts, join"),
    ],
)
def test_stitches_are_left_in_every_language(text: str, language: str, work: str) -> None:
    assert first(text, language) == work


@pytest.mark.parametrize("text", ["leave a long tail", "leave an opening for the stuffing"])
def test_what_else_is_left_leaves_no_stitches(text: str) -> None:
    assert "leave" not in first(text)


@pytest.mark.parametrize("text", ["sc in each of the 12 unworked sts", "sc in each of the 12 skipped stitches"])
def test_stitches_that_were_left_are_worked_on(text: str) -> None:
    ways = said(tokens(text, Vocabulary("en", Terms.US)), text)
    assert ways[0].held
    assert ways[0].work == "12 sc"


@pytest.mark.parametrize(
    ("text", "language", "work"),
    [
        ("*2 v, 2 samen haken* herhaal nog 5 keer", "nl", "(2 sc, dec) x 6"),
        ("* 1 fM, 1 Zun; ab * 5x wdh.", "de", "(1 sc, 1 inc) x 5"),
        ("*2 sc in next st, sc in next st*, rep * to * around", "en", "(2 sc in next st, 1 sc) around"),
        ("*sc in 2, inc; repeat between *s around", "en", "(2 sc, inc) around"),
        ("30 sc, no increases", "en", "30 sc"),
        ("sl st into first ch to make a ring", "en", "join"),
        ("6 sc, join with sl st to first sc", "en", "6 sc, join"),
        ("sc in the back loop of every st", "en", "in BLO sc around"),
        ("sc in both loops of every sc", "en", "sc around"),
        ("sc 12 across through both sides", "en", "12 sc through both layers"),
    ],
)
def test_phrases_that_stand_in_many_patterns(text: str, language: str, work: str) -> None:
    assert first(text, language) == work


# --- where the rounds are -----------------------------------------------------------------


REJOINED = {
    "Rejoin yarn to the first of the 12 unworked sts.": "en",
    "Attach yarn to the first skipped st.": "en",
    "Den Faden an den stillgelegten Maschen neu anschlingen.": "de",
    "Rejoindre le fil sur les mailles en attente.": "fr",
    "Unir el hilo en los puntos sin tejer.": "es",
    "Riattaccare il filo alle maglie in sospeso.": "it",
    "Hecht aan bij de onbewerkte steken.": "nl",
}
LEFT = {
    "en": "12 sc, leave the other 12 sts unworked, join",
    "de": "12 fM, die restlichen 12 M stilllegen, zur Runde schließen",
    "fr": "12 ms, laisser les 12 m restantes en attente, fermer en rond",
    "es": "12 pb, dejar los 12 puntos restantes sin tejer, unir en redondo",
    "it": "12 mb, lasciare in sospeso le 12 maglie restanti, chiudere in tondo",
    "nl": "12 v, laat de overige 12 steken onbewerkt, sluit de ring",
}
WORDS = {
    "en": ("R", "6 sc in magic ring", "inc", "sc", "Cut the yarn. Stuff the leg of the bear and the other one."),
    "de": ("Rd ", "6 fM in den Fadenring", "Zun", "fM", "Den Faden abschneiden und die Maschen der Runde füllen."),
    "fr": ("Tour ", "6 ms dans le cercle magique", "aug", "ms", "Couper le fil, rembourrer les mailles et le tour."),
    "es": ("Vuelta ", "6 pb en el anillo mágico", "aum", "pb", "Cortar el hilo y rellenar los puntos de la vuelta."),
    "it": ("Giro ", "6 mb nell'anello magico", "aum", "mb", "Tagliare il filo e imbottire il giro e la maglia."),
    "nl": ("Toer ", "6 v in een magische ring", "meerd", "v", "Hecht af en vul de toer en de steken van het lijf."),
}


@pytest.mark.parametrize("rejoin", REJOINED)
def test_a_body_divides_and_its_second_leg_takes_up_what_was_left(rejoin: str) -> None:
    code = REJOINED[rejoin]
    label, ring, inc, sc, between = WORDS[code]
    text = (
        f"{label}1: {ring} (6)\n{label}2: 6 {inc} (12)\n{label}3: (1 {sc}, 1 {inc}) x 6 (18)\n"
        f"{label}4: (2 {sc}, 1 {inc}) x 6 (24)\n{label}5: {LEFT[code]} (12)\n{label}6: 12 {sc} (12)\n"
        f"{between}\n{rejoin}\n{label}5: 12 {sc} (12)\n{label}6: 12 {sc} (12)\n"
    )
    assert lives(text) == [[6, 12, 18, 24, 12, 12, 12, 12]]


def test_a_split_that_begins_before_the_rounds_end_takes_the_last_stitches() -> None:
    text = (
        BODY
        + "R5: count back 10 sts from your hook and sc in the 10th st, then sc in the next 9 (10)\nR6: sc around (10)\n"
        "Fasten off.\nRejoin to the remaining 14 sts.\nR5: sc around (14)\nR6: sc around (14)\n"
    )
    found = check(text)
    assert found.sound, found.problems
    graph = found.parts[0].graph
    fourth, fifth = found.parts[0].rounds[3], found.parts[0].rounds[4]
    below = sorted({int(p) for row in range(fifth.first, fifth.end) for p in graph.parents_of(row)})
    assert below == list(range(fourth.end - 10, fourth.end))


def test_a_second_leg_goes_on_around_the_first_and_both_sides_of_the_chain() -> None:
    leg = "R1: 6 sc in ring (6)\nR2: inc x 6 (12)\n"
    text = (
        f"Leg 1\n{leg}Cut yarn.\nLeg 2\n{leg}R3: ch 3, join to leg 1 with a sc and sc in the other 11 sts of leg 1, 3 sc along "
        "the chain, 12 sc around leg 2, 3 sc along the other side of the chain (30)\nR4: 30 sc (30)\n"
    )
    assert lives(text) == [[6, 12], [6, 12, 30, 30]]


def test_both_sides_of_a_bridge_are_worked_once_each() -> None:
    leg = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\n"
    text = (
        f"## Leg 1\n{leg}## Leg 2\n{leg}R3: ch 3, 12 sc around the Leg 1, 3 sc along the chain, 12 sc on the main edge, "
        "3 sc along the other side of the chain [30]\n"
    )
    found = check(text)
    assert found.sound, found.problems
    part = found.parts[-1]
    last = part.rounds[-1]
    chains = [row for row in range(last.first, last.end) if not len(part.graph.parents_of(row))]
    children = [int(p) for row in range(last.first, last.end) for p in part.graph.parents_of(row)]
    assert len(chains) == 3
    assert [children.count(c) for c in chains] == [2, 2, 2]
    assert not np.isin(chains, part.edge).any()


@pytest.mark.parametrize("behind", ["join, ch 1", "sl st in first sc, ch 1"])
def test_a_chain_behind_the_join_is_the_next_rounds(behind: str) -> None:
    text = f"R1: 8 sc in magic ring, {behind} (8)\nR2: inc around, {behind} (16)\nR3: (sc, inc) x 8, {behind} (24)\n"
    assert lives(text) == [[8, 16, 24]]


# --- labels -------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "numbers", "rest"),
    [
        ("In der 2. Runde wird jede Masche verdoppelt", (2, 2), "wird jede Masche verdoppelt"),
        ("in the third round, increase", (3, 3), "increase"),
        ("dal 6° all'8° giro: 1 mb", (6, 8), "1 mb"),
        ("(R4-5) sc around", (4, 5), "sc around"),
        ("6-8) 30x", (6, 8), "30x"),
        ("5) a 7) 1 mp", (5, 7), "1 mp"),
        ("Rounds #5 through #8: sc", (5, 8), "sc"),
        ("Rd 2; inc x 6", (2, 2), "inc x 6"),
        ("Vuelta 4 a la 6: 1 pb", (4, 6), "1 pb"),
        ("Zweite Runde: 6 Zun", (2, 2), "6 Zun"),
        ("4ta vuelta: 24 pb", (4, 4), "24 pb"),
        ("Reihe 5+6: fM", (5, 6), "fM"),
    ],
)
def test_labels_in_more_forms(line: str, numbers: tuple[int, int], rest: str) -> None:
    label = label_at(line)
    assert label is not None
    assert (label.first, label.last) == numbers
    assert line[label.end :] == rest


def test_a_count_between_the_number_and_the_work_is_the_rounds() -> None:
    label = label_at("Tour 3 (18 m) : (1 ms, 1 aug) x 6")
    assert label is not None
    assert (label.first, label.count) == (3, 18)


def test_numbers_of_stitches_that_go_up_and_down_are_no_labels() -> None:
    lines = [
        "6 sc in magic ring (6)",
        "1 sc 1 inc (18)",
        "2 sc 1 inc (24)",
        "3 sc 1 inc (30)",
        "3 sc 1 dec (24)",
        "2 sc 1 dec (18)",
    ]
    assert numbered(lines) == lines


# --- never half understood ------------------------------------------------------------------


@pytest.mark.parametrize("numbers", ["24 25", "23", "24 24 23"])
def test_numbers_alone_that_do_not_fit_are_no_remark(numbers: str) -> None:
    found = check(
        f"Bud\nrnd 1 mr6 6\nrnd 2 inc6 12\nrnd 3 (1,inc)x6 18\nrnd 4 (2,inc)x6 24\nrnd 5-6 {numbers}\nrnd 7 (2,dec)x6 18\n"
    )
    assert any(p.severity is Severity.FAULT for p in found.problems)


def test_how_long_it_is_worked_is_kept_where_the_label_says_how_often() -> None:
    text = "Tail\nR1: 4 sc in MR\nR2-8: sc in each st until the tail measures about 5 cm (4)\n"
    found = check(text)
    assert found.sound, found.problems
    assert len(found.parts[0].rounds) == 8
    assert found.translation is not None
    assert "until the tail measures about 5 cm" in found.translation.text


def test_a_round_that_is_only_measured_is_a_fault() -> None:
    found = check("Tail\nR1: 4 sc in MR\nR2: sc in each st until the tail measures about 5 cm\n")
    assert not found.sound
