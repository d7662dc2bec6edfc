"""Threads sewn through a stuffed piece: "Sew through and draw in: R8 st 3 to R8 st 15, 44 mm; R10 st 4 to …".

A thread through the filling holds two places at a distance, and so keeps a stuffed piece flat.
"""

from __future__ import annotations

import re

from craft.rounds.pattern import MOST_LONG_MM, SewnThread

THREAD_WORDS = re.compile(r"(?i)^\W*(?:sew|stitch|thread)\s+through\b.{0,60}?\bdraw(?:n|ing)?\s+in\b")
"""How a direction for threads begins."""

_STITCH = r"(?:st|stitch)\.?\s*(\d{1,5})"
_ROUND = r"(?:r|rnd|round)\.?\s*(\d{1,4})"
_PAIR = re.compile(
    rf"(?i)\b{_ROUND},?\s+{_STITCH}\s*(?:to|[-–—])\s*(?:{_ROUND},?\s+)?{_STITCH}\s*,?\s*\(?\s*(\d{{1,4}}(?:[.,]\d{{1,2}})?)\s*mm\b"
)


def find_threads(text: str) -> tuple[SewnThread, ...]:
    """The threads that a direction names; those with a number of 0 are none."""
    found: list[SewnThread] = []
    for m in _PAIR.finditer(text):
        first, stitch, other, last, length = m.groups()
        numbers = int(first), int(stitch), int(other or first), int(last)
        mm = float(length.replace(",", "."))
        if min(numbers) > 0 and 0 < mm <= MOST_LONG_MM:
            found.append(SewnThread(*numbers, mm))
    return tuple(found)
