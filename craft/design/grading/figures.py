"""What a size comes to: its measures, yarn, eyes, filling and hours, and what became of everything."""

from __future__ import annotations

from dataclasses import dataclass

from craft.design.design import Made
from craft.design.grading.bending import bends_at
from craft.design.grading.measure import PartSize, part_size
from craft.design.grading.report import Feature, notes_of
from craft.design.grading.sized import Sized, eye_at, figure_size, yarn_at
from craft.design.grading.washers import washers_at
from craft.design.joins import loose_copies
from craft.figure.materials import ColourUse, filling_of, hours, skeins
from craft.gauge import Estimate
from craft.rounds.fabric import MAIN_COLOUR


@dataclass(frozen=True)
class SizeFigures:
    """What a size comes to: its parts' measures, the figure's, and all it takes. skeins: None where not known."""

    parts: tuple[PartSize, ...]
    height: Estimate
    width: Estimate
    eye_mm: int | None
    yarns: tuple[tuple[ColourUse, int | None], ...]
    filling_g: Estimate
    hours: Estimate
    notes: tuple[str, ...]
    features: tuple[Feature, ...]


@dataclass(frozen=True, slots=True)
class Taught:
    """What makings measured of the first size, None for a length of which they taught nothing."""

    height: Made | None = None
    width: Made | None = None

    def at(self, sized: Sized, first: Sized) -> Taught:
        """What holds for a size, too: all of it where the same yarn is worked on the same hook, else nothing."""
        return self if sized.gauge == first.gauge else Taught()


def _as_made(made: Made | None, length: float, first: float, otherwise: Estimate) -> Estimate:
    """A length as makings came out, as much more or less as it is estimated at than the first size's."""
    if made is None or first <= 0:
        return otherwise
    how = f"from {made.makers} makings of this figure, by their median"
    return Estimate.around(made.of_mm * made.ratio * length / first, made.share, how)


def lengths_of(sized: Sized, first: Sized, taught: Taught) -> tuple[Estimate, Estimate]:
    """Width and height of a size: as makings measured it where what they taught holds for it, else the estimate."""
    (wide, tall), (wide_first, tall_first) = figure_size(sized), figure_size(first)
    spread, how = sized.gauge.spread, sized.gauge.how
    return (
        _as_made(taught.width, wide, wide_first, Estimate.around(wide, spread, how)),
        _as_made(taught.height, tall, tall_first, Estimate.around(tall, spread, how)),
    )


def report_of(sized: Sized) -> tuple[Feature, ...]:
    """What became of everything at a size: its parts, where they meet, washers, what bends."""
    return (*sized.features, *washers_at(sized), *bends_at(sized))


def figures_of(sized: Sized) -> SizeFigures:
    """Everything that the table of sizes says of one."""
    firmness = sized.design.gauge.firmness
    measures = tuple(part_size(p.worked, p.gauge, firmness) for p in sized.parts)
    loose = loose_copies(sized.worked)
    stuffed = [
        (loose[p.source.key], m.profile) for p, m in zip(sized.parts, measures, strict=True) if p.source.key in loose
    ]
    uses = yarn_at(sized)
    main = sized.yarn_named(MAIN_COLOUR)
    bought = [(use, sized.yarn_named(use.colour) or main) for use in uses]
    width, height = figure_size(sized)
    spread, how = sized.gauge.spread, sized.gauge.how
    features = report_of(sized)
    return SizeFigures(
        measures,
        Estimate.around(height, spread, how),
        Estimate.around(width, spread, how),
        eye_at(sized),
        tuple((use, skeins(use.metres, y.skein_m) if y and y.skein_m else None) for use, y in bought),
        filling_of(stuffed, firmness),
        hours(uses),
        (*notes_of(features), *_small_parts(sized)),
        features,
    )


def _small_parts(sized: Sized) -> tuple[str, ...]:
    return tuple(
        f"{p.source.name}: only {max(p.worked.counts)} stitches around; fiddly to work."
        for p in sized.parts
        if p.how in ("drafted", "resampled") and max(p.worked.counts) < 7
    )
