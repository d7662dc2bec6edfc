"""What one place of a text says otherwise than another: terms, eyes, colours, counts; short rows of both schools."""

from __future__ import annotations

import pytest

from craft.problems import Severity
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check

BALL = "Ball\nR1: 6 {sc} in ring (6)\nR2: inc in each st (12)\nR3: {sc} around (12)\n"
HEEL = "Heel\nR1: 6 sc in ring (6)\nR2: inc x 6 (12)\nR3: (sc, inc) x 6 (18)\nR4: sc around (18)\n"


def told(found: Checked, *codes: str) -> list[tuple[int, str]]:
    return [(p.place.line, p.code) for p in found.problems if p.code in codes]


def counts(found: Checked) -> list[int]:
    return [t.live for p in found.parts for t in p.rounds]


# --- terms ------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "said", ["UK terms", "This pattern is in British terminology.", "Terms: UK", "U.K. crochet terms used"]
)
def test_terms_are_those_that_a_text_says(said: str) -> None:
    found = check(f"{said}\n{BALL.format(sc='dc')}")
    assert found.reading.pattern.terms is Terms.UK
    assert found.sound


def test_a_text_that_speaks_of_both_terms_is_told_by_its_words() -> None:
    found = check(f"UK terms; see the last page for US terms\n{BALL.format(sc='dc')}R4: 12 htr (12)\n")
    assert found.reading.pattern.terms is Terms.UK


def test_a_word_of_the_other_terms_is_named_at_its_round() -> None:
    uk = check(f"UK terms\n{BALL.format(sc='dc')}R4: sc around (12)\n")
    assert told(uk, "odd-term", "mixed-terms") == [(6, "odd-term")]
    us = check(f"US terms\n{BALL.format(sc='sc')}R4: 12 htr (12)\n")
    assert told(us, "odd-term", "mixed-terms") == [(6, "odd-term")]
    assert told(check(BALL.format(sc="sc")), "odd-term") == []


# --- eyes ----------------------------------------------------------------------------------------


def test_eyes_at_rounds_that_no_part_has_are_told() -> None:
    text = BALL.format(sc="sc")
    assert told(check(f"{text}Insert eyes between rounds 8 and 9.\n"), "eyes-beyond") == [(5, "eyes-beyond")]
    assert told(check(f"{text}Insert eyes between rounds 1 and 2.\n"), "eyes-beyond") == []
    head = "\n# Tail\nR1: 6 sc in ring [6]\n\nInsert eyes between R2 and R3 of the ball.\n"
    assert told(check(f"{text}{head}"), "eyes-beyond") == []


# --- colours ------------------------------------------------------------------------------------------


def test_a_colour_that_is_listed_and_never_used_is_told() -> None:
    text = "Colours: red, cream.\nBall\nR1: With red, 6 sc in ring (6)\nR2: inc in each st (12)\n"
    assert told(check(text), "unused-colour") == [(1, "unused-colour")]
    assert told(check(text.replace("R2: inc", "R2: with cream, inc")), "unused-colour") == []
    # One colour, never named in the rounds, is what the whole is worked in.
    assert told(check(f"Colours: red.\n{BALL.format(sc='sc')}"), "unused-colour") == []


# --- tables of counts -----------------------------------------------------------------------------------


def test_a_table_of_counts_is_held_against_its_rounds() -> None:
    text = f"{BALL.format(sc='sc')}\nR1  6  +6\nR2  12  +6\nR3  {{}}  =\n"
    agrees, differs = check(text.format(12)), check(text.format(14))
    assert counts(agrees) == counts(differs) == [6, 12, 12]
    assert told(agrees, "count-table") == []
    assert told(differs, "count-table") == [(8, "count-table")]


# --- loops ------------------------------------------------------------------------------------------------


def test_an_invisible_decrease_in_back_loops_is_a_warning_with_its_reason() -> None:
    found = check("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: BLO: inv dec x 6 [6]\n")
    assert found.sound
    (warned,) = [p for p in found.problems if p.severity is Severity.WARNING]
    assert "picks up the front loops" in warned.message


# --- short rows -------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "rows",
    [
        # the bracket counts what is live
        "R5: 8 sc, turn, leave the rest (18)\nR6: ch 1, 8 sc, turn (18)\nR7: ch 1, 8 sc, 10 sc (18)\n",
        # the bracket counts what was worked
        "Row 5: sc 8, turn (8)\nRow 6: ch 1, sc 8, turn (8)\nRow 7: ch 1, sc 8, sc in the last 10 (18)\n",
        "R5: sc 10, leave the 8 sts left unworked, turn (10)\nR6: ch 1, sc 10, turn (10)\n"
        "R7: ch 1, sc 10, sc in the 8 sts left unworked (18)\n",
        "R5: sc 12, leaving the remaining stitches unworked, turn (12)\nR6: ch 1, sc 12, turn (12)\nR7: ch 1, sc around (18)\n",
    ],
)
def test_both_schools_of_brackets_in_short_rows(rows: str) -> None:
    found = check(f"{HEEL}{rows}R8: sc around (18)\n")
    assert found.sound
    assert counts(found) == [6, 12, 18, 18, 18, 18, 18, 18]


@pytest.mark.parametrize(
    "turned", ["sc 10, turn; ch 1, sc 8, turn; ch 1, sc 8, sc in last 8", "10 sc, turn, 8 sc, turn, 8 sc, 8 sc"]
)
def test_short_rows_within_one_line(turned: str) -> None:
    found = check(f"{HEEL}R5: {turned} (18)\nR6: sc around (18)\n")
    assert found.sound
    assert counts(found) == [6, 12, 18, 18, 18, 18]


def test_rows_that_narrow_are_no_short_rows() -> None:
    text = f"{HEEL}R5: sc 8, turn (8)\nR6: ch 1, sc 8 (8)\n"
    assert not check(text).sound, "nothing says that the ten stitches stay live, or that they are left for good"


def test_a_slip_in_a_short_row_stays_a_fault() -> None:
    found = check(f"{HEEL}R5: sc 8, turn (8)\nR6: ch 1, sc 7, turn (8)\nR7: ch 1, sc around (18)\n")
    assert not found.sound


# --- rounds told by naming others ---------------------------------------------------------------------------


def test_a_part_that_is_told_by_naming_another_is_never_passed_over() -> None:
    text = "BASE\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: sc around [12]\n\nTOP\nAs base to R2. Fasten off.\n"
    found = check(text)
    assert found.sound
    assert [(p.name, [t.live for t in p.rounds]) for p in found.parts] == [("BASE", [6, 12, 12]), ("TOP", [6, 12])]


def test_a_direction_that_comes_again_is_no_head_of_a_page() -> None:
    part = "# {}\nR1: 6 sc in magic ring\nR2: double each\nFasten off and close the hole.\n\n"
    found = check(part.format("Ear") + part.format("Tail"))
    said = [getattr(item, "text", "") for p in found.reading.pattern.parts for item in p.items]
    assert sum("Fasten off and close the hole" in text for text in said) == 2
