"""Threads sewn through a stuffed piece: "Sew through and draw in: R8 st 3 to R8 st 15, 44 mm; R10 st 4 to …".

A thread through the filling holds two places at a distance, and so keeps a stuffed piece flat.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from craft.errors import require

THREAD_WORDS = re.compile(r"(?i)^\W*(?:sew|stitch|thread)\s+through\b.{0,60}?\bdraw(?:n|ing)?\s+in\b")
"""How a direction for threads begins."""

_STITCH = r"(?:st|stitch)\.?\s*(\d{1,5})"
_ROUND = r"(?:r|rnd|round)\.?\s*(\d{1,4})"
_PAIR = re.compile(
    rf"(?i)\b{_ROUND},?\s+{_STITCH}\s*(?:to|[-–—])\s*(?:{_ROUND},?\s+)?{_STITCH}\s*,?\s*\(?\s*(\d{{1,4}}(?:[.,]\d{{1,2}})?)\s*mm\b"
)

MOST_LONG_MM = 2000.0


@dataclass(frozen=True, slots=True)
class ThreadWords:
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


def thread_direction(threads: Sequence[ThreadWords]) -> str:
    """The whole direction; CraftError without a thread."""
    require(bool(threads), "A direction to sew through needs a thread.", field="threads")
    return "Sew through and draw in: " + "; ".join(t.text for t in threads) + "."


def find_threads(text: str) -> tuple[ThreadWords, ...]:
    """The threads that a direction names; those with a number of 0 are none."""
    found: list[ThreadWords] = []
    for m in _PAIR.finditer(text):
        first, stitch, other, last, length = m.groups()
        numbers = int(first), int(stitch), int(other or first), int(last)
        mm = float(length.replace(",", "."))
        if min(numbers) > 0 and 0 < mm <= MOST_LONG_MM:
            found.append(ThreadWords(*numbers, mm))
    return tuple(found)
