"""The left-handed edition: the same rounds, with left and right, clockwise and its opposite exchanged."""

from __future__ import annotations

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
from craft.text.notation.sides import other_side


def _instruction(item: Instruction) -> Instruction:
    match item:
        case Work() if item.through:
            return replace(item, through=other_side(item.through))
        case Onto() if item.name:
            return replace(item, name=other_side(item.name))
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
            return replace(item, text=other_side(item.text))
        case Section():
            return replace(item, name=other_side(item.name))
        case _:
            return item


def left_handed(pattern: Pattern) -> Pattern:
    """The edition for left-handed makers; applied twice it is the pattern again.

    The rounds themselves stay: worked left-handed they give the mirror figure.
    """
    parts = tuple(
        Part(p.name and other_side(p.name), tuple(_item(i) for i in p.items), p.make, p.span) for p in pattern.parts
    )
    head = tuple(HeadEntry(e.key, other_side(e.value)) for e in pattern.head)
    return Pattern(parts, head, pattern.terms)
