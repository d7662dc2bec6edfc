"""Threads sewn through a stuffed piece, as a direction names them: they hold two places at a distance."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.errors import require

MOST_LONG_MM = 2000.0
"""The longest thread that any direction means."""


@dataclass(frozen=True, slots=True)
class SewnThread:
    """A thread as it is written: rounds and stitches by number, from 1, and the length in mm it is drawn in to."""

    from_round: int
    from_stitch: int
    to_round: int
    to_stitch: int
    length_mm: float

    def __post_init__(self) -> None:
        numbers = (self.from_round, self.from_stitch, self.to_round, self.to_stitch)
        require(min(numbers) > 0, "Rounds and stitches are numbered from 1.", field="threads")
        require(0 < self.length_mm <= MOST_LONG_MM, "A thread is drawn in to 2 m at most.", field="threads")

    @property
    def text(self) -> str:
        """As it is written."""
        length = f"{self.length_mm:.1f}".removesuffix(".0")
        return f"R{self.from_round} st {self.from_stitch} to R{self.to_round} st {self.to_stitch}, {length} mm"


def thread_direction(threads: Sequence[SewnThread]) -> str:
    """The whole direction; CraftError without a thread."""
    require(bool(threads), "A direction to sew through needs a thread.", field="threads")
    return "Sew through and draw in: " + "; ".join(t.text for t in threads) + "."
