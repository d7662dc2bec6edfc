"""Forms of rounds that stand beside the usual: stripes, parts up to a round, signs for numbers, dashes that may be either."""

from __future__ import annotations

import pytest

from benchmarks.reading import counts_of
from craft.problems import Severity
from craft.text.check import Checked, check
from craft.text.freehand.lexer import Vocabulary
from craft.text.freehand.stripes import Stripes, stripes_in

CAP = """Hat
R1: 6 sc in MR (6)
R2: inc x6 (12)
R3: (sc, inc) x6 (18)
R4: (2 sc, inc) x6 (24)
R5: sc (24)

"""
BALL = "Ball\nRnd 1: 6 sc in MR (6)\nRnd 2: 6 inc (12)\n"


def faults(found: Checked) -> list[tuple[str, int]]:
    return [(p.code, p.place.line) for p in found.problems if p.severity is Severity.FAULT]


@pytest.mark.parametrize(
    ("text", "language", "told"),
    [
        ("2 rounds in A, 2 rounds in B.", "en", Stripes(((2, "A"), (2, "B")))),
        ("Work 1 rnd in white and 3 rnds in MC (24 sts)", "en", Stripes(((1, "white"), (3, "MC")), 24)),
        ("2 Runden in Weiß, 2 Runden in Rot", "de", Stripes(((2, "Weiß"), (2, "Rot")))),
        ("deux tours en blanc", "fr", Stripes(((2, "blanc"),))),
        ("2 rounds in double crochet", "en", None),
        ("2 rounds in A, then decrease", "en", None),
        ("", "en", None),
    ],
)
def test_stripes_are_told_by_their_colours_alone(text: str, language: str, told: Stripes | None) -> None:
    assert stripes_in(text, Vocabulary(language)) == told


def test_stripes_are_plain_rounds_of_their_colours() -> None:
    found = check(f"{BALL}Rnds 3 and 4: work 1 round in A, 1 round in B.\nRnd 5: 6 dec (6)\n")
    assert counts_of(found) == ((6, 12, 12, 12, 6),)
    assert [t.colours for t in found.parts[0].rounds][2:4] == [("A",), ("B",)]
    assert not faults(found)


def test_more_rounds_than_stripes_are_a_fault() -> None:
    found = check(f"{BALL}Rnds 3-5: 1 round in A, 1 round in B.\nRnd 6: 6 dec (6)\n")
    assert ("fold", 4) in faults(found)


@pytest.mark.parametrize(
    ("order", "counts"),
    [
        ("Brim\nWork as hat up to round 3.\nR4: sc (18)", (6, 12, 18, 18)),
        ("Base: in white, same as the hat through Rnd 4.\nR5: (2 sc, dec) x 6 (18)", (6, 12, 18, 24, 18)),
        ("Base\nRnds 1-4: Work as for the hat. (24 sts)\nFasten off.", (6, 12, 18, 24)),
        ("Base: the same as the hat.", (6, 12, 18, 24, 24)),
    ],
)
def test_a_part_is_worked_as_another_up_to_a_round(order: str, counts: tuple[int, ...]) -> None:
    found = check(f"{CAP}{order}\n")
    assert counts_of(found) == ((6, 12, 18, 24, 24), counts)
    assert not faults(found)


def test_a_part_worked_up_to_a_round_that_is_not_there_is_no_part() -> None:
    found = check(f"{CAP}Base\nRnds 1-9: Work as for the hat.\n")
    assert faults(found)


@pytest.mark.parametrize(
    ("before", "of_one"), [("① 6 sc in MR [6]\n② 6 inc [12]\n③–⑤ sc [12]", "⑥"), ("❶ 6 sc in MR\n❷ 6 inc\n❸–❺ sc", "❻")]
)
def test_numbers_in_one_sign_number_rounds(before: str, of_one: str) -> None:
    assert counts_of(check(f"Ball\n{before}\n{of_one} 6 dec [6]\n")) == ((6, 12, 12, 12, 12, 6),)


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("Rd. 1: 6 fM in MR\nRd. 2: 6 Zun (12)\nRd. 3 – 5 fM in jede M = 12\nRd. 6: 6 Abn (6)", (6, 12, 12, 12, 12, 6)),
        ("Rd. 1: 6 fM in MR\nRd. 2: 6 Zun (12)\nRd. 3 – 12 fM (12)\nRd. 4: 6 Abn (6)", (6, 12, 12, 6)),
        ("1 - 6 sc in MR\n2 - inc x 6\n3 - 12 sc", (6, 12, 12)),
        ("1 - 6 sc in MR\n2 - inc x 6\n3 - 5 sc in each st\n6 - dec x 6", (6, 12, 12, 12, 12, 6)),
    ],
)
def test_a_number_behind_a_dash_is_a_round_or_stitches_as_the_next_label_tells(
    text: str, counts: tuple[int, ...]
) -> None:
    assert counts_of(check(f"Ball\n{text}\n")) == (counts,)


