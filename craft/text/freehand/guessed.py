"""A text's own word for its plain stitch that nothing in it explains: 'v.1 - 6 mpb en anillo mágico', '1 mpb, 1 aum'."""

from __future__ import annotations

import itertools
import re
from collections import Counter
from collections.abc import Sequence

from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import Token, Vocabulary, tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.row import Row

LEAST_ROUNDS = 4
"""Rounds that a word stands in as a stitch would, before it is taken for one."""

_SHORT = re.compile(r"[^\W\d_]{2,5}")
"""An abbreviation; a longer word would be one of the language."""


def plain_stitch_of(found: Sequence[Row], vocabulary: Vocabulary) -> tuple[str, Row] | None:
    """The word in small letters that a text works its rings and its plain stitches in, with the first row that does, where
    no table has it and the text works in no other plain stitch; None for any other text."""
    told = [(row, label_at(row.text)) for row in found]
    rounds = [
        (row, label.first == 1, tokens(row.text[label.end :], vocabulary)) for row, label in told if label is not None
    ]
    if any(t.sort is Sort.STITCH and t.value not in ("inc", "dec") for *_, said in rounds for t in said):
        return None
    rings = [(row, w) for row, first, said in rounds if first and _rings(said) for w in _counted(said)]
    often = Counter(word for *_, said in rounds for word in _counted(said))
    return next(((word, row) for row, word in rings if often[word] >= LEAST_ROUNDS), None)


def _rings(said: tuple[Token, ...]) -> bool:
    return any(t.sort is Sort.RING for t in said)


def _counted(said: tuple[Token, ...]) -> frozenset[str]:
    """The unknown short words right behind a number: what so many are made of."""
    pairs = itertools.pairwise(said)
    return frozenset(
        str(b.value).lower()
        for a, b in pairs
        if a.sort is Sort.NUMBER and b.sort is Sort.NOISE and _SHORT.fullmatch(str(b.value)) is not None
    )
