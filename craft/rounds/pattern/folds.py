"""Folding equal rounds into ranges, and unfolding them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.rounds.pattern.instructions import Again, Chain, Start
from craft.rounds.pattern.parts import Item, Round


def folded(items: Sequence[Item]) -> tuple[Item, ...]:
    """Equal rounds that follow each other without a word between become one range."""
    out: list[Item] = []
    for item in items:
        above = out[-1] if out else None
        if isinstance(item, Round) and isinstance(above, Round) and _goes_on(above, item):
            out[-1] = replace(above, last=item.last)
        else:
            out.append(item)
    return tuple(out)


def _goes_on(above: Round, made: Round) -> bool:
    """Whether a round is the one above once more."""
    same = (made.body, made.count, made.loops, made.way) == (above.body, above.count, above.loops, above.way)
    next_number = above.last is not None and made.first == above.last + 1
    longer = above.or_to is not None or made.or_to is not None
    return same and next_number and not longer and not any(isinstance(i, Again | Start | Chain) for i in made.body)


def unfolded(items: Sequence[Item]) -> tuple[Item, ...]:
    """Every range of equal rounds as rounds of their own."""
    out: list[Item] = []
    for item in items:
        if isinstance(item, Round) and item.first is not None and item.last is not None and not _again(item):
            out.extend(_numbered(item, n) for n in range(item.first, item.last + 1))
        else:
            out.append(item)
    return tuple(out)


def _numbered(made: Round, n: int) -> Round:
    longer = made.or_to if n == made.last else None
    return replace(made, first=n, last=n, or_to=longer)


def _again(item: Round) -> bool:
    return any(isinstance(i, Again) for i in item.body)
