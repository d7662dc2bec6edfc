"""Headings that go on in the same fabric: 'Second leg' after a split is a section of its part."""

from __future__ import annotations

from craft.rounds.pattern import (
    Chain,
    Cluster,
    Edge,
    FromHook,
    Onto,
    Part,
    Repeat,
    Round,
    Section,
    Start,
    Step,
    StepKind,
    Work,
)
from craft.rounds.stitches import stitch


def sectioned(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """Parts, with those that only go on put into the part before them under a heading of their own."""
    out: list[Part] = []
    for part in parts:
        above = out[-1] if out else None
        if above is not None and _goes_on(above, part):
            heading = (Section(part.name, part.span),) if part.name else ()
            out[-1] = Part(above.name, (*above.items, *heading, *part.items), above.make, above.span)
        else:
            out.append(part)
    return tuple(out)


def _goes_on(above: Part, part: Part) -> bool:
    if not part.rounds or not above.rounds or part.make != 1:
        return False
    first = _first_work(part)
    if isinstance(first, Onto):
        return first.edge in (Edge.HELD, Edge.FREE, Edge.SIDE) or (first.rejoin and first.edge is not Edge.PIECE)
    if isinstance(first, Start | Chain | FromHook) or first is None or above.make != 1:
        return False
    if isinstance(first, Work) and stitch(first.stitch).foundation:
        return False
    return _number(part) in (None, _last_number(above) + 1) and not _finished(above)


def _first_work(part: Part) -> object | None:
    """What a part begins with."""
    for made in part.rounds:
        for item in made.body:
            if isinstance(item, Start | Chain | FromHook | Onto | Work | Repeat | Cluster):
                return item
    return None


def _number(part: Part) -> int | None:
    return next((r.first for r in part.rounds), None)


def _last_number(part: Part) -> int:
    return next((r.or_to or r.last for r in reversed(part.rounds) if r.last is not None), 0) or 0


def _finished(part: Part) -> bool:
    """Whether a part ends closed or cut off."""
    for item in reversed(part.items):
        if isinstance(item, Round):
            return False
        if isinstance(item, Step) and item.kind in (StepKind.CLOSE, StepKind.FASTEN_OFF):
            return True
    return False
