"""How often a round's words have something repeated, where that may count the first time or not: 'repeat 5 times'."""

from __future__ import annotations

from collections.abc import Sequence

from craft.rounds.stitches import Terms
from craft.text.freehand.lexer import Token, Vocabulary, tokens
from craft.text.freehand.lexicon import Sort

_REPEATS = (Sort.REPEAT, Sort.AGAIN)

MOST_BETWEEN = 5
"""Tokens between 'repeat' and how often: 'repeat from * to * around 5 times'."""

_PASSED = frozenset((Sort.FROM, Sort.STAR, Sort.TO, Sort.AND, Sort.QUIET, Sort.AROUND, Sort.COMMA, Sort.NOISE))


def times_said(text: str, language: str, terms: Terms) -> int | None:
    """The number behind 'repeat' and before 'times' in a round's words; None where none is said, or where the words tell
    that it counts those behind the first, 'repeat 5 more times'."""
    said = tokens(text, Vocabulary(language, terms))
    found = (_behind(said[at + 1 :]) for at, token in enumerate(said) if token.sort in _REPEATS)
    return next((n for n in found if n is not None), None)


def _behind(said: Sequence[Token]) -> int | None:
    for at, token in enumerate(said[:MOST_BETWEEN]):
        if token.sort is Sort.NUMBER and at + 1 < len(said) and said[at + 1].sort is Sort.TIMES:
            behind = said[at + 2].sort if at + 2 < len(said) else None
            return None if behind is Sort.MORE else int(token.value)
        if token.sort not in _PASSED:
            return None
    return None
