"""Rounds chosen so that the stuffed piece has the size of its shape.

Rounds laid on an outline do not come to its height by themselves: there are only whole ones, easy counts cut corners, a
flat end bulges. The outline is stretched until what is predicted of the piece is what was asked for.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.gauge import Gauge
from craft.shape.drafting.counts import best_counts, evened
from craft.shape.drafting.rings import Rings, rings_of
from craft.shape.profile import inflated_profile
from craft.shape.target import Form, Outline

CLOSE = 0.03
"""How near height and width come to what was asked for, as a share, or half a round where that is more."""

NEAR_ENOUGH = 0.8
"""Share of `CLOSE` within which rounds are left as they are."""

ROUND_SETTLES, FLAT_SETTLES = 0.985, 1.01
"""What a closed piece settles to, of the height that the quick profile predicts: with round ends (measured on balls, eggs
and capsules), and with a flat one, which bulges more (measured on cones and cylinders)."""

TRIES = 5
DAMPED = 0.5
"""How much of a miss is made up for after the first try: whole rounds come and go, and would do so to and fro."""

LEAST, MOST = 0.6, 1.6
"""Bounds of the stretch."""


@dataclass(frozen=True, slots=True)
class Drawn:
    """Rings of an outline and the counts chosen for them. off: miss of height and width, in units of what is allowed."""

    rings: Rings
    counts: tuple[int, ...]
    high: float
    wide: float
    off: float


def true_to_size(form: Form, gauge: Gauge, start: int, simplicity: float) -> tuple[Rings, tuple[int, ...]]:
    """Rings and counts of a body of revolution that comes out as high and as wide as it is drawn."""
    outline = form.outline
    assert outline is not None
    tall, broad = 1.0, 1.0
    best: Drawn | None = None
    for attempt in range(TRIES):
        found = _drawn(form, outline, gauge, start, simplicity, (tall, broad))
        if best is None or found.off < best.off:
            best = found
        if found.off <= NEAR_ENOUGH:
            break
        part = DAMPED if attempt else 1.0
        tall = min(max(tall / found.high**part, LEAST), MOST)
        broad = min(max(broad / found.wide**part, LEAST), MOST)
    assert best is not None
    return best.rings, best.counts


def _drawn(
    form: Form, outline: Outline, gauge: Gauge, start: int, simplicity: float, stretch: tuple[float, float]
) -> Drawn:
    stretched = outline if stretch == (1.0, 1.0) else Outline.through(outline.r * stretch[1], outline.z * stretch[0])
    rings = rings_of(form, gauge, start, stretched)
    true = [float(n) for n in rings.stitches]
    counts = best_counts(true, start, simplicity, closed=not form.open)
    if not form.open:
        counts = evened(counts, true, mirrored=form.mirrored_ends)
    high, wide = _predicted(counts, gauge, outline, closed=not form.open)
    allowed = max(CLOSE, gauge.round_mm / 2 / _height(outline)), max(CLOSE, gauge.round_mm / 2 / _width(outline))
    return Drawn(rings, counts, high, wide, max(abs(high - 1) / allowed[0], abs(wide - 1) / allowed[1]))


def _height(outline: Outline) -> float:
    return float(outline.z.max() - outline.z.min())


def _width(outline: Outline) -> float:
    return 2 * float(outline.r.max())


def _predicted(counts: Sequence[int], gauge: Gauge, outline: Outline, *, closed: bool) -> tuple[float, float]:
    """Height and width that a piece is predicted to have, as shares of those that are drawn."""
    profile = inflated_profile(counts, gauge, closed=closed)
    settles = 1.0 if not closed else FLAT_SETTLES if outline.flat_end_mm() else ROUND_SETTLES
    return profile.height_mm * settles / _height(outline), profile.width_mm / _width(outline)
