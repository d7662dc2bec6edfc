"""Gauge: how wide a stitch and how high a round is in the stuffed fabric, and how far it leans.

Estimates carry their spread and say how they came about. Formulas and spreads are common
practice quoted from memory: w = 0.84 (hook + yarn diameter), h = 0.92 w.
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from craft.errors import require
from craft.units import positive, within
from craft.yarn import HOOKS, WEIGHT_CLASSES, Yarn, held_together

STITCH_PER_LOOP = 0.84
ROUND_PER_STITCH = 0.92
LEAST_GAUGE_MM = 0.2
"""Stitches narrower, or rounds lower, than this are no crochet."""

STUFFING_STRETCH = 1.07
"""How much filling stretches the girth of a flat fabric (5 to 10 %)."""

DEFAULT_LEAN = 0.4
"""Stitches that the start of a spiral drifts a round, yarn over (0.3 to 0.5)."""


@dataclass(frozen=True, slots=True)
class Estimate:
    """A value with its likely range, and one sentence on where it comes from."""

    value: float
    low: float
    high: float
    how: str

    def __post_init__(self) -> None:
        require(self.low <= self.value <= self.high, "An estimate lies within its range.")

    @classmethod
    def around(cls, value: float, share: float, how: str) -> Estimate:
        """`value` give or take `share` of it."""
        return cls(value, value * (1 - share), value * (1 + share), how)

    def plus(self, other: Estimate) -> Estimate:
        """Estimates of two things together: what both may be off by adds up."""
        return Estimate(self.value + other.value, self.low + other.low, self.high + other.high, self.how)

    def times(self, factor: float) -> Estimate:
        """The estimate of `factor` as much."""
        return Estimate(self.value * factor, self.low * factor, self.high * factor, self.how)


@dataclass(frozen=True, slots=True)
class Gauge:
    """Stitch width and round height in mm of the stuffed fabric, lean in stitches a round.

    spread: share by which the widths may be off; 0.03 for a measured swatch.
    """

    stitch_mm: float
    round_mm: float
    lean: float = DEFAULT_LEAN
    spread: float = 0.2
    how: str = "assumed"

    def __post_init__(self) -> None:
        within(self.stitch_mm, "Stitch width", LEAST_GAUGE_MM, 60, unit="mm", field="stitch_mm")
        within(self.round_mm, "Round height", LEAST_GAUGE_MM, 120, unit="mm", field="round_mm")
        require(
            math.isfinite(self.lean) and -2 <= self.lean <= 2,
            "Lean lies between -2 and 2 stitches a round.",
            field="lean",
        )
        require(0 <= self.spread < 1, "The spread is a share below 1.", field="spread")

    @property
    def flat_growth(self) -> float:
        """Stitches by which a flat circle grows each round: 2π h / w."""
        return 2 * math.pi * self.round_mm / self.stitch_mm


ASSUMED = Gauge(5.6, 5.2, DEFAULT_LEAN, 0.25, "assumed for light yarn on a 3 mm hook until you give yours")
"""The gauge while none has been given."""


def estimate_gauge(yarn: Yarn, hook_mm: float) -> Gauge:
    """Gauge of `yarn` on a hook before any swatch; the spread depends on what is known."""
    positive(hook_mm, "A hook", most=40, field="hook_mm")
    width = STITCH_PER_LOOP * (hook_mm + yarn.diameter_mm)
    if yarn.plush:
        spread, known = 0.25, "plush measures too thick, so make a swatch"
    elif yarn.measured:
        spread, known = 0.12, "from counted wraps"
    else:
        spread, known = 0.20, "from the weight class alone"
    return Gauge(
        width,
        ROUND_PER_STITCH * width,
        DEFAULT_LEAN,
        spread,
        f"estimated {known}: 0.84 × (hook {hook_mm:g} mm + yarn {yarn.diameter_mm:.2f} mm)",
    )


def estimate_together(yarn: Yarn, other: Yarn | None, hook_mm: float) -> Gauge:
    """Gauge of a yarn, with another held together with it; no surer than that of the one that is less well known."""
    if other is None:
        return estimate_gauge(yarn, hook_mm)
    found = estimate_gauge(held_together(yarn, other), hook_mm)
    spread = max(found.spread, *(estimate_gauge(y, hook_mm).spread for y in (yarn, other)))
    return replace(found, spread=spread, how=f"{found.how}, both yarns together")


MOST_OFF = 1.6
"""A sample that lies further from its estimate says more about a slip in measuring than about her hand."""

LEAST_SPREAD = 0.06
"""An estimate is never as sure as a sample."""


def corrected_by_samples(estimate: Gauge, samples: Sequence[tuple[Gauge, Gauge]]) -> Gauge:
    """An estimate corrected by how she differs from it in the samples she has: (measured, estimated) each.

    The mean is that of ratios; their scatter, where there are two or more, is how sure it is. No samples: the estimate
    as it is.
    """
    near = [(m, e) for m, e in samples if max(m.stitch_mm / e.stitch_mm, e.stitch_mm / m.stitch_mm) <= MOST_OFF]
    if not near:
        return estimate
    wide = [math.log(m.stitch_mm / e.stitch_mm) for m, e in near]
    tall = [math.log(m.round_mm / e.round_mm) for m, e in near]
    across, up = (math.exp(sum(logs) / len(logs)) for logs in (wide, tall))
    scatter = 2 * statistics.stdev(wide) if len(wide) > 1 else estimate.spread / 2
    lean = statistics.mean(m.lean for m, _ in near)
    many = f"{len(near)} sample{'s' if len(near) > 1 else ''}"
    return Gauge(
        estimate.stitch_mm * across,
        estimate.round_mm * up,
        lean,
        min(estimate.spread, max(LEAST_SPREAD, scatter)),
        f"{estimate.how}; corrected by your {many}, which {_differ(across)}",
    )


def _differ(ratio: float) -> str:
    percent = round(100 * (ratio - 1))
    if not percent:
        return "came out as estimated"
    return f"came out {abs(percent)} % {'wider' if percent > 0 else 'narrower'} than estimated"


def gauge_from_swatch(
    stitches: float, across_mm: float, rounds: float, up_mm: float, lean: float = DEFAULT_LEAN
) -> Gauge:
    """Gauge from a flat swatch, stretched in girth as filling will do."""
    for value, name in ((stitches, "Stitches counted"), (rounds, "Rounds counted")):
        positive(value, name, most=10_000, unit="", field="count")
    width = positive(across_mm, "Width measured", most=5_000) / stitches * STUFFING_STRETCH
    return Gauge(
        width,
        positive(up_mm, "Height measured", most=5_000) / rounds,
        lean,
        0.05,
        "measured on a flat swatch; girth raised by 7 % for filling",
    )


def gauge_from_piece(
    girth_mm: float, stitches: int, stretch_mm: float, rounds: int, lean: float = DEFAULT_LEAN
) -> Gauge:
    """Gauge from a stuffed piece: girth over its count, straight stretch over its rounds."""
    for value, name in ((stitches, "Stitches in the girth"), (rounds, "Rounds in the stretch")):
        positive(value, name, most=10_000, unit="", field="count")
    return Gauge(
        positive(girth_mm, "Girth", most=5_000) / stitches,
        positive(stretch_mm, "Straight stretch", most=5_000) / rounds,
        lean,
        0.03,
        "measured on a stuffed piece",
    )


def lean_from_thread(drift_stitches: float, rounds: int) -> float:
    """Lean from a thread laid straight up: stitches the round's start wandered off it, a round."""
    positive(rounds, "Rounds of the thread", most=1_000, unit="", field="rounds")
    require(
        math.isfinite(drift_stitches) and abs(drift_stitches) <= 2 * rounds,
        "A round's start drifts by at most two stitches a round.",
        field="drift",
    )
    return drift_stitches / rounds


