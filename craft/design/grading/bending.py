"""What bends of itself at one size and is filled at another: a thin limb is too narrow to be filled.

Six or seven stitches around hold no filling that is worth the trouble; from nine on a part is filled (common practice, no
source).
"""

from __future__ import annotations

from collections.abc import Iterator

from craft.design.grading.report import Feature, State
from craft.design.grading.sized import PartAtSize, Sized
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import StepKind

TOO_NARROW = 7
"""Stitches around, at the widest, of a part that takes no filling."""

FILLED_FROM = 9
"""Stitches around from which a part is filled."""

LONG = 1.5
"""How many times as long as wide around a part is that bends: rounds over stitches."""


def bends_at(sized: Sized) -> Iterator[Feature]:
    """A row for every part that bent of itself and is filled now, and for every one that was filled and can no longer be."""
    for part in sized.parts:
        first = part.source.worked
        if first is None or part.how not in ("drafted", "resampled") or not (_is_tube(first) and _is_tube(part.worked)):
            continue
        before, after = (max(w.counts) for w in (first, part.worked))
        if before <= TOO_NARROW and after >= FILLED_FROM and _fillable(part.worked):
            why = (
                "It is wide enough to be filled now, and what is filled no longer bends of itself. Leave it empty if it is "
                "to bend."
            )
            yield _row(part, f"{before} around, bends", f"{after} around, to be filled", why)
        elif before >= FILLED_FROM and after <= TOO_NARROW and _fillable(first):
            why = "It is too narrow to be filled now: it bends of itself, and holds nothing up."
            yield _row(part, f"{before} around, filled", f"{after} around, bends", why)


def _row(part: PartAtSize, before: str, after: str, why: str) -> Feature:
    return Feature(part.source.name, "bend", State.CHANGED, before, after, why)


def _fillable(worked: WorkedPart) -> bool:
    """Whether nothing says that it stays empty."""
    return all(step.kind is not StepKind.EMPTY for step in worked.steps)


def _is_tube(worked: WorkedPart) -> bool:
    """Whether a part is a tube that could bend: long, neither flat nor wired."""
    flat = worked.pressed or worked.leading_rows or any(t.flat for t in worked.rounds)
    wired = any(step.kind is StepKind.WIRE for step in worked.steps)
    return not flat and not wired and len(worked.rounds) >= LONG * max(worked.counts, default=1)
