"""Predicted sizes of a run part at a gauge, and the same counts in another yarn."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.figure import body
from craft.figure.placement import SOLD_MM
from craft.gauge import Estimate, Gauge
from craft.rounds.fabric import WorkedPart
from craft.shape.profile import Profile
from craft.units import positive

EYES_SOLD = SOLD_MM
"""Diameters of safety eyes that are sold, in mm."""


@dataclass(frozen=True, slots=True)
class PartSize:
    """Predicted outer size of one part with its likely range, in mm. profile: of its rounds, unrolled where it is coiled."""

    name: str
    height: Estimate
    width: Estimate
    stitches: int
    rounds: int
    profile: Profile


def profile_of(part: WorkedPart, gauge: Gauge, firmness: float = 0.5) -> Profile:
    """The profile of a whole run part as it lies."""
    return body.profile_of(part, [t for t in part.rounds if t.live > 0], gauge, firmness)


def part_size(part: WorkedPart, gauge: Gauge, firmness: float = 0.5) -> PartSize:
    """Size of a part at a gauge; the range is that of the gauge."""
    profile = profile_of(part, gauge, firmness)
    standing = body.profile_of(part, body.column_of(part), gauge, firmness)
    height, width = standing.height_mm, profile.width_mm
    if part.rolled is not None:
        coiled = body.body_of(part, gauge, firmness=firmness)
        height, width = coiled.height_mm, coiled.width_mm
    return PartSize(
        part.name or "",
        Estimate.around(height, gauge.spread, gauge.how),
        Estimate.around(width, gauge.spread, gauge.how),
        sum(t.made for t in part.rounds),
        len(part.rounds),
        profile,
    )


def sizes(parts: Sequence[WorkedPart], gauge: Gauge, firmness: float = 0.5) -> tuple[PartSize, ...]:
    """Size of every part."""
    return tuple(part_size(p, gauge, firmness) for p in parts)


def sold_eye(mm: float) -> int:
    """The eye that is sold nearest to a wished diameter, by proportion; the smaller one when between."""
    positive(mm, "An eye", most=200)
    return min(EYES_SOLD, key=lambda size: (max(size / mm, mm / size), size))
