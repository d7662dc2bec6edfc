"""Plain rounds of which the colours are told: '2 rounds in A, 2 rounds in B', 'ein Rd in Weiß und zwei Rd in Rot'."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.labels import CARDINAL, ROUNDS, spelled
from craft.text.freehand.lexer import Vocabulary
from craft.text.freehand.lexicon import LANGUAGES, Sort, words_file

_STRIPE = re.compile(
    rf"(?i)(?:(?:work|crochet|then|now|and|dann|und|puis|et|luego|y|poi|e|dan|en)\s+)*(?P<many>\d{{1,2}}|{CARDINAL})\s+"
    rf"(?:more\s+)?(?:{ROUNDS})\.?\s+(?:in|with|using|mit|en|avec|con|met)\s+(?P<colour>[^,;.:()\d]{{1,24}}?)"
    r"(?:\s*[,;.]\s*|\s+(?=(?:and|then|und|dann|et|puis|y|luego|e|poi|en|dan)\s)|\s*$)"
)


_COUNT_BEHIND = re.compile(r"\s*(?:[(\[=-]\s*)+(?P<n>\d{1,4})(?:\s*[^\W\d_]{1,8}\.?)?\s*[)\]]?\s*\.?\s*$")
"""'2 rounds in A (12 sts)'."""


@dataclass(frozen=True, slots=True)
class Stripes:
    """Plain rounds by colour. each: how many of which, one after the other. count: the stitches said of them, or None."""

    each: tuple[tuple[int, str], ...]
    count: int | None = None


def stripes_in(text: str, vocabulary: Vocabulary) -> Stripes | None:
    """The stripes that a text tells, None where it tells anything else."""
    behind = _COUNT_BEHIND.search(text)
    found: list[tuple[int, str]] = []
    at, end = 0, behind.start() if behind is not None else len(text.rstrip())
    text = text[:end]
    while at < end:
        stripe = _STRIPE.match(text, at)
        if stripe is None or not is_colour(stripe["colour"].strip(), vocabulary):
            return None
        found.append((spelled(stripe["many"]), stripe["colour"].strip()))
        at = stripe.end()
    return Stripes(tuple(found), int(behind["n"]) if behind is not None else None) if found else None


def is_colour(said: str, vocabulary: Vocabulary) -> bool:
    """Whether words are a colour of the text, a letter for one ('A', 'MC'), or a colour's name in any language."""
    meaning = vocabulary.meaning(said.lower())
    listed = meaning is not None and meaning.sort is Sort.COLOUR
    return listed or re.fullmatch(r"[A-H]|MC|CC", said) is not None or said.lower().split()[-1] in _tints()


@cache
def _tints() -> frozenset[str]:
    return frozenset(tint for code in LANGUAGES for tint in words_file(code)["colours"])
