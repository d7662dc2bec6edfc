"""Measured against predicted: what makings say of the gauge, the yarn and the hours, with robust statistics that say from
how many makings they come.

Of one or two figures nothing is fitted: their figures are shown as they are. From three on the middle is the median of the
ratios and the spread comes from the median of the absolute deviations, times 1.4826 as for a normal distribution (Rousseeuw
and Croux, "Alternatives to the Median Absolute Deviation", 1993), so that one slip of the tape does not move it.
"""

from __future__ import annotations

import statistics
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from craft.design.design import Made
from craft.errors import require
from craft.gauge import Estimate
from craft.making.folding import Progress
from craft.making.happenings import Measure, Measured
from craft.making.worksheet import Worksheet

LEAST_MAKINGS = 3
"""Fewer are no statistics."""

NORMAL = 1.4826
LEAST_SHARE = 0.03
"""No estimate is surer than a tape and a hand are."""

FIT = (0.4, 2.5)
"""A ratio beyond says more about a slip of the pen, or of the unit, than about the figure."""


class Quantity(StrEnum):
    """What was predicted and measured."""

    HEIGHT = "height"
    WIDTH = "width"
    GIRTH = "girth"
    YARN = "yarn"
    HOURS = "hours"


@dataclass(frozen=True, slots=True)
class Pair:
    """One measurement beside its prediction, in mm, g or minutes. what: of which it is, in words. maker: whose it is.
    weight: class of the yarn it was made in, None unsaid. odd: so far off that it is shown and not reckoned with."""

    quantity: Quantity
    what: str
    maker: str
    predicted: float
    measured: float
    weight: int | None = None

    def __post_init__(self) -> None:
        require(self.predicted > 0 and self.measured > 0, "What is compared is more than nothing.")

    @property
    def ratio(self) -> float:
        """Measured to predicted."""
        return self.measured / self.predicted

    @property
    def odd(self) -> bool:
        """Whether the two are hardly of the same thing."""
        return not FIT[0] <= self.ratio <= FIT[1]


@dataclass(frozen=True, slots=True)
class Learned:
    """What all measurements of a quantity say. makers: how many different makings. ratio, share: the median of measured to
    predicted and its spread; None from fewer than three makings."""

    quantity: Quantity
    pairs: tuple[Pair, ...]
    makers: int
    ratio: float | None
    share: float | None

    def made(self, predicted_mm: float) -> Made | None:
        """What a length's makings taught, to be kept with the design; None of other quantities, and from too few.

        predicted_mm: what the design itself predicts; makers' own predictions go by the gauge of each.
        """
        if self.quantity not in (Quantity.HEIGHT, Quantity.WIDTH) or self.ratio is None or self.share is None:
            return None
        return Made(self.ratio, min(self.share, 1.0), self.makers, predicted_mm)

    def narrowed(self, predicted: Estimate) -> Estimate:
        """An estimate with what was learned in it: as it was while too few have made it."""
        if self.ratio is None or self.share is None:
            return predicted
        told = f"from {self.makers} makings, by their median"
        return Estimate.around(predicted.value * self.ratio, self.share, told)


def _pairs(sheet: Worksheet, progress: Progress, maker: str, weight: int | None) -> Iterator[Pair]:
    for told in progress.measured:
        what = told.event.what
        assert isinstance(what, Measured)
        predicted, said = _predicted(sheet, what)
        if predicted > 0:
            yield Pair(Quantity(what.what.value), said, maker, predicted, what.mm, weight)
    grams = {y.name: y.grams for y in sheet.yarns}
    for used in progress.used:
        known = grams.get(used.yarn)
        if known and used.grams > 0 and progress.finished:
            yield Pair(Quantity.YARN, used.yarn, maker, known, used.grams, weight)
    minutes = progress.report.minutes if progress.report and progress.report.minutes else progress.minutes
    if progress.finished and minutes > 0 and sheet.hours > 0:
        yield Pair(Quantity.HOURS, "time at work", maker, sheet.hours * 60, minutes, weight)