class FabricVerdict(StrEnum):
    """What a hook makes of a yarn."""

    STIFF = "stiff"
    RIGHT = "right"
    LOOSE = "loose"
    SHOWS = "shows"


@dataclass(frozen=True, slots=True)
class FabricOutlook:
    """Hook ÷ yarn diameter and what follows from it, in a sentence."""

    ratio: float
    verdict: FabricVerdict
    words: str


STUFFED = 1.35
"""Hook over yarn diameter for stuffed fabric: the middle of what is right (common practice)."""


def hook_for(yarn: Yarn) -> float:
    """The hook in mm, of those that are sold, that makes dense fabric of a yarn."""
    return min((mm for mm, _ in HOOKS), key=lambda mm: abs(mm / yarn.diameter_mm - STUFFED))


def fabric_outlook(yarn: Yarn, hook_mm: float) -> FabricOutlook:
    """Judge a hook for stuffed fabric: right from 1.2 to 1.5, filling shows above 1.7 (common practice)."""
    ratio = positive(hook_mm, "A hook", most=40, field="hook_mm") / yarn.diameter_mm
    if ratio < 1.2:
        return FabricOutlook(ratio, FabricVerdict.STIFF, "Stiff fabric that is hard on the hands: try a larger hook.")
    if ratio <= 1.5:
        return FabricOutlook(ratio, FabricVerdict.RIGHT, "Dense, even fabric that keeps its filling in.")
    if ratio <= 1.7:
        return FabricOutlook(
            ratio, FabricVerdict.LOOSE, "A little loose: light filling may glimmer through when stuffed firmly."
        )
    return FabricOutlook(ratio, FabricVerdict.SHOWS, "Filling will show: take a smaller hook or a second strand.")


