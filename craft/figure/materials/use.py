"""What a figure takes: metres and skeins of each colour, grams of filling, tails to leave.

Factors are common practice quoted from memory: a single crochet takes about 5.5 w + 2 h of yarn,
usual filling weighs 0.035 to 0.05 g/cm³, a tail is three times the seam and 15 cm.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from craft.errors import require
from craft.figure.settling import density_of
from craft.gauge import Estimate, Gauge
from craft.rounds.fabric import KIND_KEYS, WorkedPart
from craft.rounds.stitches import stitch
from craft.shape.profile import Profile
from craft.units import positive

UNCALIBRATED_SPREAD = 0.2
TAILS_SHARE = 0.15
SKEIN_MARGIN = 1.1
"""Bought over what is needed, so that the last foot is finished."""

STITCHES_AN_HOUR = 1_000
SEWING_SHARE = 0.5


@dataclass(frozen=True, slots=True)
class ColourUse:
    """Yarn of one colour: stitches made, stitch units (a single crochet is one), length in metres."""

    colour: str
    stitches: int
    units: float
    metres: Estimate

    def plus(self, other: ColourUse) -> ColourUse:
        """Both together."""
        return ColourUse(
            self.colour, self.stitches + other.stitches, self.units + other.units, self.metres.plus(other.metres)
        )


@dataclass(frozen=True, slots=True)
class Tail:
    """The yarn end to leave on each piece of a part."""

    part: str
    millimetres: float
    why: str


def length_per_unit(gauge: Gauge, measured_mm: float | None = None) -> Estimate:
    """Yarn in one single crochet, in mm: as weighed or unravelled, else 5.5 w + 2 h.

    measured_mm: length of yarn in one single crochet, from ten that were unravelled or from weighing.
    """
    if measured_mm is not None:
        return Estimate.around(positive(measured_mm, "Yarn in a stitch", most=2_000), 0.05, "measured on your swatch")
    share = math.hypot(UNCALIBRATED_SPREAD, gauge.spread)
    return Estimate.around(
        5.5 * gauge.stitch_mm + 2 * gauge.round_mm,
        min(share, 0.9),
        "about 5.5 stitch widths and 2 round heights a stitch",
    )


_FACTOR = np.array([stitch(k).yarn / max(stitch(k).gives, 1) for k in KIND_KEYS])


def yarn_use(parts: Sequence[WorkedPart], gauge: Gauge, measured_mm: float | None = None) -> tuple[ColourUse, ...]:
    """Yarn by colour over all pieces of all parts, tails included; most used first."""
    each = length_per_unit(gauge, measured_mm)
    stitches: dict[str, int] = {}
    units: dict[str, float] = {}
    for part in parts:
        for number, colour in enumerate(part.graph.colours):
            chosen = part.graph.colour == number
            stitches[colour] = stitches.get(colour, 0) + int(chosen.sum()) * part.make
            units[colour] = units.get(colour, 0.0) + float(_FACTOR[part.graph.kind[chosen]].sum()) * part.make
    uses = [
        ColourUse(c, stitches[c], units[c], each.times(units[c] * (1 + TAILS_SHARE) / 1000))
        for c in stitches
        if stitches[c]
    ]
    return tuple(sorted(uses, key=lambda u: -u.units))


def used_together(uses: Iterable[ColourUse]) -> tuple[ColourUse, ...]:
    """Yarn by colour over uses of several fabrics, most used first: what all of them may be off by adds up."""
    found: dict[str, ColourUse] = {}
    for use in uses:
        had = found.get(use.colour)
        found[use.colour] = use if had is None else had.plus(use)
    return tuple(sorted(found.values(), key=lambda u: -u.units))


class Enough(StrEnum):
    """Whether what is left of a yarn does for what is needed: surely, as the estimate has it, or not."""

    YES = "yes"
    MAYBE = "maybe"
    NO = "no"


def enough(needed: Estimate, left: float) -> Enough:
    """Whether what is left does, in whatever unit both are: surely where it covers the likely most."""
    require(left >= 0, "What is left is zero or more.", field="left_g")
    return Enough.YES if left >= needed.high else Enough.MAYBE if left >= needed.value else Enough.NO


def skeins(metres: Estimate, skein_m: float) -> int:
    """Whole skeins that cover the likely most, with a margin."""
    positive(skein_m, "Metres on a skein", most=100_000, unit="m", field="skein_m")
    return max(1, math.ceil(metres.value * SKEIN_MARGIN / skein_m), math.ceil(metres.high / skein_m))


def filling_g(volume_ml: float, firmness: float = 0.5) -> Estimate:
    """Filling in grams for a volume: 0.025 g/cm³ soft to 0.06 standing; usual is 0.035 to 0.05."""
    require(volume_ml >= 0, "A volume is zero or more.")
    require(0 <= firmness <= 1, "Firmness lies between 0 and 1.", field="firmness")
    density = density_of(firmness)
    return Estimate.around(volume_ml * density, 0.2, f"{density:.3f} g/cm³ of the estimated volume")


def tail_mm(seam_mm: float) -> float:
    """The tail that a seam takes: three times its length, and 15 cm (common practice, no source)."""
    return 3 * seam_mm + 150


def tails(parts: Sequence[WorkedPart], gauge: Gauge) -> tuple[Tail, ...]:
    """The tail to leave on each part: for its seam where it stays open, to weave in where it is closed."""
    found: list[Tail] = []
    for part in parts:
        if not part.rounds:
            continue
        seam = 0.0 if part.closed else part.rounds[-1].live * gauge.stitch_mm
        why = "to weave in" if part.closed else f"three times the seam of {part.rounds[-1].live} stitches, and 15 cm"
        found.append(Tail(part.name or "", tail_mm(seam), why))
    return tuple(found)


def filling_of(parts: Sequence[tuple[WorkedPart, Profile]], firmness: float = 0.5) -> Estimate:
    """Filling of all pieces together; what lies flat, in one layer or in two, takes none."""
    filled = ((part, profile) for part, profile in parts if not part.pressed and not part.leading_rows)
    return filling_g(sum(profile.volume_ml * part.make for part, profile in filled), firmness)


def hours(uses: Sequence[ColourUse]) -> Estimate:
    """Making time: about 1,000 stitches an hour with counting, half as much again for sewing."""
    stitches = sum(u.stitches for u in uses)
    return Estimate.around(stitches / STITCHES_AN_HOUR * (1 + SEWING_SHARE), 0.35, "1,000 stitches an hour, and sewing")
