"""Whether a text speaks of any piece beside itself: only then the other parts of its design have a say in what it means."""

from __future__ import annotations

import re
from functools import lru_cache

from craft.remembered import of_short
from craft.text import freehand
from craft.text.notation import names_pieces

_WORD = re.compile(r"[^\W\d_]+(?:'[^\W\d_]+)?")

_works_on = of_short(8_192)(names_pieces)

LONGEST = 8_000
"""Code points of a text of which it is remembered."""


@of_short(1_024, LONGEST)
def speaks_of_pieces(text: str, names: tuple[str, ...]) -> bool:
    """Whether a text names a piece as the notation does, 'around the leg', or calls one of `names` in any way that the
    freehand reader knows in its language."""
    if any(_works_on(line, names) for line in text.splitlines() if line):
        return True
    small = re.sub(r"\s+", " ", text.lower())
    return any(phrase in small for phrase in _phrases(names, freehand.language_of(_WORD.findall(small))))


@lru_cache(maxsize=64)
def _phrases(names: tuple[str, ...], language: str) -> frozenset[str]:
    return frozenset(phrase for name in names for phrase, _ in freehand.piece_phrases(name, language, 1))
