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
    """How often a round's words say that something is repeated, 'repeat 6 times', '6x wiederholen'; None where they do not
    say it, or tell that the number counts those behind the first, 'repeat 5 more times', 'noch 5x wiederholen'."""
    said = tokens(text, Vocabulary(language, terms))
    at_verbs = [at for at, token in enumerate(said) if token.sort in _REPEATS]
    found = (n for at in at_verbs for n in (_behind(said[at + 1 :]), _ahead(said[:at])))
    return next((n for n in found if n is not None), None)


def _behind(said: Sequence[Token]) -> int | None:
    for at, token in enumerate(said[:MOST_BETWEEN]):
        if token.sort is Sort.NUMBER and at + 1 < len(said) and said[at + 1].sort is Sort.TIMES:
            behind = said[at + 2].sort if at + 2 < len(said) else None
            return None if behind is Sort.MORE else int(token.value)
        if token.sort not in _PASSED:
            return None
    return None


def _ahead(said: Sequence[Token]) -> int | None:
    """'6x' or 'sechsmal' right before the verb, as German and Dutch have it."""
    many = 1 if said and said[-1].sort is Sort.OFTEN else 2
    told = [token.sort for token in said[-many:]]
    if told not in ([Sort.OFTEN], [Sort.NUMBER, Sort.TIMES]) or (
        len(said) > many and said[-many - 1].sort is Sort.MORE
    ):
        return None
    return int(said[-many].value)
