"""Rounds that are told in sentences: what every number is of, and what no sentence may lose."""

from __future__ import annotations

import pytest

from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.freehand import tells_work, times_said
from craft.text.freehand.ellipses import unfolded
from craft.text.freehand.lexer import Vocabulary, name_of, tokens
from craft.text.freehand.lexicon import Sort, by_stem


@pytest.mark.parametrize(
    ("told", "written"),
    [
        (
            "In der zweiten Runde jede M verdoppeln (12), in der dritten jede zweite (18), in der vierten jede dritte (24).",
            "Rnd 2: jede M verdoppeln (12). Rnd 3: jede zweite (18). Rnd 4: jede dritte (24).",
        ),
        (
            "En la segunda vuelta aumentamos en cada punto (12). En la tercera, un pb y un aumento, 6 veces (18).",
            "Rnd 2: aumentamos en cada punto (12). Rnd 3: un pb y un aumento, 6 veces (18).",
        ),
        (
            "In round 2 double every stitch (12), in the third every second (18).",
            "Rnd 2: double every stitch (12). Rnd 3: every second (18).",
        ),
    ],
)
def test_rounds_behind_the_first_get_their_labels(told: str, written: str) -> None:
    assert unfolded(told) == written


@pytest.mark.parametrize(
    "told",
    [
        "In the second round increase in every stitch (12). In the third round increase in every second (18).",
        "In round 5 make a bobble in the third stitch, in the fourth and in the ninth.",
        "In the third stitch of round 2, in the fourth and in the fifth: a bobble each.",
        "In the fourth and fifth rounds work plain (18).",
        "Sew the ears to the head, in the eighth round.",
    ],
)
def test_a_number_that_is_no_rounds_stays_as_it_is(told: str) -> None:
    assert unfolded(told) == told


def test_a_paragraph_that_leaves_the_words_out_is_read_round_by_round() -> None:
    found = check(
        "Kopf\nFadenring mit 6 fM. In der zweiten Runde jede M verdoppeln (12), in der dritten jede zweite (18), in der "
        "vierten jede dritte (24). Runde 5 bis 7 ohne Zunahmen (24). In Runde 8 jede 3. und 4. M zusammen abmaschen (18), "
        "in Runde 9 jede 2. und 3. (12).\n"
    )
    assert found.sound
    assert [part.counts for part in found.parts] == [(6, 12, 18, 24, 24, 24, 24, 18, 12)]


def test_a_count_that_no_place_explains_is_not_read() -> None:
    assert not check("Kopf\nR1: 6 fM in Fadenring (6)\nR2: jede M verdoppeln (12)\nR3: jede dritte (18)\n").sound


@pytest.mark.parametrize(
    ("word", "language", "sort", "value"),
    [
        ("aumentaremos", "es", Sort.STITCH, "inc"),
        ("disminuyendo", "es", Sort.STITCH, "dec"),
        ("augmenterez", "fr", Sort.STITCH, "inc"),
        ("verdoppelst", "de", Sort.DOUBLE, 0),
        ("abgenommene", "de", Sort.STITCH, "dec"),
        ("ripeterete", "it", Sort.REPEAT, 0),
        ("meerderden", "nl", Sort.STITCH, "inc"),
    ],
)
def test_any_form_of_a_verb_means_what_the_verb_means(word: str, language: str, sort: Sort, value: str | int) -> None:
    found = by_stem(word, language)
    assert found is not None
    assert (found.sort, found.value) == (sort, value)


def test_a_longer_word_is_no_form_of_a_verb() -> None:
    assert by_stem("verdoppelungsrunden", "de") is None
    assert by_stem("tejemosmuchascosas", "es") is None


@pytest.mark.parametrize(
    ("sentence", "between", "behind"),
    [
        ("Then two sc and a decrease, six times, eighteen left.", True, False),
        ("inc in each st around", True, True),
        ("Leaf: ch 4, sl st in 2nd ch from hook, sc, sc.", True, False),
        ("Sew the ears between R4 and R6, 3 sc apart.", False, False),
        ("You now have a cup.", False, False),
        ("The bobble counts as one stitch.", False, False),
        ("Stuff firmly and close.", False, False),
    ],
)
def test_sentences_that_tell_work_are_known(sentence: str, between: bool, behind: bool) -> None:
    assert tells_work(sentence, "en", Terms.US, between=True) is between
    assert tells_work(sentence, "en", Terms.US, between=False) is behind


def test_a_round_told_in_a_sentence_that_is_not_read_is_never_dropped_in_silence() -> None:
    found = check(
        "Owl\n\nMagic ring with six. Twelve next round, just increases. Then sc inc all round for eighteen. Two rounds plain. "
        "Then sc dec around, twelve.\n"
    )
    assert not found.sound
    assert [p.code for p in found.problems if p.code == "passed-over"]


def test_stitches_around_posts_keep_their_side() -> None:
    said = tokens("fpdc around each st", Vocabulary("en"))
    assert [t.sort for t in said] == [Sort.STITCH, Sort.IN, Sort.EACH, Sort.PLACE]
    assert name_of(said[0].value) == "FPdc"
    assert [name_of(t.value) for t in tokens("bptr", Vocabulary("en", Terms.UK))] == ["BPdc"]


