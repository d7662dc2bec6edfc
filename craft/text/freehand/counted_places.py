"""Stitches that are counted and not named, '18 sts', '1 M, 1 Zun': single crochets."""

from __future__ import annotations

from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort

_AFTER_PLACES = (
    Sort.IN,
    Sort.NEXT,
    Sort.LAST,
    Sort.OF,
    Sort.EACH,
    Sort.EVERY,
    Sort.SKIP,
    Sort.LEAVE,
    Sort.REST,
    Sort.TO,
    Sort.FROM,
)


def with_stitches(words: tuple[Token, ...]) -> tuple[Token, ...]:
    """'1 M, 1 Zun', '18 sts': with the stitches that are counted and not named as single crochets; none where one is named,
    nothing is so counted, or a word without a meaning stands there ('4 sts apart')."""
    counted = [
        k
        for k, t in enumerate(words)
        if t.sort is Sort.PLACE
        and k > 0
        and words[k - 1].sort is Sort.NUMBER
        and (k == 1 or words[k - 2].sort not in _AFTER_PLACES)
    ]
    named = any(t.sort is Sort.STITCH and t.value == "sc" for t in words)
    if not counted or named or any(t.sort is Sort.NOISE for t in words):
        return ()
    return tuple(Token(Sort.STITCH, "sc", t.start, t.end) if k in counted else t for k, t in enumerate(words))
