"""A text's own words that nothing in it explains: for its plain stitch, 'v.1 - 6 mpb en anillo mágico', and letters for its
shaping, '6(1,V)', '6A'."""

from __future__ import annotations

import itertools
import re
from collections import Counter
from collections.abc import Sequence
from functools import cache

from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import Token, Vocabulary, tokens
from craft.text.freehand.lexicon import Meaning, Sort, words_file, words_of
from craft.text.freehand.row import Row

LEAST_ROUNDS = 4
"""Rounds that a word stands in as a stitch would, before it is taken for one."""

_LETTER = r"(?:^|\d\.?\s?x?\s*|[,+/(\[]\s*|(?:{each})\s+)(?P<letter>[A-Z])(?=\s*(?:[x*×)\]]|\W*\d|\W*$))"
"""'6V', '6(1,V)', '2,A x6', 'alle V': a letter behind a number, inside of a repeat, or of which every stitch is one."""

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


def shaping_letters(found: Sequence[Row], vocabulary: Vocabulary) -> dict[str, tuple[Meaning, Row]]:
    """The letters, in small, that rounds of a text shape with, and what its language has them for, each with the first row
    that does; none where other letters stand as they do, or where the text explains them itself."""
    usual = words_file(vocabulary.language)["letters"]
    keys = {letter: key for key, letters in usual.items() for letter in letters}
    rounds = [(row, row.text[label.end :]) for row in found if (label := label_at(row.text)) is not None]
    said = [(m["letter"].lower(), row) for row, work in rounds for m in _letter(vocabulary.language).finditer(work)]
    if any(letter not in keys or letter in vocabulary.own for letter, _ in said):
        return {}
    return {letter: (Meaning(Sort.STITCH, keys[letter]), row) for letter, row in reversed(said)}


@cache
def _letter(language: str) -> re.Pattern[str]:
    each = (w for w, m in words_of(language).items() if m.sort in (Sort.EACH, Sort.EVERY))
    return re.compile(_LETTER.format(each="|".join(map(re.escape, each))))


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