def test_a_stitch_that_no_table_has_is_never_read_as_a_plain_one() -> None:
    found = check("Hat\nR1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: crsc in each (12)\n")
    assert not found.sound


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("Cap\nR1 - 6sc (mr)\nR2 - 6inc (12)\nR3/R4/R5 - 12sc (12)\n", (6, 12, 12, 12, 12)),
        ("Fin\nr1: 4 sc in mc\nr2: 2 sc in each (8)\nr3+r4: 1 sc in each (8)\n", (4, 8, 8, 8)),
        ("Claw\n1. Round 1\n6 sc into magic ring\ntotal: 6\n2. Rounds 2-3\nsc around\ntotal: 6\n", (6, 6, 6)),
        ("Bee\nY = yellow, B = black\nY 1: 6 sc mr\nY 2: inc (12)\nB 3-4: sc (12)\nY 5: [sc, inc] (18)\n", (6, 12, 12, 12, 18)),
        ("Round;Instruction;Repeat;Total\n1;6 sc in MR;1;6\n2;inc;6;12\n3;sc, inc;6;18\n", (6, 12, 18)),
        ("Cap\nR1: 6 sc in ring\nR2: two into each, 12 altogether\nR3: one, then two into the next: 18 altogether\n", (6, 12, 18)),
        ("Base\nR1: 6 sc in ring\nR2: 2 in each (12)\nR3: BLO around (12)\nR4: fpdc, bpdc alternating (12)\n", (6, 12, 12, 12)),
    ],
)  # fmt: skip
def test_labels_and_columns_as_people_set_them(text: str, counts: tuple[int, ...]) -> None:
    found = check(text)
    assert found.sound, [p.message for p in found.problems]
    assert [part.counts for part in found.parts if part.rounds] == [counts]


def test_a_chain_behind_its_tools_and_both_sides_of_another() -> None:
    bib = check(
        "Bib\nUsing blue and 3mm hook, make 11ch.\n1st row: 1dc in 2nd ch from hook, 1dc in each ch to end, turn. 10dc.\n"
    )
    assert [part.counts for part in bib.parts if part.rounds] == [(10,)]
    shoe = check(
        "Shoe\nChain 5.\nRnd 1: Starting in 2nd ch: 3 sc, 4 sc in the last chain. Turn the work and continue along the other "
        "side: 2 sc, 3 sc in last (12)\n"
    )
    assert shoe.sound
    assert [part.counts for part in shoe.parts if part.rounds] == [(12,)]


@pytest.mark.parametrize(
    ("text", "language", "said"),
    [
        ("*2 sc, inc* repeat 6 times", "en", 6),
        ("1 pb y 1 aum, repetimos 5 veces", "es", 5),
        ("*1 fM, 1 Zun* wiederholen 4 mal", "de", 4),
        ("*2 sc, inc* repeat 5 more times", "en", None),
        ("*2 sc, inc* repeat 5 times more", "en", None),
        ("(2 sc, inc) x 6", "en", None),
        ("repeat round 3", "en", None),
    ],
)
def test_how_often_is_said_to_repeat(text: str, language: str, said: int | None) -> None:
    assert times_said(text, language, Terms.US) == said


def _repeating(third: str, fourth: str, fifth: str) -> list[str]:
    text = (
        "Ball\nRnd 1: 6 sc in magic ring (6)\nRnd 2: inc in every st (12)\n"
        f"Rnd 3: *1 sc, inc* repeat {third} times (18)\nRnd 4: *2 sc, inc* repeat {fourth} times (24)\n"
        f"Rnd 5: *3 sc, inc* repeat {fifth} times (30)\n"
    )
    found = check(text)
    assert found.sound
    return [p.place.round or "" for p in found.problems if p.code == "repeats-otherwise"]


def test_a_text_counts_its_repeats_one_way() -> None:
    assert _repeating("6", "6", "6") == []
    assert _repeating("5", "5", "5") == []
    assert _repeating("6", "5", "6") == ["R4"]
    assert _repeating("5", "5", "6") == ["R5"]


def test_a_closing_told_behind_another_sentence_is_worked() -> None:
    found = check(
        "Arm\nRnd 1: 6sc in MR — 6\nRnd 2-4: 6sc — 6\nStuff the hand only. Press flat, 3sc through both sides.\n"
    )
    assert found.sound
    assert [t.live for part in found.parts for t in part.rounds] == [6, 6, 6, 6, 3]


def test_one_stitch_and_a_count_of_many_goes_all_around() -> None:
    found = check("Body\nr1: 6sc in mr\nr2: 6inc [12]\nr3-r4: sc [12]\n")
    assert found.sound
    assert "all around is unsaid" in " ".join(p.message for p in found.problems)
    assert not check("Body\nr1: 6sc in mr\nr2: 6inc [12]\nr3: 11 sc [12]\n").sound


def test_rows_of_a_table_with_empty_cells_are_not_lost() -> None:
    found = check("Ear\nRow | stitches | inc/dec\n1 | 5 sc into ring |\n2 | 10 | +5\n3 | 12 | +2\n")
    assert found.sound
    assert [part.counts for part in found.parts if part.rounds] == [(5, 10, 12)]


def test_a_whole_part_in_one_breath_is_taken_apart() -> None:
    found = check(
        "potato\nmr 6, inc around 12, sc inc around 18, then sc around for 3 rounds, sc dec around 12, stuff it, dec around 6, "
        "close\n"
    )
    assert found.sound
    assert [part.counts for part in found.parts if part.rounds] == [(6, 12, 18, 18, 18, 18, 12, 6)]
    assert not check("potato\nmr 6, inc around 12, sc inc around 17, sc around 17, dec around 9, close\n").sound


def test_a_stitch_in_the_other_terms_behind_it_is_no_second_one() -> None:
    found = check("Pot (US terms, UK in brackets)\nRnd 1: 6 sc (dc) in magic ring\nRnd 2: 2 sc (dc) in each st [12]\n")
    assert found.sound
    assert [part.counts for part in found.parts if part.rounds] == [(6, 12)]
