"""A round as a plan: stretches along one edge, and what happens between them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from craft.remembered import of_short
from craft.rounds.arithmetic import MOST_STITCHES, settled
from craft.rounds.pattern import (
    Again,
    Chain,
    FromHook,
    Instruction,
    Join,
    Leave,
    Onto,
    Repeat,
    Shift,
    Start,
    Turn,
    Unread,
)


@dataclass(frozen=True, slots=True)
class Stretch:
    """Work along one edge."""

    items: tuple[Instruction, ...]


Move = Stretch | Start | Chain | FromHook | Join | Turn | Leave | Shift | Onto | Again
_APART = (Start, Chain, FromHook, Join, Turn, Leave, Shift, Onto, Again)


def _divides(item: Instruction) -> bool:
    return isinstance(item, _APART) or (isinstance(item, Repeat) and any(_divides(i) for i in item.body))


def _written_out(body: tuple[Instruction, ...]) -> list[Instruction]:
    """Repeats that leave the edge within, written out."""
    out: list[Instruction] = []
    for item in body:
        if isinstance(item, Repeat) and _divides(item):
            once = _written_out(item.body)
            for _ in range(min(item.times or 1, max(1, MOST_STITCHES // max(1, len(once))))):
                out += once
                if len(out) > MOST_STITCHES:
                    return out
        else:
            out.append(item)
    return out


def _with_start(body: tuple[Instruction, ...], counted: bool) -> tuple[Instruction, ...]:
    """A first round into a ring: a chain before it only counts when it says so, or is `counted`."""
    at = next(i for i, item in enumerate(body) if isinstance(item, Start))
    lead = [i for i in body[:at] if isinstance(i, Chain)]
    counts = any(c.counts or (counted and c.counts is None) for c in lead)
    kept = [i for i in body[:at] if not isinstance(i, Chain | Join)]
    first: list[Instruction] = [replace(_start_of(body[at]), count=1, stitch="ch")] if counts else []
    return (*kept, *first, *body[at:])


def _start_of(item: Instruction) -> Start:
    assert isinstance(item, Start)
    return item


@of_short(4_096)
def plan(body: tuple[Instruction, ...], *, empty: bool, counted: bool = False) -> tuple[Move, ...]:
    """Cut a round's body up. empty: nothing is live, so a leading chain is what the piece grows from.

    counted: take a turning chain for a stitch where the text does not say.
    """
    if any(isinstance(i, Start) for i in body):
        body = _with_start(body, counted)
    lead: list[Instruction] = []
    if body and isinstance(body[0], Chain) and (empty or any(isinstance(i, FromHook) for i in body[:3])):
        lead, body = [body[0]], body[1:]
    moves: list[Move] = []
    run: list[Instruction] = []
    for item in (*lead, *_written_out(settled(body, counted))):
        if isinstance(item, _APART):
            if run:
                moves.append(Stretch(tuple(run)))
                run = []
            moves.append(item)
        elif not isinstance(item, Unread):
            run.append(item)
    if run:
        moves.append(Stretch(tuple(run)))
    return tuple(moves)