def pairs_of(
    sheet: Worksheet, progress: Progress, maker: str, *, measures_by: tuple[float, float] | None = None
) -> tuple[Pair, ...]:
    """All that a making measured and the edition predicts. measures_by: stitch and round of the maker's own gauge in mm, which
    lengths are then predicted by; None for the edition's. Yarn and time count only once it is finished."""
    weight = progress.report.weight if progress.report else None
    found = tuple(_pairs(sheet, progress, maker, weight))
    if measures_by is None:
        return found
    across, up = measures_by[0] / sheet.stitch_mm, measures_by[1] / sheet.round_mm
    by = {Quantity.HEIGHT: up, Quantity.WIDTH: across, Quantity.GIRTH: across}
    return tuple(
        Pair(p.quantity, p.what, p.maker, p.predicted * by.get(p.quantity, 1.0), p.measured, p.weight) for p in found
    )


def _predicted(sheet: Worksheet, what: Measured) -> tuple[float, str]:
    """What the edition says of a length, 0 where it says nothing; and what it is of, in words."""
    part = sheet.part(what.part)
    if what.what is Measure.GIRTH:
        rung = sheet.rung(what.part, what.round)
        if rung is None or part is None:
            return 0.0, ""
        return rung.count * sheet.stitch_mm, f"around {part.name} at {rung.label}"
    if what.part:
        return 0.0, ""
    if what.what is Measure.HEIGHT:
        return sheet.height_mm, "height of the figure"
    return sheet.width_mm, "width of the figure"


def learned(pairs: Iterable[Pair]) -> tuple[Learned, ...]:
    """What all makings say, a line for every quantity that anything was measured of."""
    by: dict[Quantity, list[Pair]] = {}
    for pair in pairs:
        by.setdefault(pair.quantity, []).append(pair)
    return tuple(_learned(q, by[q]) for q in Quantity if q in by)


def _learned(quantity: Quantity, pairs: Sequence[Pair]) -> Learned:
    by_maker: dict[str, list[float]] = {}
    for pair in pairs:
        if not pair.odd:
            by_maker.setdefault(pair.maker, []).append(pair.ratio)
    own = [statistics.median(ratios) for ratios in by_maker.values()]  # who measures often counts once
    if len(own) < LEAST_MAKINGS:
        return Learned(quantity, tuple(pairs), len(own), None, None)
    middle = statistics.median(own)
    scatter = NORMAL * statistics.median(abs(r - middle) for r in own) / middle
    return Learned(quantity, tuple(pairs), len(own), middle, min(max(2 * scatter, LEAST_SHARE), 0.6))


@dataclass(frozen=True, slots=True)
class Sample:
    """Makings as a sample of a gauge: so many stitches measure `across_mm`, so many rounds `up_mm`. told: where from."""

    stitches: float
    across_mm: float
    rounds: float
    up_mm: float
    told: str

    @property
    def stitch_mm(self) -> float:
        """Width of a stitch in mm."""
        return self.across_mm / self.stitches

    @property
    def round_mm(self) -> float:
        """Height of a round in mm."""
        return self.up_mm / self.rounds


SAMPLED = 20
"""Stitches and rounds that a sample is told by, as on a swatch."""


def sample_of(sheet: Worksheet, pairs: Sequence[Pair]) -> Sample | None:
    """What one making measured, as a sample of its gauge: girths and widths say how wide a stitch is, heights how high a
    round; what was not measured is taken in proportion. None where no length was measured.

    A figure is as wide and as high as its stitches are times what its shape makes of them, so its ratio is theirs.
    """
    fit = [p for p in pairs if not p.odd]
    girths = [p.ratio for p in fit if p.quantity is Quantity.GIRTH] or [
        p.ratio for p in fit if p.quantity is Quantity.WIDTH
    ]
    heights = [p.ratio for p in fit if p.quantity is Quantity.HEIGHT]
    if not girths and not heights:
        return None
    across = statistics.median(girths or heights)
    up = statistics.median(heights or girths)
    told = [f"{len(girths)} measured across"] if girths else []
    told += [f"{len(heights)} in height"] if heights else []
    rest = "" if girths and heights else "; the other in proportion"
    return Sample(
        SAMPLED,
        SAMPLED * sheet.stitch_mm * across,
        SAMPLED,
        SAMPLED * sheet.round_mm * up,
        f"{' and '.join(told)}{rest}",
    )
