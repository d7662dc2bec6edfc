"""Threads sewn through a stuffed piece: "Sew through and draw in: R8 st 3 to R8 st 15, 44 mm; R10 st 4 to …".

A thread through the filling holds two places at a distance, and so keeps a stuffed piece flat.
"""

from __future__ import annotations

import re
from collections.abc import Callable

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


Stitch = tuple[int, int]
"""A round's number, and a stitch of it, from 1."""


def resewn(text: str, place: Callable[[Stitch], Stitch], scale: float, beside: Callable[[str], str]) -> str:
    """A direction for threads at another size, in her words: every end where `place` says, lengths in mm times `scale`.

    beside: what becomes of the words between the threads.
    """
    out: list[str] = []
    at = 0
    for m in _PAIR.finditer(text):
        first, stitch, other, last, length = m.groups()
        begins, ends = place((int(first), int(stitch))), place((int(other or first), int(last)))
        mm = f"{max(1, round(float(length.replace(',', '.')) * scale))}"
        numbers = (str(begins[0]), str(begins[1]), str(ends[0]), str(ends[1]), mm)
        out += [beside(text[at : m.start()]), _with_numbers(m, numbers)]
        at = m.end()
    return "".join([*out, beside(text[at:])])


def _with_numbers(m: re.Match[str], numbers: tuple[str, ...]) -> str:
    """A thread with other numbers in the place of its own."""
    out, at = "", m.start()
    for group, number in enumerate(numbers, 1):
        if m.group(group) is not None:
            out += m.string[at : m.start(group)] + number
            at = m.end(group)
    return out + m.string[at : m.end()]
