"""Which scale a size asks for: a height of the figure or of a part, a count, a weight of yarn, a girth to fit."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from craft.design.grading.in_yarns import in_yarn
from craft.design.grading.measure import part_size
from craft.design.grading.report import Feature, State
from craft.design.grading.sized import PartAtSize, Sized, figure_size, scaled, yarn_at
from craft.design.size import Size, SizeKind
from craft.errors import CraftError
from craft.figure.materials import ColourUse
from craft.gauge import Estimate, Gauge

CLOSE = 0.002
"""How near a weight is met: a share of it."""

CLOSE_HEIGHT = 0.01
"""The same for a height, or half a round where that is more."""

TRIES = 9
HEIGHT_TRIES = 8
LEAST_SCALE, MOST_SCALE = 0.2, 5.0


def at_size(first: Sized, size: Size) -> Sized:
    """The first size of a design at another size; CraftError when it cannot be made so."""
    if not first.parts:
        raise CraftError("There are no rounds yet to be sized.")
    return in_yarn(first, size) if size.kind is SizeKind.YARN else asked_for(first, size)


def asked_for(first: Sized, size: Size) -> Sized:
    """The first size as large as `size` asks; CraftError names the field that is missing, or that cannot be met."""
    first = replace(first, apart=size.apart)
    match size.kind:
        case SizeKind.HEIGHT:
            wanted = _wanted(size.height_mm, "Type the height for this size.", "height_mm") * size.settled_share
            found = by_height(first, wanted, size)
            return easy_near(first, found.scale, size) if size.easy else found
        case SizeKind.COUNT:
            widest = max(_part(first, size).worked.counts)
            return scaled(first, _wanted(size.count, "Type how many stitches around.", "count") / widest)
        case SizeKind.FIT:
            part = _part(first, size)
            wanted = (_girth_to_fit(first, size) + size.ease_mm) * size.settled_share
            scale = wanted / girth_of(part)
            return scaled(first, scale, only=part.source.key if size.alone else None)
        case SizeKind.GRAMS:
            return by_weight(first, _wanted(size.grams, "Type how much yarn there is.", "grams"))
        case _:
            raise CraftError("Choose a yarn and a hook for this size.", field="yarn")


def _girth_to_fit(first: Sized, size: Size) -> float:
    """The girth that is typed, or that of the widest round of the part that is to be fitted, as it is now."""
    if size.across_mm is not None:
        return math.pi * _wanted(size.across_mm, "Type how wide it is.", "across_mm")
    if size.fits is None:
        return _wanted(size.girth_mm, "Type the girth that it is to fit.", "girth_mm")
    other = next((p for p in first.parts if p.source.key == size.fits), None)
    if other is None:
        raise CraftError("The part that it was to fit is gone, or has no rounds yet.", field="fits")
    if size.fits == size.part:
        raise CraftError("A part cannot be made to fit itself: choose another.", field="fits")
    return girth_around(other)


def girth_around(part: PartAtSize) -> float:
    """The girth in mm of a part where it is widest: what goes around it has to be as wide."""
    return float(max(part.worked.counts) * part.gauge.stitch_mm)


def _wanted(value: float | None, missing: str, field: str) -> float:
    if value is None or not value > 0:
        raise CraftError(missing, field=field)
    return value


NEAR_ENOUGH = 0.02
"""By how large a share a settled height may miss the one asked for before meeting it is offered."""

LEAST_SHARE, MOST_SHARE = 0.5, 2.0


@dataclass(frozen=True, slots=True)
class Wish:
    """What a size asks of the settled figure, in mm: its height, or that of the part with the key `part`; around: the
    girth of that part where it is widest."""

    mm: float
    part: str | None = None
    around: bool = False


def wish_of(first: Sized, size: Size, settled_girth_mm: float | None = None) -> Wish | None:
    """What the settled figure of a size is to measure; None where it asks for no measure, or for easy counts first.

    settled_girth_mm: of the part of the first size that is to be fitted, where it is settled.
    """
    if size.kind is SizeKind.HEIGHT and size.height_mm and not size.easy:
        return Wish(size.height_mm, size.part)
    if size.kind is SizeKind.FIT:
        girth = settled_girth_mm if size.fits is not None and settled_girth_mm else _girth_to_fit(first, size)
        return Wish(girth + size.ease_mm, _part(first, size).source.key, around=True)
    return None


def share_that_meets(size: Size, wish: Wish, settled_mm: float, gauge: Gauge) -> float | None:
    """By how much larger a size has to be estimated to settle to what is wished; None where it does already, to a
    fiftieth, half a round up or half a stitch around.

    settled_mm: what it settled to at the share it has now.
    """
    if settled_mm <= 0:
        return None
    step = gauge.stitch_mm if wish.around else gauge.round_mm
    if abs(settled_mm - wish.mm) <= max(NEAR_ENOUGH * wish.mm, step / 2):
        return None
    return min(max(size.settled_share * wish.mm / settled_mm, LEAST_SHARE), MOST_SHARE)


def by_height(first: Sized, wanted: float, size: Size) -> Sized:
    """The size whose figure (or part) comes nearest to a height: rounds are whole, so a scale alone may miss it.

    The scale is corrected by what came out, and halved into between one that is too small and one that is too large.
    """
    scale = wanted / _height(first, size)
    low, high = LEAST_SCALE, MOST_SCALE
    close = max(first.gauge.round_mm / 2, CLOSE_HEIGHT * wanted)
    best, missed = None, math.inf
    torn: Sized | None = None
    for _ in range(HEIGHT_TRIES):
        sized = scaled(first, scale)
        off = _height(sized, size) - wanted
        if _is_torn(first, sized):
            torn = sized
            low, high = (scale, high) if scale < 1 else (low, scale)
            scale = (scale + 1) / 2 if best is None else (low + high) / 2
            continue
        if abs(off) < missed:
            best, missed = sized, abs(off)
        if missed <= close:
            break
        low, high = (scale, high) if off < 0 else (low, scale)
        scale = scale * wanted / (wanted + off)
        if not low < scale < high:
            scale = (low + high) / 2
    if best is None:
        assert torn is not None
        return torn
    return best if torn is None or missed <= close else _as_near_as(best, torn, wanted, size)


MOST_STAYING = 0.25
"""The share of a figure's stitches that may stay as they are, before a size is none of the figure."""


