"""Rounds that no grammar fits, inferred from their count, the round below and every number in them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.text.check import check
from craft.text.freehand.inferred import WHY, inferred
from craft.text.freehand.lexer import Vocabulary, tokens


def told(text: str, live: int, count: int, language: str = "en") -> str | None:
    found = inferred(tokens(text, Vocabulary(language)), live, count)
    return found.work if found is not None else None


@pytest.mark.parametrize(
    ("text", "language", "live", "count", "work"),
    [
        ("inc somewhere in every second stitch", "en", 12, 18, "(1 sc, inc) x 6"),
        ("dec over every 4th and 5th stitch", "en", 30, 24, "(3 sc, dec) x 6"),
        ("aumentar cada 3 puntos", "es", 18, 24, "(2 sc, inc) x 6"),
        ("disminuir cada 4 puntos", "es", 30, 24, "(3 sc, dec) x 6"),
        ("1 ms dans les 2 premières, 2 ms dans la 3e, et ainsi de suite", "fr", 18, 24, "(2 sc, inc) x 6"),
        ("two in every, gladly", "en", 6, 12, "6 inc"),
        ("round and round we go, one in each", "en", 20, 20, "sc around"),
    ],
)
def test_a_round_is_what_everything_said_agrees_with(
    text: str, language: str, live: int, count: int, work: str
) -> None:
    assert told(text, live, count, language) == work


@pytest.mark.parametrize(
    ("text", "live", "count"),
    [
        ("inc in every fifth stitch", 18, 24),  # the count says every third
        ("(3 sc, inc) gladly x 6", 18, 24),
        ("2 sc then a dec, gladly", 18, 24),  # it grows
        ("2 sc then an inc, gladly", 24, 18),
        ("2 hdc then an inc, gladly", 18, 24),  # other stitches
        ("2 sc then an inc in back loops", 18, 24),
        ("2 sc, inc, ch 1, gladly", 18, 24),
        ("2 sc, inc, but not in the last", 18, 24),
        ("2 sc then an inc, gladly", 18, 23),  # no even round makes it
        ("inc here and there", 24, 30),  # nothing says how far apart
        ("2 sc and Q, inc", 18, 24),  # a letter that nothing explains
        ("19 in each", 20, 20),
        ("gladly", 20, 20),
    ],
)
def test_what_disagrees_or_tells_more_is_not_inferred(text: str, live: int, count: int) -> None:
    assert told(text, live, count) is None


@given(st.integers(1, 8), st.integers(2, 9), st.integers(0, 12), st.booleans())
def test_another_number_is_never_passed_over(between: int, many: int, other: int, grows: bool) -> None:
    """Law: with a number that is none of the round's own, nothing is inferred."""
    live = (between + (1 if grows else 2)) * many
    count = live + many if grows else live - many
    text = f"gladly {between} sc and then {'inc' if grows else 'dec'}, {other} of them"
    found = told(text, live, count)
    own = {between, 1, 2, many, live, count}
    assert (found is not None) is (other in own)
    if found is not None:
        assert check(f"Ball\nR1: {live} sc in ring [{live}]\nR2: {found} [{count}]").sound


def test_what_is_inferred_is_said_with_its_reason() -> None:
    text = "Ball, US terms\nR1: 6 sc in ring (6)\nR2: 6 inc (12)\nR3: over every 2nd stitch an inc, each a joy (18)\n"
    found = check(text)
    assert found.sound
    assert any(WHY in p.message for p in found.problems)


def test_a_slip_in_words_that_are_not_understood_stays_a_fault() -> None:
    text = "Ball, US terms\nR1: 6 sc in ring (6)\nR2: 6 inc (12)\nR3: pop an inc in every fifth stitch, dear (18)\n"
    assert not check(text).sound
