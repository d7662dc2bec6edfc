"""Whole freehand texts: parts, headings, references, pieces taken in, and where everything stands."""

from __future__ import annotations

import pytest

from craft.problems import Severity
from craft.rounds.pattern import Way
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.freehand import translated
from craft.text.numbers_made import made_too_few

LEG = "{} leg\n[1] 6 sc in ring → 6\n[2] inc in each → 12\n[3–4] sc in each, 2 rounds → 12\n{}\n\n"
LEGS = LEG.format("First", "Cut the yarn.") + LEG.format("Second", "Do not cut.")


def notation(text: str) -> list[str]:
    found = translated(text)
    assert found is not None
    return [line.text for line in found.lines]


def counts(found: Checked) -> list[tuple[str | None, tuple[int, ...]]]:
    return [(p.name, tuple(t.live for t in p.rounds if t.way is not Way.LINE)) for p in found.parts if p.rounds]


def faults(found: Checked) -> list[tuple[int, str]]:
    return [(p.place.line, p.code) for p in found.problems if p.severity is Severity.FAULT]


# --- parts --------------------------------------------------------------------------------


def test_a_heading_is_the_nearest_line_above_that_looks_like_one() -> None:
    title = "A NIGHT IN THE GARDEN\nUS terms, 3 mm hook.\n\n"
    text = f"{title}MOTH BODY, grey\nStart at the head.\nr1 → 6 sc in mr → 6\nr2 → plain → 6\n"
    assert counts(check(text)) == [("MOTH BODY", (6, 6))]
    assert "Start at the head." in notation(text)


def test_a_second_first_round_begins_another_part() -> None:
    text = "Top, pink\n1) 6 sc in ring ~ 6\n2) inc ~ 12\nCut.\n\nBottom, brown\n1) 6 sc in ring ~ 6\n2) inc ~ 12\n3) sc ~ 12\n"
    assert counts(check(text)) == [("Top", (6, 12)), ("Bottom", (6, 12, 12))]


def test_numbers_to_make_stand_anywhere_in_a_heading() -> None:
    for line in ("EARS (make 2, cream)", "EARS x2", "EARS, two.", "EARS (2 pieces)"):
        made = check(f"{line}\nr1 → 6 sc in mr → 6\nr2 → plain → 6\n").parts[-1]
        assert (made.name, made.make) == ("EARS", 2), line
    strict = check("EARS (make 2, cream)\nR1: 6 sc in ring [6]\n").parts[-1]
    assert (strict.name, strict.make) == ("EARS", 2)


def test_rounds_without_a_number_go_on_where_the_last_one_ended() -> None:
    text = (
        "Shell\nUS\nRound 1: 6 sc in MR (6)\nNext round: inc x 6 (12)\nNext 3 rounds: sc in each st (12)\n"
        "Work even for 2 rounds.\nNext round: (sc, dec) x 4 (8)\n"
    )
    assert counts(check(text)) == [("Shell", (6, 12, 12, 12, 12, 12, 12, 8))]


def test_a_line_with_stitches_and_a_count_is_a_round_without_a_label() -> None:
    text = "Puff, us terms\nr1 - 6 sc in mr (6)\ninc x 6 (12)\nsc all around (12)\n"
    assert [c for _, c in counts(check(text))] == [(6, 12, 12)]


def test_a_list_of_counts_is_a_part() -> None:
    text = "frog (us, spiral)\n\nbody: 6 / 12 / 18 / 18 x2 / beans in / 12 / 6 / close\nlegs (4): 6 / 6 x3 / off\n"
    assert counts(check(text)) == [("body", (6, 12, 18, 18, 18, 12, 6)), ("legs", (6, 6, 6, 6))]
    assert "> beans in" in notation(text)


# --- references ----------------------------------------------------------------------------


def test_a_part_is_worked_as_another() -> None:
    text = LEG.format("Left", "Cut.") + "Right leg\nWork as left leg to the end of Rnd 3, but do not fasten off.\n"
    assert counts(check(text))[1] == ("Right leg", (6, 12, 12))


def test_rounds_of_another_part_with_one_of_its_own_behind_them() -> None:
    text = (
        "Nut\nR1: 6 sc in ring → 6\nR2: 6 inc → 12\nR3: same as before, sc in each → 12\n\n"
        "Cup\nR1–R3: as R1–R2 of the nut, then 6 × (sc, inc) → 18\n"
    )
    assert counts(check(text))[1] == ("Cup", (6, 12, 18))


def test_the_last_rounds_again() -> None:
    text = (
        "Tentacle, US terms\nRnd 1: 6 sc in ring. (6)\nRnd 2: Inc in first st, sc to end of round. (7)\nRnd 3: Sc around. (7)\n"
        "Rnds 4-7: Repeat the last 2 rounds two more times; each time the inc adds a stitch. (9)\n"
    )
    assert counts(check(text)) == [("Tentacle", (6, 7, 7, 8, 8, 9, 9))]


def test_a_reference_to_a_round_that_is_not_there_is_a_fault() -> None:
    text = LEG.format("Front", "Cut.") + "Back leg\nWork as Front leg to Rnd 14.\n"
    found = check(text)
    assert not found.sound
    assert ("no-such-round") in [code for _, code in faults(found)]


