"""Labels told in words, and rounds that are told by a colour, by a count ahead, by letters."""

from __future__ import annotations

import pytest

from benchmarks.reading import counts_of
from craft.text.check import check
from craft.text.freehand.labels import label_at


@pytest.mark.parametrize(
    ("text", "first", "last", "many", "behind"),
    [
        ("In the third round, work", 3, 3, 1, "work"),
        ("From the fifth to the eighth round, sc", 5, 8, 1, "sc"),
        ("For the next four rounds, sc", None, None, 4, "sc"),
        ("Next time round put two in each", None, None, 1, "put two in each"),
        ("Then, in round 4, sc", 4, 4, 1, "sc"),
        ("In der nächsten Runde alle M verdoppeln", None, None, 1, "alle M verdoppeln"),
        ("In den nächsten vier Runden fM", None, None, 4, "fM"),
        ("Von der fünften bis zur achten Runde fM", 5, 8, 1, "fM"),
        ("Du cinquième au huitième tour, ms", 5, 8, 1, "ms"),
        ("Pendant les quatre prochains tours, ms", None, None, 4, "ms"),
        ("Les quatre tours suivants : ms", None, None, 4, "ms"),
        ("Las cuatro vueltas siguientes: pb", None, None, 4, "pb"),
        ("De la quinta a la octava vuelta: pb", 5, 8, 1, "pb"),
        ("Las vueltas 5, 6 y 7 van sin aumentos", 5, 7, 1, "van sin aumentos"),
        ("Dal giro 5 al giro 8: mb", 5, 8, 1, "mb"),
        ("Dal 6° all'8° giro mb", 6, 8, 1, "mb"),
        ("Per i prossimi quattro giri, mb", None, None, 4, "mb"),
        ("Vijfde tot en met achtste toer: v", 5, 8, 1, "v"),
        ("De volgende vier toeren haak v", None, None, 4, "haak v"),
        ("Letzte Runde: 6 Abn", None, None, 1, "6 Abn"),
    ],
)
def test_a_sentence_names_its_round(text: str, first: int | None, last: int | None, many: int, behind: str) -> None:
    label = label_at(text)
    assert label is not None
    assert (label.first, label.last, label.many, text[label.end :]) == (first, last, many, behind)


@pytest.mark.parametrize(
    "text",
    [
        "And row 10 of the cap is only for the look",
        "Twelve next round, just increases",
        "The first of the four legs",
        "Die Augen sitzen zwischen Runde 5 und 6",
        "In the shop there is more",
        "Nun 3 Runden ohne Zunahmen",
    ],
)
def test_what_speaks_of_rounds_is_no_label(text: str) -> None:
    assert label_at(text) is None


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("Ball\n[6] Magic loop with 6 sc\n[12] 2 sc in each\n[18] (sc, inc) around\n[18] sc around\n", (6, 12, 18, 18)),
        ("Ball\nR1 (6) 6 ms dans CM\nR2 (12) 6 aug\nR3 (18) (ms, aug) x6\nR4-5 (18) ms\n", (6, 12, 18, 18, 18)),
        ("Ball\nmr 6sc\n6 inc (12)\nblack: sc around\nyellow: 12 sc\nin black (sc, inc) x6\n", (6, 12, 12, 12, 18)),
        ("Bola\nam 6pb\n6 aum (12)\nnegro: 12pb\namarillo: (1pb 1aum) x6 (18)\n", (6, 12, 12, 18)),
        ("Hut\nR1 FR 6\nR2 6V 12\nR3 6(1,V) 18\nR4+5 18\nR6 6(1,A) 12\n", (6, 12, 18, 18, 18, 12)),
        ("Kürbis\nFR 6\nalle verd. 12\njede 2. verd. 18\n3 Rd 18\nimmer 2 zus 9\n", (6, 12, 18, 18, 18, 18, 9)),
        ("Hat\nR1: mr x6\nR2: 6 inc (12)\nR3: [1 inc]6, 18\nR4-6: same, 18\n", (6, 12, 18, 18, 18, 18)),
        ("Bola\n1 6pb en AM\n2 aum x6, 12\n3 1pb aum x6, 18\n4-6 recto, 18\n7 dism x9, 9\n", (6, 12, 18, 18, 18, 18, 9)),
        ("Ball\n**Round 1:** 6 sc in ring (6)\n**Round 2:** increase in every stitch (12)\n"
         "**Round 3:** increase in every *other* stitch – 18\n", (6, 12, 18)),
        ("Testa\nG1: 6 mb in AM\nG2: 6 aum (12)\nG3: aumentare una maglia sì e una no (18)\n", (6, 12, 18)),
        ("Kop\nt1: 6 v in mr\nt2: 6 m (12)\nt3: om de steek verdubbelen (18)\n", (6, 12, 18)),
        ("Head\n\nWork 6 single crochet into an adjustable ring. Pull it shut.\nSecond round: inc around (12).\n"
         "Third round: sc around (12). Stuff the head now.\nLast round: six decreases (6).\n", (6, 12, 12, 6)),
    ],
)  # fmt: skip
def test_rounds_told_in_passing_are_read(text: str, counts: tuple[int, ...]) -> None:
    found = check(text)
    assert counts_of(found) == (counts,), [line.text for line in found.translation.lines] if found.translation else ""
    assert found.sound, [p.message for p in found.problems]


@pytest.mark.parametrize(
    "behind",
    [
        "Jetzt sind es 17 Maschen.",
        "In totaal 17 steken.",
        "Il y a 17 mailles.",
        "Ora hai 17 maglie.",
        "Ahora tienes 17 puntos.",
        "So that 17 remain.",
    ],
)
def test_a_count_said_in_a_sentence_of_its_own_is_held_against_the_round(behind: str) -> None:
    text = f"R1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: (sc, inc) x 6. {behind}\n"
    assert not check(text).sound


def test_letters_are_guessed_with_a_warning_and_never_where_the_text_explains_them() -> None:
    said = check("Hut\nR1 FR 6\nR2 6V 12\nR3 6(1,V) 18\n")
    assert [p.code for p in said.problems].count("guessed-stitch") == 1
    colours = check("Hat\nR1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: 6D, 6E (12)\n")
    assert not any(p.code == "guessed-stitch" for p in colours.problems)


def test_a_range_whose_rounds_are_left_out_is_told() -> None:
    """'4-6 …' of which nothing is understood stands where the rounds 4 to 6 are missing."""
    found = check(
        "R1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: sc around (12)\n4-6 as it pleases you\nR7: dec x 6 (6)\n"
    )
    assert not found.sound


def test_what_is_drawn_shut_behind_the_first_round_is_the_ring() -> None:
    closed = "R1: 6 sc in ring\n{}\nR2: inc x 6 (12)\nR3: dec x 6 (6)\n{}\nStuff firmly.\n"
    assert check(closed.format("Pull it shut.", "")).sound
    assert not check(closed.format("", "Pull it shut.")).sound
