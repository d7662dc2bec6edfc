"""Sums of a round, worked out symbolically: nothing is expanded, so any repeat is cheap."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from craft.pattern import Instruction, Repeat, Start, Work
from craft.stitches import stitch

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
    """The fixed sum of `body`; what goes around counts once."""
    total = Sum()
    for item in body:
        match item:
            case Start():
                total += Sum(0, item.count)
            case Work():
                entry = stitch(item.stitch)
                total += Sum(entry.takes, entry.gives).times(item.count)
            case Repeat():
                total += sum_of(item.body).times(item.times or 1)
            case _:
                pass
    return total


def going_around(body: Sequence[Instruction]) -> int | None:
    """Index in `body` of the first repeat that goes around, None when there is none."""
    return next((i for i, item in enumerate(body) if isinstance(item, Repeat) and item.times is None), None)


@lru_cache(maxsize=8192)
def round_sum(body: tuple[Instruction, ...], live: int) -> RoundSum:
    """The sum of a round worked over `live` stitches; what goes around takes what the rest leaves."""
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
