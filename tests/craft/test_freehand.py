"""Freehand patterns, piece by piece: words, labels, counts, references, legends, tables."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.problems import Severity
from craft.rounds.stitches import STITCHES, Terms
from craft.text.check import check
from craft.text.freehand import sizes_in, translated
from craft.text.freehand.counts import number_of, tails
from craft.text.freehand.headings import heading_of
from craft.text.freehand.labels import label_at, labels_in
from craft.text.freehand.legend import legend, terms_of
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.lexicon import LANGUAGES, Sort, language_of, words_of
from craft.text.freehand.phrases import said
from craft.text.freehand.references import part_called, reference_in
from craft.text.freehand.source import rows


def first(text: str, language: str = "en", terms: Terms = Terms.US) -> str:
    """The likeliest work that words say."""
    ways = said(tokens(text, Vocabulary(language, terms)), text)
    return ways[0].work if ways else ""


# --- words --------------------------------------------------------------------------------


@pytest.mark.parametrize("language", LANGUAGES)
def test_every_table_of_words_names_stitches_that_there_are(language: str) -> None:
    table = words_of(language)
    assert {str(m.value) for m in table.values() if m.sort is Sort.STITCH} <= set(STITCHES)
    assert all(phrase == phrase.lower().strip() for phrase in table)
    assert len(table) > 100


@pytest.mark.parametrize(
    ("text", "language"),
    [
        ("round 1 six sc in a ring", "en"),
        ("1. runde 6 feste maschen in den fadenring", "de"),
        ("tour 1 6 mailles serrées dans un cercle magique", "fr"),
        ("vuelta 1 6 puntos bajos en el anillo mágico", "es"),
        ("giro 1 6 maglie basse nell anello", "it"),
        ("toer 1 6 vasten in een magische ring", "nl"),
    ],
)
def test_a_text_tells_its_language(text: str, language: str) -> None:
    assert language_of(text.split()) == language


@pytest.mark.parametrize(
    ("text", "work"),
    [
        ("6 sc in magic ring", "6 sc in ring"),
        ("MR with 8 sc", "8 sc in ring"),
        ("six sc in a ring", "6 sc in ring"),
        ("6 in mr", "6 sc in ring"),
        ("1 sc in each st", "sc around"),
        ("2 in each", "2 sc in each st around"),
        ("2 in every second", "(1 sc, inc) around"),
        ("inc in every 3rd st", "(2 sc, inc) around"),
        ("crochet every fifth and sixth together", "(4 sc, dec) around"),
        ("always two together", "dec around"),
        ("sc 3, dec 6, sc 3", "3 sc, 6 dec, 3 sc"),
        ("SC 1 INC 1, SIX TIMES", "(1 sc, 1 inc) x 6"),
        ("8x (1 sc, inc)", "(1 sc, inc) x 8"),
        ("*3 sc, inc* 6x", "(3 sc, inc) x 6"),
        ("*sc in next 2 sts, sc2tog; rep from * around", "(2 sc, dec) around"),
        ("1 sc and an increase, six times", "(1 sc, inc) x 6"),
        ("dec twice, sc 10, dec twice", "(dec) x 2, 10 sc, (dec) x 2"),
        ("from the 2nd ch: 6 sc, 3 sc in the last ch", "in 2nd ch from hook 6 sc, 3 sc in last st"),
        ("sc in 2nd ch from hook and each ch after it", "1 sc in 2nd ch from hook, and in each ch"),
        ("working in back loops only, sc in each st around", "BLO: sc around"),
        ("ch 1 and skip 1, then 4 sc", "ch 1, skip 1, 4 sc"),
        ("3 stitches together", "dec3"),
    ],
)
def test_english_is_read_in_any_order(text: str, work: str) -> None:
    assert first(text) == work


@pytest.mark.parametrize(
    ("language", "text", "work"),
    [
        ("de", "in jede M 1 fM", "sc around"),
        ("de", "jede 2. M verdoppeln", "(1 sc, inc) around"),
        ("de", "jede 3. und 4. M zusammen abmaschen", "(2 sc, dec) around"),
        ("de", "Fadenring mit 6 festen M", "6 sc in ring"),
        ("de", "ohne Zunahmen", "sc around"),
        ("fr", "6 ms dans un cercle magique", "6 sc in ring"),
        ("fr", "1 ms dans chaque maille", "sc around"),
        ("es", "un punto bajo y en el siguiente dos, y así seis veces", "(1 sc, 2 sc in next st) x 6"),
        ("es", "cerramos los puntos de dos en dos", "dec around"),
        ("it", "5 mb nell'anello magico", "5 sc in ring"),
        ("nl", "(1 v, meerd) x 5", "(1 sc, inc) x 5"),
    ],
)
def test_five_other_languages_say_the_same(language: str, text: str, work: str) -> None:
    assert first(text, language) == work


def test_what_nothing_explains_is_never_passed_over() -> None:
    assert first("6 sc, frobnicate 3") == ""
    assert first("W, sc around") == "", "a letter of this text's own"
    assert first("6 sc except the last") == ""


# --- labels -------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "numbers"),
    [
        ("Rnd 3: sc", (3, 3)),
        ("R6-R7 sc around", (6, 7)),
        ("Rounds 9 – 13:  sc".replace("–", "-"), (9, 13)),
        ("RND 4 TO 11 SC.", (4, 11)),
        ("Rnd 1 - 6 sc in ring", (1, 1)),
        ("3.-7. Rd: fM", (3, 7)),
        ("8. bis 12. Runde: fM", (8, 12)),
        ("Tours 5-9 :  ms", (5, 9)),
        ("Toer 6 t/m 9: 25 v", (6, 9)),
        ("6th to 9th rnds: sc", (6, 9)),
        ("Rnds 12, 13, 14: sc", (12, 14)),
        ("Round one: sc", (1, 1)),
        ("#4-#7 SC*18", (4, 7)),
        ("[3-10] sc", (3, 10)),
        ("7) - 9) plain", (7, 9)),
        ("XIII and XIV. sc", (13, 14)),
        ("42 = 5th to 7th rnd: sc", (5, 7)),
        ("(12) Rnd 2: inc", (2, 2)),
        ("En la vuelta 2 tejemos", (2, 2)),
    ],
)
def test_labels_come_in_many_forms(line: str, numbers: tuple[int, int]) -> None:
    label = label_at(line)
    assert label is not None
    assert (label.first, label.last) == numbers


def test_a_paragraph_holds_several_rounds_and_no_reference_is_one() -> None:
    line = "R1: 6 sc in ring [6]. R2: inc x6 [12]. Eyes between rounds 1 and 2. R3: sc [12]."
    assert [label.first for label in labels_in(line, 1)] == [1, 2, 3]
    assert label_at("Eyes between rounds 6 and 7") is None
    assert label_at("3 mm hook") is None


# --- counts -------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "text",
    [
        "sc [12]", "sc (12)", "sc {12}", "sc = 12", "sc = 12 M", "sc. 12 sts", "sc - 12 sts", "sc, 12 stitches total",
        "sc so 12", "sc, that makes 12", "sc (12 sts each round)", "sc [12 st]", "sc - 12",
    ],
)  # fmt: skip
def test_counts_come_in_many_forms(text: str) -> None:
    tail = tails(text)[0]
    assert (tail.work, tail.count) == ("sc", 12)
    assert tail.sure


def test_a_fold_is_a_number_of_rounds_and_no_count() -> None:
    tail = tails("sc around, eight rounds (34 sc)")[0]
    assert (tail.work, tail.count, tail.fold) == ("sc around", 34, 8)
    assert tails("tejemos: quedan veinticuatro", "es")[0].count == 24
    assert number_of("zwölf", "de") == 12
    assert number_of("nothing", "de") == 0


# --- headings, references, legends ---------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "name", "make"),
    [
        ("EAR (make 2, cream)", "EAR", 2),
        ("** Wing ** (2)", "Wing", 2),
        ("FLIPPER 2 pieces", "FLIPPER", 2),
        ("LEG. ONE.", "LEG", 1),
        ("Foot (2 details). Orange.", "Foot", 2),
        ("STELLA (2 uguali)", "STELLA", 2),
        ("## Head", "Head", 1),
        ("Top, pink", "Top", 1),
    ],
)
def test_headings_say_a_name_and_a_number(line: str, name: str, make: int) -> None:
    heading = heading_of(line)
    assert heading is not None
    assert (heading.name, heading.make) == (name, make)


def test_what_is_no_heading() -> None:
    assert heading_of("Materials: wool") is None
    assert heading_of("R1: 6 sc") is None
    assert heading_of("Fasten off.") is None


def test_rounds_are_told_by_naming_others() -> None:
    body = [(1, "a", 6), (2, "b", 12), (3, "c", 18)]
    last = reference_in("Repeat the last 2 rounds four more times", "en")
    assert last is not None
    assert (last.picked(body), last.times) == (body[1:], 4)
    whole = reference_in("Work as LEFT LEG to the end of Rnd 2, but do not fasten off.", "en")
    assert whole is not None
    assert (whole.part, whole.picked(body)) == ("LEFT LEG", body[:2])
    behind = reference_in("as R1-R2 of the nut, then 6 x (3 sc, inc)", "en")
    assert behind is not None
    assert (behind.part, behind.picked(body), behind.behind) == ("nut", body[:2], "6 x (3 sc, inc)")
    missing = reference_in("as FRONT LEG to Rnd 14", "en")
    assert missing is not None
    assert missing.picked(body) is None
    assert part_called("das erste Bein", ["Erstes Bein", "Kopf"]) == "Erstes Bein"
    assert part_called("wing", ["Head"]) is None


def test_a_text_explains_its_own_words() -> None:
    own = legend(rows("X: sc (us) - V: inc - A: dec\nB = blue, Y = yellow"), "en", Terms.US)
    assert {k: str(m.value) for k, m in own.items()} == {"x": "sc", "v": "inc", "a": "dec", "b": "Blue", "y": "Yellow"}
    three = legend(rows("W = 3 sc in one stitch"), "en", Terms.US)
    assert three["w"].value == "inc3"
    assert terms_of("8 ply, UK terminology", None) is Terms.UK
    assert terms_of("American words. 6 dc", None) is Terms.US
    assert terms_of("6 d.c. into loop", None) is Terms.UK


# --- lines and tables ----------------------------------------------------------------------


def test_lines_are_made_whole() -> None:
    page = "Bramble – page 2\nRound 1: 6 sc in magic\nring [6]\nBegin with sand-col-\noured yarn.\nBramble – page 3\n"
    assert [r.text for r in rows(page)] == ["Round 1: 6 sc in magic ring [6]", "Begin with sand-coloured yarn."]


def test_tables_are_rounds_and_columns_side_by_side_are_parts() -> None:
    table = "| Rnd | Arm | Leg |\n|---|---|---|\n| 1 | 6 sc in ring [6] | 5 sc in ring [5] |\n| 2 | sc [6] | sc [5] |\n"
    found = check(table)
    assert found.sound
    assert [(p.name, p.counts) for p in found.parts] == [("Arm", (6, 6)), ("Leg", (5, 5))]


def test_several_sizes_are_read_one_by_one() -> None:
    text = (
        "Ball in two sizes, small (large). US terms\nR1: 6 (8) sc in ring [6 (8)]\n"
        "R2: inc around - 12 (16)\nR3: sc around - 12 (16)\n"
    )
    assert sizes_in(text) == 2
    assert check(text).parts[0].counts == (6, 12, 12)
    wrong = check(text.replace("R3: sc around - 12 (16)", "R3: sc around - 12 (17)"))
    assert [p.message[:10] for p in wrong.problems if p.severity is Severity.FAULT] == ["In size 2:"]


# --- what is told --------------------------------------------------------------------------


def test_every_judgement_is_a_hint_with_its_evidence() -> None:
    found = check("Puffball, us\nr1 - 6 sc in mr (6)\nr2 - inc 6 times evenly (12)\nr3 - sc, inc (18)\n")
    assert found.sound
    hints = [p.message for p in found.problems if p.code == "freehand"]
    assert any("spread evenly" in h for h in hints)
    assert any("repeated to the end" in h for h in hints)


def test_a_uk_text_keeps_its_meaning() -> None:
    found = check(
        "8 ply, UK terminology.\nPAW\nRound 1: 6 dc in adjustable ring. 6 sts\nRound 2: 2 dc in each st. 12 sts\n"
    )
    assert found.sound
    assert found.reading.pattern.terms is Terms.UK
    assert found.parts[-1].counts == (6, 12)


def test_parts_that_are_used_more_often_than_they_are_made() -> None:
    ear = "R1: 6 sc in ring [6]\nR2: sc around [6]\n"
    once = check(f"## Ear\n{ear}Sew one ear to each side of the head.\n")
    assert [p.code for p in once.problems] == ["made-too-few"]
    assert not check(f"## Ear (make 2)\n{ear}Sew one ear to each side of the head.\n").problems
    assert "made-too-few" in [
        p.code for p in check(f"## Leg (make 2)\n{ear}Sew the four legs under the top.\n").problems
    ]


LINES = [
    "R1: 6 sc in ring [6]",
    "2. Rd: jede M verdoppeln (12)",
    "Rnd 3 - sc, inc - 18",
    "Stuff.",
    "## Ear (make 2)",
    "| 1 | sc | 6 |",
    "Ch 7.",
    "Repeat the last 2 rounds 3 more times",
    "as R1-R2 of the ear",
    "III. sc, inc, twice, 6.",
    "body: 6 / 12 / 18 x3 / close",
    "X = sc",
    "24 = 1st rnd: sc",
    "“é” ×6 → 12",
    "(",
    "*",
    "In round two, work an increase in each.",
]


@settings(max_examples=60, deadline=None)
@given(st.lists(st.sampled_from(LINES) | st.text(max_size=30), max_size=14))
def test_any_text_at_all_is_answered_and_no_line_is_lost(lines: list[str]) -> None:
    text = "\n".join(lines)
    check(text)
    found = translated(text)
    if found is None:
        return
    covered = [line.span for line in found.lines]
    for row in rows(text):
        assert any(span.start <= row.span.start < max(span.end, span.start + 1) for span in covered), row


def test_rounds_in_a_list_on_one_line_are_each_a_round() -> None:
    """The words behind such a round were read as that round once more, and so on for ever."""
    found = check("Arms x2: R1 6 sc in mr (6), R2-3 sc (6).\n")
    assert found.sound
    assert [p.counts for p in found.parts if p.counts] == [(6, 6, 6)]
    assert check("Arms: R1 6 sc in mr (6), sc flump (6), sc flump (6).\n")


@pytest.mark.parametrize(
    ("work", "sound"),
    [
        ("sc in 2nd ch from hook and down the chain [16]", True),
        ("skip 1 ch, sc in next 16 ch [16]", True),
        ("sc in 2nd ch from hook and down the chain [15]", False),
    ],
)
def test_along_a_chain_to_its_end(work: str, sound: bool) -> None:
    assert check(f"Tail\nCh 17\nRow 1: {work}\n").sound is sound


@pytest.mark.parametrize(
    ("work", "sound"), [("Increase 6 (18).", True), ("Increase 6 (17).", False), ("Decrease 3 (9).", True)]
)
def test_so_many_more_or_fewer_are_spread_where_the_count_says_so(work: str, sound: bool) -> None:
    assert check(f"1: 6 sc in ring (6)\n2: inc in each (12)\n3: {work}\n").sound is sound


def test_a_ring_of_one_stitch_is_no_round() -> None:
    found = check(
        "Cominciate con un anello magico.\n1° giro: lavorate 6 m.b. nell'anello (6 m)\n2° giro: 2 m.b. in ogni maglia (12 m)\n"
    )
    assert [p.counts for p in found.parts if p.counts] == [(6, 12)]


def test_a_ring_that_is_drawn_shut_closes_no_part() -> None:
    found = check("make a ring w/ 5 sc in it, pull closed\nsecond round: inc every stitch, so 10\nfourth: plain, 10\n")
    assert next(p.counts for p in found.parts if p.counts)[:2] == (5, 10)