# --- pieces -------------------------------------------------------------------------------


def test_legs_are_joined_by_a_chain_worked_on_both_sides() -> None:
    body = (
        "Body\n[1] ch 3, sc into the 12 stitches of the first leg, sc into the 3 ch, sc into the 12 stitches of the second "
        "leg, sc into the other side of the 3 ch → 30\n[2] sc in each → 30\n"
    )
    found = check(LEGS + body)
    assert found.sound
    assert counts(found)[2] == ("Body", (30, 30))


def test_limbs_are_taken_in_by_name_and_the_next_one_is_the_next() -> None:
    wing = "Wing (2)\nR1: 6 sc in MR (6)\nR2: sc around (6)\nR3: flat, 3 sc through both sides (3)\n\n"
    robin = (
        "Robin\nR1: 6 sc in MR (6)\nR2: inc 6 (12)\n"
        "R3: sc 2, 3 sc through wing and body, sc 2, 3 sc through second wing and body, sc 2 (12)\n"
    )
    found = check(wing + robin)
    assert found.sound
    assert counts(found)[1] == ("Robin", (6, 12, 12))


def test_a_skirt_in_loops_that_a_round_left() -> None:
    text = (
        'Lady. US terms. "b" = back loops only. What stands in a round is repeated to its end.\n\n~ Figure ~\n'
        "1) 6 sc in magic circle ~ 6\n2) inc ~ 12\n3b) sc ~ 12\n4) sc ~ 12\nCut.\n\n~ Skirt ~ in the free loops of 3b\n"
        "1) sc ~ 12\n2) sc, inc ~ 18\n"
    )
    found = check(text)
    assert found.sound
    assert [t.live for t in found.parts[-1].rounds][-2:] == [12, 18]


# --- places and hints ------------------------------------------------------------------------


def test_problems_stand_at_their_line_of_the_raw_text() -> None:
    text = "Puffball (us)\n\nr1 - sc 6 in mr (6)\n\nr2 - inc x6 (13)\nr3 - sc all around (13)\n"
    assert faults(check(text))[0][0] == 5


def test_a_hint_stands_at_the_round_that_needed_judgement() -> None:
    text = "Puffball (us)\nr1 - sc 6 in mr (6)\nr2 - inc 6 times evenly (12)\nr3 - sc, inc (18)\n"
    hints = [(p.place.line, p.place.round) for p in check(text).problems if p.code == "freehand"]
    assert hints == [(3, "R2"), (4, "R3")]


def test_wrapped_lines_point_at_where_they_began() -> None:
    text = (
        "Ear, US terms\nRound 1: 6 sc in magic\nring [6]\nRound 2: (1 sc,\ninc) x 3 [9]\nRound 3: sc all round [10]\n"
    )
    found = check(text)
    assert [t.live for t in found.parts[-1].rounds][:2] == [6, 9]
    assert faults(found)[0][0] == 6


def test_terms_are_told_with_what_tells_them() -> None:
    german = check("Ohr\n1. Rd: 6 fM in einen Fadenring (6)\n2. Rd: jede M verdoppeln (12)\n").reading.found
    assert german.evidence == "the words are German"
    british = check("PAW, UK terminology\nRound 1: 6 dc in adjustable ring. 6 sts\nRound 2: 2 dc in each st. 12 sts\n")
    assert british.reading.pattern.terms is Terms.UK


def test_the_strict_notation_is_never_read_twice() -> None:
    """What the notation understands is its own: a sum that is wrong there is wrong."""
    for text in ("R1: 6 sc in ring [6]\nR2: sc\n", "R1: 6 sc in ring [6]\nR2: inc x 5 [12]\n"):
        found = check(text)
        assert found.translation is None
        assert not found.sound


@pytest.mark.parametrize(
    "text",
    [
        "Ball, US\nr1 - 6 sc in mr (6)\nr2 - inc x6 so 12, but only 3 of them (12)\nr3 - frob x6 (12)\n",
        "Ball, US\nr1 - 6 sc in mr (6)\nr2 - blorp in each st (12)\n",
        "Ball, US\nI. 6 sc in a ring, 6.\nII. sc 2, zonk 2, sc 2, 6.\n",
    ],
)
def test_work_that_is_not_understood_is_a_fault_and_not_a_note(text: str) -> None:
    assert not check(text).sound


# --- made too few ----------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("heading", "direction", "told"),
    [
        ("## Ear", "Sew both ears on.", True),
        ("## Ear (make 2)", "Sew both ears on.", False),
        ("## Foot", "Sew the feet on, two feet in front.", True),
        ("## Ear", "Coudre une oreille de chaque côté.", False),
        ("## Oreille", "Coudre une oreille de chaque côté de la tête.", True),
        ("## Wing (make 2)", "The four wings are sewn in pairs.", True),
        ("## Wing (make 2)", "Sew one wing to each side.", False),
        ("## Leg", "Stuff the leg firmly.", False),
    ],
)
def test_how_often_a_part_is_used(heading: str, direction: str, told: bool) -> None:
    found = check(f"{heading}\nR1: 6 sc in ring [6]\nR2: sc around [6]\n{direction}\n")
    assert bool(list(made_too_few(found.reading.pattern))) is told