def _is_torn(first: Sized, sized: Sized) -> bool:
    """Whether so much cannot be made at a size that the rest would be another figure."""
    made = {p.source.key: sum(t.made for t in p.worked.rounds) * p.worked.make for p in first.parts}
    stays = sum(made[p.source.key] for p in sized.parts if p.how == "not sized")
    return stays > MOST_STAYING * sum(made.values())


def _as_near_as(best: Sized, torn: Sized, wanted: float, size: Size) -> Sized:
    """The size nearest to a height that the figure can have, with a row that says what stands in the way."""
    reached = _height(best, size)
    why = next(f.why for p in torn.parts if p.how == "not sized" for f in p.features if f.kind == "part")
    why = why.removeprefix("It stays as it is. ")
    name = "Figure" if size.part is None else _part(best, size).source.name
    row = Feature(name, "height", State.CHANGED, f"{wanted / 10:.3g} cm asked for", f"{reached / 10:.3g} cm", why)
    return replace(best, joined=(*best.joined, row))


LEAST_RUN = 3
"""Heights of a run whose counts step evenly."""

EVEN_STEPS = 0.1
"""By how large a share the steps between the heights of a run may differ."""

LEAST_START = 4
"""Stitches of a first round of which others are multiples; below, six are taken."""


def easy_near(first: Sized, scale: float, size: Size) -> Sized:
    """The size nearest to a scale whose widest round is a multiple of its first one: '(3 sc, inc) x 6' all the way.

    In a run of heights that step evenly these multiples do, too: 24, 36, 48 and 60, and not 24, 36, 54 and 60.
    """
    counts = _part(first, size).worked.counts
    start = counts[0] if LEAST_START <= counts[0] <= max(counts) / 2 else 6
    wished = max(counts) * scale / start
    times = max(1, round(wished))
    if size.height_mm is not None and size.height_mm in size.among_mm:
        per_mm = max(counts) / start / _height(first, size)
        times = _evenly(per_mm, size.among_mm).get(size.height_mm, times)
    return scaled(first, times * start / max(counts))


