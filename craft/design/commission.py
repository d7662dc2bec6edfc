"""What a commissioned figure costs: hours of work and yarn at her own rates, as an estimate."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.design.grading.together import Together
from craft.errors import require
from craft.gauge import Estimate

MOST_MONEY = 1_000_000.0


@dataclass(frozen=True, slots=True)
class Rates:
    """Money of one currency: an hour of work, 100 g of yarn, and all else together."""

    hour: float = 0.0
    yarn_100g: float = 0.0
    extra: float = 0.0

    def __post_init__(self) -> None:
        for field in ("hour", "yarn_100g", "extra"):
            most = f"A rate is from 0 to {MOST_MONEY:,.0f}."
            require(0 <= getattr(self, field) <= MOST_MONEY, most, field=field)


@dataclass(frozen=True, slots=True)
class Price:
    """price: money. hours: of work. grams: of yarn whose weight is known. unknown: names of the yarns whose is not, which
    the price leaves out."""

    price: Estimate
    hours: Estimate
    grams: Estimate
    unknown: tuple[str, ...]


def price_of(taken: Together, rates: Rates) -> Price:
    """The price of figures by what they take; its range is that of hours and yarn together, both at once low or high."""
    known = [y.grams for y in taken.yarns if y.grams is not None]
    grams = _sum(known, "weight of the yarn used")
    parts = [taken.hours.times(rates.hour), grams.times(rates.yarn_100g / 100)]
    whole = _sum(parts, "hours of work and yarn at her rates")
    extra = rates.extra
    price = Estimate(whole.value + extra, whole.low + extra, whole.high + extra, whole.how)
    return Price(price, taken.hours, grams, tuple(y.name for y in taken.yarns if y.grams is None))


def _sum(parts: Sequence[Estimate], how: str) -> Estimate:
    return Estimate(sum(p.value for p in parts), sum(p.low for p in parts), sum(p.high for p in parts), how)