@pytest.mark.parametrize(
    "work",
    [
        "*1 sc, inc*, 6x", "6 x *1 sc, inc*", "1 sc, inc, around", "(1 sc, inc), 6 x", "1 sc, 1 inc (repeat 6x)",
        "alternate 1 single crochet with 2 in the same stitch. You should have 18 stitches.", "*1 sc, inc* x6 *18*",
    ],
)  # fmt: skip
def test_what_is_repeated_is_told_in_these_ways_too(work: str) -> None:
    assert counts_of(check(f"{BALL}Rnd 3: {work}\n")) == ((6, 12, 18),)


def test_a_count_behind_a_place_is_of_that_place() -> None:
    legs = "Leg 1\nR1: 6 sc in MR (6)\nFO\n\nLeg 2\nR1: 6 sc in MR (6)\nDo not cut.\n\nBODY\n"
    found = check(f"{legs}R2: sc around the second leg (6), sc around the first leg (6) / 12\nR3: sc around (12)\n")
    assert counts_of(found) == ((6,), (6,), (12, 12))
    assert not faults(found)
    wrong = check(f"{legs}R2: sc around the second leg (6), sc around the first leg (5) / 12\nR3: sc around (12)\n")
    assert faults(wrong)


def test_stitches_that_only_show_the_place_are_not_worked() -> None:
    sole = "Foot\nCh 6.\nR1: 2 sc in 2nd ch from hook, sc in next 3 ch, 4 sc in last ch; on the other side sc in next 3 ch, "
    assert counts_of(check(f"{sole}2 sc in the same ch as the first 2 sc (14)\nR2: sc around (14)\n")) == ((14, 14),)


def test_a_ring_in_brackets_begins_a_part() -> None:
    found = check("## body\nR1: 6 sc in ring [6]\n\n## leaf\nR1: (7 sc in ring) x 1 [7]\nR2: inc x 7 [14]\n")
    assert counts_of(found) == ((6,), (7, 14))
    assert found.sound


@pytest.mark.parametrize(("heading", "name"), [("Make 2 ears", "ears"), ("Oreilles (à faire en double)", "Oreilles")])
def test_a_heading_says_in_these_ways_too_that_two_are_made(heading: str, name: str) -> None:
    rounds = "R1: 6 sc in MR" if name == "ears" else "Tour 1 : 6 ms dans un cercle magique"
    parts = check(f"{heading}\n{rounds} (6)\n").parts
    assert [(part.name, part.make) for part in parts] == [(name, 2)]


@pytest.mark.parametrize("work", ["Make 2 chains.", "Make 2 rounds of sc."])
def test_work_is_no_heading(work: str) -> None:
    assert "chains" not in {part.name for part in check(f"{work}\nR1: 6 sc in MR (6)\n").parts}
    assert "rounds" not in {part.name for part in check(f"{work}\nR1: 6 sc in MR (6)\n").parts}


def test_the_ring_that_is_said_again_with_its_number_is_one_round() -> None:
    found = check("Körper, grau: 6 fM in Fadenring.\n1. Rd: 6 fM.\n2. Rd: jede fM verdoppeln (12 fM).\n3. Rd: fM.\n")
    assert counts_of(found) == ((6, 12, 12),)
    assert not faults(found)


def test_a_list_that_goes_on_around_is_no_last_stitch_around() -> None:
    found = check(
        "Dumpling\nR1: 6 sc in mr (6)\nR2: inc around (12)\nR3: sc, inc around (18)\nR4: 2 sc, inc around (24)\n"
    )
    assert counts_of(found) == ((6, 12, 18, 24),)
    assert not faults(found)


def test_one_list_that_ends_around_stays_as_it_is_written() -> None:
    found = check("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 2 sc, inc around [22]\n")
    assert counts_of(found) == ((6, 12, 22),)


def test_a_count_and_how_often_tell_rounds_in_a_list() -> None:
    found = check("Owl tummy — 6mr (6) • inc×6 (12) • (1,inc)×6 (18) • 18×3 (18)\n")
    assert counts_of(found) == ((6, 12, 18, 18, 18, 18),)


@pytest.mark.parametrize(("left", "sound"), [(10, True), (9, False)])
def test_sentences_that_say_what_is_left_are_rounds_with_that_count(left: int, sound: bool) -> None:
    told = "Begin with six in the ring. Next time round put two in every stitch so you get 12. In the last round do 4 sc, dec, "
    found = check(f"Arm\n\n{told}4 sc, dec so that {left} remain.\n")
    assert found.sound is sound
    assert counts_of(found) == ((6, 12, 10),)


@pytest.mark.parametrize(("count", "sound"), [(2, True), (3, False)])
def test_a_chain_that_is_turned_begins_rows_of_which_nothing_is_guessed(count: int, sound: bool) -> None:
    rows = "Row 1 - starting in second ch, 4 sc, ch 1, turn (4)\nRow 2 - sc2tog twice"
    assert check(f"Wing (make 2, flat)\nChain 5, turn.\n{rows} ({count})\n").sound is sound
