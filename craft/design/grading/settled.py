"""What settling says of a size that its counts do not: parts that come out slimmer or stouter than they were reckoned."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from craft.design.grading.measure import part_size
from craft.design.grading.report import Feature, State
from craft.design.grading.sized import PROPORTIONS, PartAtSize, Sized
from craft.errors import require

KEPT = 0.015
"""By how large a share proportions may differ and still count as kept."""

SAID = ("proportions", "width", "part")
"""Rows of the report that tell of a part's proportions already."""


@dataclass(frozen=True, slots=True)
class SettledShape:
    """How high a part settled, and how far around it is where it is widest, in mm."""

    height_mm: float
    around_mm: float

    def __post_init__(self) -> None:
        require(self.height_mm > 0 and self.around_mm > 0, "A settled part has a height and a girth.", field="settled")

    @property
    def width_mm(self) -> float:
        """As wide as a circle of its girth."""
        return self.around_mm / math.pi

    @property
    def slimness(self) -> float:
        """Height over width."""
        return self.height_mm / self.width_mm


def proportions_settled(
    first: Sized, sized: Sized, before: Mapping[str, SettledShape], after: Mapping[str, SettledShape]
) -> tuple[Feature, ...]:
    """A row for every part that settles more than 5 % slimmer or stouter at this size than at the first one, where the
    report of its counts does not say so. before, after: the shapes of its settled parts, by key."""
    parts = {p.source.key: p for p in first.parts}
    rows = (
        _row(first, sized, parts[p.source.key], p, before[p.source.key], after[p.source.key])
        for p in sized.parts
        if p.source.key in parts and p.source.key in before and p.source.key in after
    )
    return tuple(row for found in rows for row in found)


def _row(
    first: Sized, sized: Sized, was: PartAtSize, part: PartAtSize, before: SettledShape, after: SettledShape
) -> Iterator[Feature]:
    off = after.slimness / before.slimness - 1
    if abs(off) <= PROPORTIONS or any(f.kind in SAID for f in part.features):
        return
    said = tuple(f"settles {s.slimness:.2f} times as high as wide" for s in (before, after))
    yield Feature(
        part.source.name, "proportions", State.CHANGED, said[0], said[1], _why(first, sized, was, part, before, after)
    )


def _why(
    first: Sized, sized: Sized, was: PartAtSize, part: PartAtSize, before: SettledShape, after: SettledShape
) -> str:
    """What its counts said instead, and how many plain rounds bring it back."""
    reckoned = [part_size(p.worked, p.gauge, s.design.gauge.firmness) for p, s in ((was, first), (part, sized))]
    ratios = [m.height.value / max(m.width.value, 0.1) for m in reckoned]
    expected = ratios[1] / max(ratios[0], 1e-6) - 1
    off = after.slimness / before.slimness - 1
    missing = before.slimness * after.width_mm - after.height_mm
    rounds = round(abs(missing) / part.gauge.round_mm)
    kept = abs(expected) < KEPT
    counts = "by its counts it would keep its shape" if kept else f"by its counts {abs(expected):.0%} {_than(expected)}"
    said = f"The settled fabric is {abs(off):.0%} {_than(off)}; {counts}."
    if not rounds:
        return f"{said} That is less than a round."
    more = "more" if missing > 0 else "fewer"
    plain = "1 plain round" if rounds == 1 else f"{rounds} plain rounds"
    return f"{said} {plain} {more} where it is straight would bring it back."


def _than(off: float) -> str:
    return "slimmer" if off > 0 else "stouter"