def _evenly(per_mm: float, heights: Sequence[float]) -> Mapping[float, int]:
    """Multiples that step evenly, nearest to those that evenly stepping heights ask for; none for other heights.

    per_mm: multiples that a mm of height asks for.
    """
    run = np.unique(np.array(heights, float))
    steps = np.diff(run)
    if len(run) < LEAST_RUN or steps.max() - steps.min() > EVEN_STEPS * steps.mean():
        return {}
    wished = run * per_mm
    step = max(1, round(float(steps.mean() * per_mm)))
    rank = np.arange(len(run))
    first = max(1, round(float(np.mean(wished - step * rank))))
    return {float(h): int(n) for h, n in zip(run, first + step * rank, strict=True)}


def _height(sized: Sized, size: Size) -> float:
    if size.part is None:
        return figure_size(sized)[1]
    part = _part(sized, size)
    return part_size(part.worked, part.gauge, sized.design.gauge.firmness).height.value


def _part(first: Sized, size: Size) -> PartAtSize:
    """The part that a size is asked of: the one it names, else the widest."""
    if size.part is None:
        return max(first.parts, key=lambda p: max(p.worked.counts))
    found = next((p for p in first.parts if p.source.key == size.part), None)
    if found is None:
        raise CraftError("The part that this size was asked of is gone, or has no rounds yet.", field="part")
    return found


def girth_of(part: PartAtSize) -> float:
    """The girth in mm that goes into a part: of its open end, as a hat has one, else of its widest round."""
    worked = part.worked
    around = max(worked.counts) if worked.closed else worked.rounds[-1].live
    return float(around * part.gauge.stitch_mm)


def weight_of(sized: Sized) -> float:
    """Grams of yarn that a size takes; CraftError while no yarn says what a metre of it weighs."""
    per_metre = grams_per_metre(sized)
    main = next(iter(per_metre.values()), None)
    if main is None:
        raise CraftError("The yarn must say the metres and grams of a skein before its weight is known.", field="grams")
    return sum(use.metres.value * per_metre.get(use.colour, main) for use in yarn_at(sized))


def grams_per_metre(sized: Sized) -> Mapping[str, float]:
    """What a metre of each yarn weighs, of those that say it."""
    yarns = {y.name: sized.bought.get(y.name, y) for y in sized.design.yarns}
    return {n: y.skein_g / y.skein_m for n, y in yarns.items() if y.skein_m is not None and y.skein_g is not None}


def weight_of_use(sized: Sized, use: ColourUse) -> Estimate | None:
    """Grams of one colour at a size, None where its yarn does not say what a metre weighs."""
    yarn = sized.yarn_named(use.colour)
    if yarn is None or yarn.skein_m is None or yarn.skein_g is None:
        return None
    return use.metres.times(yarn.skein_g / yarn.skein_m)


def by_weight(first: Sized, grams: float) -> Sized:
    """The largest size that does not take more yarn than there is: yarn grows with the square of the scale."""
    low, high = LEAST_SCALE, MOST_SCALE
    scale = min(max(math.sqrt(grams / weight_of(first)), low), high)
    best: Sized | None = None
    for _ in range(TRIES):
        sized = scaled(first, scale)
        weighs = weight_of(sized)
        if weighs <= grams:
            best = sized if best is None or sized.scale > best.scale else best
            low = scale
        else:
            high = scale
        if abs(weighs - grams) < CLOSE * grams or high - low < 1e-3:
            break
        scale = (low + high) / 2
    if best is None:
        raise CraftError(f"{grams:g} g is less than the smallest size takes.", field="grams")
    return best
