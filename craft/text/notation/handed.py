"""The left-handed edition: the same rounds, with left and right, clockwise and its opposite exchanged."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from craft.rounds.pattern import (
    HeadEntry,
    Instruction,
    Item,
    Note,
    Onto,
    Part,
    Pattern,
    Repeat,
    Round,
    Section,
    Spur,
    Step,
    Work,
)

_PAIRS = (
    ("left", "right"),
    ("lefts", "rights"),
    ("left-hand", "right-hand"),
    ("left-handed", "right-handed"),
    ("leftmost", "rightmost"),
    ("leftwards", "rightwards"),
    ("clockwise", "anticlockwise"),
    ("cw", "ccw"),
)
_OTHER = dict(_PAIRS) | {b: a for a, b in _PAIRS}
_WORDS = re.compile(r"(?i)(?<![\w-])(" + "|".join(sorted(_OTHER, key=len, reverse=True)) + r")(?![\w-])")
_KEEP = re.compile(
    r"(?i)\bright\s+sides?\b(?=.{0,12}\b(?:out|facing|up|of\s+the\s+fabric))"
    r"|\bleft\s+(?:over|unworked|free|open|empty|on\s+hold|waiting)|\b(?:are|is|sts|stitches|st|one|two)\s+left\b"
    r"|\bright\s+(?:away|after|before|next)|\ball\s+right"
)
"""Words that are no sides."""


def other_handed(text: str) -> str:
    """`text` with every side exchanged; case is kept, and 'leave', 'left over', 'right side out' stay."""
    kept = [m.span() for m in _KEEP.finditer(text)]

    def swap(m: re.Match[str]) -> str:
        if any(a <= m.start() < b for a, b in kept):
            return m.group(0)
        word = m.group(0)
        other = _OTHER[word.lower()]
        return other.upper() if word.isupper() else other.capitalize() if word[0].isupper() else other

    return _WORDS.sub(swap, text)


def _instruction(item: Instruction) -> Instruction:
    match item:
        case Work() if item.through:
            return replace(item, through=other_handed(item.through))
        case Onto() if item.name:
            return replace(item, name=other_handed(item.name))
        case Repeat() | Spur():
            return replace(item, body=_body(item.body))
        case _:
            return item


def _body(body: Sequence[Instruction]) -> tuple[Instruction, ...]:
    return tuple(_instruction(i) for i in body)


def _item(item: Item) -> Item:
    match item:
        case Round():
            return replace(item, body=_body(item.body))
        case Step() | Note():
            return replace(item, text=other_handed(item.text))
        case Section():
            return replace(item, name=other_handed(item.name))
        case _:
            return item


def left_handed(pattern: Pattern) -> Pattern:
    """The edition for left-handed makers; applied twice it is the pattern again.

    The rounds themselves stay: worked left-handed they give the mirror figure.
    """
    parts = tuple(
        Part(p.name and other_handed(p.name), tuple(_item(i) for i in p.items), p.make, p.span) for p in pattern.parts
    )
    head = tuple(HeadEntry(e.key, other_handed(e.value)) for e in pattern.head)
    return Pattern(parts, head, pattern.terms)
