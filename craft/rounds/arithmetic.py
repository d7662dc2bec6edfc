"""Sums of a round, worked out symbolically: nothing is expanded, so any repeat is cheap."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.remembered import of_short
from craft.rounds.pattern import (
    Again,
    Chain,
    Cluster,
    Colour,
    Edge,
    FromHook,
    Instruction,
    Join,
    Onto,
    Repeat,
    Same,
    Skip,
    Start,
    Turn,
    Unread,
    Work,
)
from craft.rounds.stitches import stitch

MOST_STITCHES = 100_000
"""Stitches that one pattern may make."""

MOST_ROUNDS = 2_000
"""Rounds that one pattern may have, folds counted in full."""


@dataclass(frozen=True, slots=True)
class Sum:
    """Stitches taken from the round below and given to the live edge."""

    takes: int = 0
    gives: int = 0

    def __add__(self, other: Sum) -> Sum:
        return Sum(self.takes + other.takes, self.gives + other.gives)

    def times(self, n: int) -> Sum:
        """The sum of `n` in a row."""
        return Sum(self.takes * n, self.gives * n)


@dataclass(frozen=True, slots=True)
class RoundSum:
    """Sum of a whole round over `live` stitches.

    fill: how often the part that goes around is worked, None when nothing goes around.
    rest: live stitches that stay unused; negative when the round asks for more than there are.
    unit: what one turn of the part that goes around takes and gives.
    """

    total: Sum
    rest: int
    fill: int | None = None
    unit: Sum | None = None


def sum_of(body: Sequence[Instruction]) -> Sum:
    """The fixed sum of a settled `body`; what goes around counts once."""
    total = Sum()
    for item in body:
        match item:
            case Start():
                total += Sum(0, item.count)
            case Work():
                entry = stitch(item.stitch)
                gives = 0 if is_seam(item) else entry.gives
                total += Sum(entry.takes, gives).times(item.count)
            case Repeat():
                total += sum_of(item.body).times(item.times or 1)
            case Cluster():
                total += Sum(1, sum(stitch(w.stitch).gives * w.count for w in item.body))
            case Same():
                total += Sum(0, stitch(item.stitch).gives * item.count)
            case Skip():
                total += Sum(item.count, 0)
            case FromHook():
                total += Sum(item.nth - 1, 0)
            case _:
                pass
    return total


def is_seam(work: Work) -> bool:
    """Whether stitches close two edges together and put nothing back: slip stitches through both."""
    return work.through is not None and work.stitch == "slst"


def going_around(body: Sequence[Instruction]) -> int | None:
    """Index in `body` of the first repeat that goes around, None when there is none."""
    return next((i for i, item in enumerate(body) if isinstance(item, Repeat) and item.times is None), None)


_BEFORE_WORK = (Turn, Join, Colour, Again, Unread)
"""Instructions that may stand before the chain of a joined round or row."""


@of_short(4_096)
def settled(body: tuple[Instruction, ...], counted: bool = False) -> tuple[Instruction, ...]:
    """`body` with every chain and every first 'same' put in terms of what it takes and gives.

    A leading chain is a turning chain, which is nothing, or, when it counts, a stitch; a chain
    elsewhere is a bridge. counted: take a turning chain for a stitch where the text does not say.
    """
    out: list[Instruction] = []
    begun = False
    for at, item in enumerate(body):
        after = body[at + 1] if at + 1 < len(body) else None
        if isinstance(item, Chain) and isinstance(after, Same) and after.stitch == "slst":
            # A loop that goes back to where it came from is a picot, however long.
            out.append(Work("picot", span=item.span))
            begun = True
            continue
        if isinstance(item, Same) and item.stitch == "slst" and at and isinstance(body[at - 1], Chain):
            continue
        if isinstance(item, Chain):
            if after is None and at and isinstance(body[at - 1], Join) and not item.counts:
                continue  # '…, join, ch 1': the next round's turning chain
            bridge = begun or isinstance(after, Skip) or (isinstance(after, Onto) and not after.rejoin)
            if bridge and not isinstance(after, FromHook | Turn):
                out.append(Work("ch", item.count, span=item.span))
                begun = True
            elif item.counts or (counted and item.counts is None):
                out.append(Cluster((Work("ch"),), item.span))
                begun = True
            continue
        if isinstance(item, Repeat):
            out.append(replace(item, body=_bridged(item.body)))
        elif isinstance(item, Same) and not begun:
            out.append(Cluster((Work(item.stitch, item.count),), item.span))
        else:
            out.append(item)
        begun = begun or not isinstance(item, (*_BEFORE_WORK, Onto))
    return tuple(out)


def _bridged(body: tuple[Instruction, ...]) -> tuple[Instruction, ...]:
    """A repeat's body with its chains as bridges."""
    return tuple(
        Work("ch", i.count, span=i.span)
        if isinstance(i, Chain)
        else replace(i, body=_bridged(i.body))
        if isinstance(i, Repeat)
        else i
        for i in body
    )


SINGLE = (Work, Repeat, Cluster, Same, Skip, Colour, Join, Turn)
"""Instructions of a round that is worked on the live edge alone."""


def is_single(body: Sequence[Instruction]) -> bool:
    """Whether a settled round works the live edge once through and nothing else."""
    for at, item in enumerate(body):
        if not isinstance(item, SINGLE):
            return False
        if isinstance(item, Turn) and 0 < at < len(body) - 1:
            return False
        if isinstance(item, Work) and item.through is not None:
            return False
        if isinstance(item, Repeat) and not is_single(item.body):
            return False
    return True


def has_edge(body: Sequence[Instruction], edge: Edge) -> bool:
    """Whether a body works along `edge`."""
    return any(
        (isinstance(i, Onto) and i.edge is edge) or (isinstance(i, Repeat) and has_edge(i.body, edge)) for i in body
    )


@of_short(4_096)
def round_sum(body: tuple[Instruction, ...], live: int, counted: bool = False) -> RoundSum:
    """The sum of a round worked over `live` stitches; what goes around takes what the rest leaves."""
    body = settled(body, counted)
    at = going_around(body)
    fixed = sum_of([item for i, item in enumerate(body) if i != at])
    if at is None:
        return RoundSum(fixed, live - fixed.takes)
    repeat = body[at]
    assert isinstance(repeat, Repeat)
    unit = sum_of(repeat.body)
    room = live - fixed.takes
    fill = max(room, 0) // unit.takes if unit.takes else 1
    total = fixed + unit.times(fill)
    return RoundSum(total, live - total.takes, fill, unit)
