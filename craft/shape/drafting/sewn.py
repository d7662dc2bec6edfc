"""Threads sewn through a drafted piece: places that hold at every size, and the stitches they fall on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError, require
from craft.rounds.pattern import SewnThread

Vector = NDArray[np.float64]

MOST_SEWN = 48
"""Threads that one piece takes: sewing more is a day's work."""


@dataclass(frozen=True, slots=True)
class Spot:
    """A place on a drafted piece: share of its rounds from the start, share of the round from the front on."""

    along: float
    around: float

    def __post_init__(self) -> None:
        require(0 <= self.along <= 1 and 0 <= self.around <= 1, "A place lies between 0 and 1.", field="threads")


@dataclass(frozen=True, slots=True)
class SewnThrough:
    """A thread from one place to another through the filling, drawn in to so many mm."""

    first: Spot
    last: Spot
    length_mm: float

    def __post_init__(self) -> None:
        require(self.length_mm > 0, "A thread has a length.", field="threads")

    def scaled(self, factor: float) -> SewnThrough:
        """The same thread of a piece at another size."""
        return replace(self, length_mm=self.length_mm * factor)

    def numbers(self) -> tuple[float, float, float, float, float]:
        """Both places and the length, as they are kept: along, around, along, around, mm."""
        a, b = self.first, self.last
        along, around, along_b, around_b = (round(v, 4) for v in (a.along, a.around, b.along, b.around))
        return along, around, along_b, around_b, round(self.length_mm, 2)

    @classmethod
    def of(cls, data: Sequence[float]) -> SewnThrough:
        """The thread of its numbers; CraftError when they make none."""
        try:
            a, around_a, b, around_b, length = (float(v) for v in data)
        except (TypeError, ValueError):
            raise CraftError("A thread sewn through is not complete.", field="threads") from None
        return cls(Spot(a, around_a), Spot(b, around_b), length)


def spot_of(number: int, stitch: int, places: Sequence[Vector]) -> Spot:
    """Where stitch `stitch` of round `number` lies, both from 0. places: of every round, shares from the front on."""
    return Spot(number / max(len(places) - 1, 1), float(places[number][stitch]) % 1.0)


def written(sewn: Sequence[SewnThrough], places: Sequence[Vector]) -> list[SewnThread]:
    """The threads in words: the stitches that lie nearest to their places. One whose ends fall together is left out."""
    found = []
    for thread in sewn:
        (a, i), (b, j) = _nearest(thread.first, places), _nearest(thread.last, places)
        if (a, i) != (b, j):
            found.append(SewnThread(a + 1, i + 1, b + 1, j + 1, round(thread.length_mm, 1)))
    return found


def _nearest(spot: Spot, places: Sequence[Vector]) -> tuple[int, int]:
    number = round(spot.along * (len(places) - 1))
    off = np.abs((places[number] - spot.around + 0.5) % 1.0 - 0.5)
    return number, int(np.argmin(off))
