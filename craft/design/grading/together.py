"""Several figures at once, each as often as it is made: a family, a mobile, a market stall. What they take together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import reduce

from craft.design.grading.figures import figures_of
from craft.design.grading.sized import Sized
from craft.design.parts import DesignYarn
from craft.errors import require
from craft.figure.materials import skeins
from craft.gauge import Estimate
from craft.rounds.fabric import MAIN_COLOUR

MOST_TIMES = 500


@dataclass(frozen=True, slots=True)
class YarnTogether:
    """A yarn of several figures. grams and skeins: None where nothing says what a skein holds."""

    name: str
    colour: str | None
    metres: Estimate
    stitches: int
    grams: Estimate | None
    skeins: int | None


@dataclass(frozen=True, slots=True)
class Together:
    """What figures take together. eyes: how many of each size in mm. notions: each once."""

    figures: int
    yarns: tuple[YarnTogether, ...]
    eyes: tuple[tuple[int, int], ...]
    filling_g: Estimate
    hours: Estimate
    notions: tuple[str, ...]


@dataclass
class _Sum:
    """A yarn under way."""

    yarn: DesignYarn | None
    metres: Estimate
    stitches: int = 0
    used: list[Estimate] = field(default_factory=list)


def together(figures: Sequence[tuple[Sized, int]]) -> Together:
    """What figures take, each so many times. Yarns of one name, colour and weight are one; their skeins are counted for
    all together. CraftError for none, or for a number of times that nobody makes."""
    require(bool(figures), "Choose at least one figure.", field="figures")
    for _, times in figures:
        require(1 <= times <= MOST_TIMES, f"A figure is made from 1 to {MOST_TIMES} times.", field="times")
    sums: dict[tuple[object, ...], _Sum] = {}
    eyes: dict[int, int] = {}
    filling: list[Estimate] = []
    hours: list[Estimate] = []
    notions: dict[str, None] = {}
    for sized, times in figures:
        found = figures_of(sized)
        for use, _ in found.yarns:
            yarn = sized.yarn_named(use.colour)
            key = (use.colour,) if yarn is None else (yarn.name, yarn.colour, yarn.weight, yarn.skein_m, yarn.skein_g)
            one = sums.setdefault(key, _Sum(yarn, use.metres))
            one.used.append(use.metres.times(times))
            one.stitches += use.stitches * times
        if found.eye_mm:
            eyes[found.eye_mm] = eyes.get(found.eye_mm, 0) + 2 * times
        filling.append(found.filling_g.times(times))
        hours.append(found.hours.times(times))
        notions |= dict.fromkeys(sized.design.printed.notions)
    yarns = tuple(sorted((_together(s) for s in sums.values()), key=lambda y: -y.metres.value))
    many = sum(times for _, times in figures)
    return Together(many, yarns, tuple(sorted(eyes.items())), _sum(filling), _sum(hours), tuple(notions))


def _together(one: _Sum) -> YarnTogether:
    yarn, metres = one.yarn, _sum(one.used)
    per_metre = None
    if yarn is not None and yarn.skein_m is not None and yarn.skein_g is not None:
        per_metre = yarn.skein_g / yarn.skein_m
    return YarnTogether(
        MAIN_COLOUR if yarn is None else yarn.name,
        None if yarn is None else yarn.colour,
        metres,
        one.stitches,
        None if per_metre is None else metres.times(per_metre),
        None if yarn is None or yarn.skein_m is None else skeins(metres, yarn.skein_m),
    )


def _sum(estimates: Sequence[Estimate]) -> Estimate:
    """Estimates of different things together: what all of them may be off by adds up."""
    return reduce(Estimate.plus, estimates)
