"""Clauses of a round that tell nothing to be worked: 'sc around, placing eyes at each side between rows 4 and 5'."""

from __future__ import annotations

import itertools
import re
from collections.abc import Callable

from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort, stitch_words
from craft.text.notation import step_kind

_ASIDE_SORTS = frozenset({
    Sort.NUMBER, Sort.ORDINAL, Sort.PLACE, Sort.IN, Sort.EACH, Sort.EVERY, Sort.NEXT, Sort.LAST, Sort.TO, Sort.OF, Sort.FROM,
    Sort.AROUND, Sort.ROUND, Sort.AND, Sort.QUIET, Sort.NOISE, Sort.STOP, Sort.MORE, Sort.BOTH, Sort.THROUGH, Sort.REST,
    Sort.SAME, Sort.COLOUR, Sort.OTHER_SIDE, Sort.TOGETHER, Sort.JOIN,
})  # fmt: skip
"""What a remark may be made of: nothing that is worked, and nothing that says how often."""

_TURNING = frozenset(("except", "instead", "less", "not", "no", "without", "skip", "only", "but"))

_MEASURES = frozenset(
    ("mm", "cm", "g", "m", "hook", "inch", "inches", "aguja", "crochet", "nadel", "uncinetto", "haaknaald")
)
"""What a number counts that is no stitch: 'using a 2.5 mm hook'."""

LEAST_WORD = 3
"""Letters of a word that tells a remark."""

_BETWEEN = re.compile(
    r"\s*[,;]\s*|:\s+|\s+-\s+|\s+(?=(?:while|whilst|as\s+you\s+go|and\s+at\s+the\s+same\s+time)\b)"
    r"|\s+and\s+(?=(?:pull|draw|cut|stuff|fasten|sew|weave)\b)"
)

_COUNTS = re.compile(r"(?i)^\W*\d|\d\s*(?:sts?|stitches)\b")
"""'13. Sew shut': what may be the round's count, in front of a direction."""

Reader = Callable[[str], tuple[Token, ...]]


def without_remarks(work: str, read: Reader) -> tuple[str, tuple[str, ...]] | None:
    """A round's work without the clauses that carry none of it, and those; None when there is none of them.

    read: the tokens of words. What is inside of brackets is never divided.
    """
    clauses = _clauses(work)
    asides = [clause for clause in clauses if _is_remark(clause, read(clause))]
    kept = [clause for clause in clauses if clause not in asides]
    if not asides or not any(t.sort is Sort.STITCH for clause in kept for t in read(clause)):
        return None
    return ", ".join(kept), tuple(asides)


def is_direction(clause: str) -> bool:
    """Whether a clause tells what to do beside the stitches, such as eyes and stuffing, and counts none of them."""
    return step_kind(clause) is not None and _COUNTS.search(clause) is None


def _clauses(work: str) -> list[str]:
    found: list[str] = []
    since, depth = 0, 0
    breaks = {m.start(): m for m in _BETWEEN.finditer(work)}
    for at, sign in enumerate(work):
        depth += (sign in "([{") - (sign in ")]}")
        if at in breaks and not depth and at >= since:
            found.append(work[since:at].strip())
            since = breaks[at].end()
    return [clause for clause in (*found, work[since:].strip()) if clause]


def _is_remark(clause: str, tokens: tuple[Token, ...]) -> bool:
    words = [str(t.value).lower() for t in tokens if t.sort is Sort.NOISE]
    joins = any(t.sort is Sort.JOIN for t in tokens)  # 'join the two lobes', 'now we join the legs'
    aside = _ASIDE_SORTS | {Sort.PIECE} if joins else _ASIDE_SORTS
    if any(t.sort not in aside for t in tokens) or any(w in _TURNING or w in stitch_words() for w in words):
        return False
    if (
        not joins
        and step_kind(clause) is None
        and any(
            a.sort is Sort.NUMBER and b.sort is Sort.NOISE and str(b.value).lower() not in _MEASURES
            for a, b in itertools.pairwise(tokens)
        )
    ):
        return False  # '2 flumps in each' may be stitches that nobody knows
    said = any(len(w) >= LEAST_WORD and w.isalpha() for w in words)
    return said or step_kind(clause) is not None or any(t.sort is Sort.PIECE for t in tokens)