AS_LARGE = 0.025
"""By which share stitches may be wider or narrower and still make a figure of the same size."""

MOST_STRANDS = 3


@dataclass(frozen=True, slots=True)
class Substitute:
    """A yarn by its class, with strands and hook, whose stitches are as wide by the estimate. off: share by which they are
    wider, less than 0 for narrower."""

    weight: int
    strands: int
    hook_mm: float
    off: float


def substitutes(gauge: Gauge) -> tuple[Substitute, ...]:
    """What makes a figure of the same size in fabric dense enough to be stuffed, the nearest first; one hook for each class
    and number of strands. All of it by the estimate for the class: a sample has to be made of any."""
    found: dict[tuple[int, int], Substitute] = {}
    for kind in WEIGHT_CLASSES:
        for strands in range(1, MOST_STRANDS + 1):
            yarn = Yarn(kind.name, weight=kind.number, strands=strands)
            for hook, _ in HOOKS:
                if fabric_outlook(yarn, hook).verdict is not FabricVerdict.RIGHT:
                    continue
                off = estimate_gauge(yarn, hook).stitch_mm / gauge.stitch_mm - 1
                before = found.get((kind.number, strands))
                if abs(off) <= AS_LARGE and (before is None or abs(off) < abs(before.off)):
                    found[kind.number, strands] = Substitute(kind.number, strands, hook, off)
    return tuple(sorted(found.values(), key=lambda s: (s.strands, abs(s.off))))


SAME_HAND = 0.08
"""By how large a share two samples of one hand in one yarn on one hook differ, and no more (common practice)."""

EXPLAINS = 0.03
"""How near another hook has to come to the difference, to be the likely reason of it."""


@dataclass(frozen=True, slots=True)
class Sample:
    """A measured sample: of what, on which hook as it is noted, and what it gave."""

    yarn: Yarn
    hook_mm: float
    gauge: Gauge


@dataclass(frozen=True, slots=True)
class Unlike:
    """A sample that differs from another of the same yarn on the same hook. share: by which its stitches are wider, less
    than 0 for narrower. hook_mm: the hook that explains it, None where none that is sold does."""

    share: float
    hook_mm: float | None


def unlike(sample: Sample, others: Sequence[Sample]) -> Unlike | None:
    """How far a sample lies from the median of the others of its yarn and hook; None where it is like them, or there is
    none. A stitch is as wide as hook and yarn together, so another hook explains a difference of its own size."""
    alike = [o.gauge.stitch_mm for o in others if o.yarn == sample.yarn and abs(o.hook_mm - sample.hook_mm) < 0.01]
    if not alike:
        return None
    share = sample.gauge.stitch_mm / statistics.median(alike) - 1
    if abs(share) <= SAME_HAND:
        return None
    thick = sample.yarn.diameter_mm
    shares = {mm: (mm + thick) / (sample.hook_mm + thick) - 1 for mm, _ in HOOKS if abs(mm - sample.hook_mm) > 0.01}
    near = min(shares, key=lambda mm: abs(shares[mm] - share))
    return Unlike(share, near if abs(shares[near] - share) <= EXPLAINS else None)
