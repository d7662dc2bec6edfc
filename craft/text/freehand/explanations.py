"""Brackets of a round that hold no work: they say again what a stitch is, or talk about it."""

from __future__ import annotations

import re

from craft.rounds.stitches import STITCHES
from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort

_EXPLAINS = re.compile(r"(?i)[(\[]\s*(?:or\s+(?!inc|dec|\d)|that\s+is|i\.?e\.?|which\s+means|meaning|=|also\s+called)")
"""Brackets that say again what a stitch is."""


def without_explanations(tokens: tuple[Token, ...], text: str) -> tuple[tuple[Token, ...], list[str]]:
    """The tokens without brackets that say again what a stitch is, '(that is, 2 sc in one st)', and those brackets."""
    kept: list[Token] = []
    said_again: list[str] = []
    depth, since = 0, 0
    for at, token in enumerate(tokens):
        if not depth and token.sort is Sort.OPEN and (_EXPLAINS.match(text, token.start) or _is_talk(tokens[at + 1 :])):
            depth, since = 1, token.start
        elif depth:
            depth += (token.sort is Sort.OPEN) - (token.sort is Sort.CLOSE)
            if not depth:
                said_again.append(text[since : token.end])
        else:
            kept.append(token)
    return (tuple(kept), said_again) if not depth else (tokens, [])


LEAST_TALK = 2
"""Words that mean nothing here, of a bracket without numbers that is talk: '(invisible decrease looks best)'."""


def _is_talk(behind: tuple[Token, ...]) -> bool:
    """Whether a bracket tells nothing to be worked: several words that mean nothing here, a stitch, and no number."""
    inside: list[Token] = []
    for token in behind:
        if token.sort is Sort.CLOSE:
            break
        inside.append(token)
    sorts = [t.sort for t in inside]
    counts = {Sort.NUMBER, Sort.OFTEN, Sort.TIMES, Sort.COMMA, Sort.COLOUR, Sort.PIECE, Sort.OPEN} & set(sorts)
    return Sort.STITCH in sorts and sorts.count(Sort.NOISE) >= LEAST_TALK and not counts


def _says_again(one: Token, other: Token) -> bool:
    """Whether a stitch in a bracket is the one before it, in the same words or in those of the other terms."""
    keys = [str(t.value) for t in (one, other)]
    if keys[0] == keys[1] or not all(key in STITCHES for key in keys):
        return keys[0] == keys[1]
    return bool({*STITCHES[keys[1]].us} & {*STITCHES[keys[0]].uk})


_LOOPS = (Sort.BACK, Sort.FRONT)
_STITCHES = ([Sort.STITCH], [Sort.NUMBER, Sort.STITCH], [Sort.STITCH, Sort.NUMBER])


def unbracketed(tokens: tuple[Token, ...]) -> tuple[Token, ...]:
    """The tokens without brackets that group nothing: around a loop, '(BLO) sc around', '24 fM (nur hintere
    Maschenglieder)', and around stitches before their place, '(3 sc) in last ch'."""
    kept: list[Token] = []
    at = 0
    while at < len(tokens):
        if tokens[at].sort is Sort.OPEN:
            close = next((k for k in range(at + 1, len(tokens)) if tokens[k].sort is Sort.CLOSE), at)
            inside = [t for t in tokens[at + 1 : close] if t.sort not in (Sort.QUIET, Sort.IN)]
            behind = tokens[close + 1].sort if close + 1 < len(tokens) else None
            sorts = [t.sort for t in inside]
            if sorts == [Sort.NUMBER] and kept and kept[-1].sort is Sort.NUMBER and kept[-1].value == inside[0].value:
                at = close + 1  # 'six (6) single crochet'
                continue
            if sorts == [Sort.STITCH] and kept and kept[-1].sort is Sort.STITCH and _says_again(kept[-1], inside[0]):
                at = close + 1  # 'sc (dc)'
                continue
            placed = behind is Sort.IN and sorts in _STITCHES
            if placed or (inside and all(t.sort in _LOOPS for t in inside)):
                kept += inside
                at = close + 1
                continue
        kept.append(tokens[at])
        at += 1
    return tuple(kept)
