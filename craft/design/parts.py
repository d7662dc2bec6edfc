"""A design's parts, yarns and gauge as she keeps them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum

from craft.errors import require
from craft.fitting.panels import PanelRecipe
from craft.gauge import ASSUMED, DEFAULT_LEAN, Gauge, corrected_by_samples, estimate_gauge, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR
from craft.shape.drafting import Recipe
from craft.units import positive, within
from craft.yarn import Yarn

MOST_PART_TEXT = 400_000
"""Code points of one part's rounds."""

MOST_MAKE = 50
MOST_STRANDS_HELD = 6
MOST_NAME = 60


def one_line(text: str, what: str, most: int, *, least: int = 1, field: str | None = None) -> None:
    """Refuse what is no single line of `least` to `most` code points; any script, any punctuation is welcome."""
    require(
        least <= len(text) <= most and text == text.strip() and text.isprintable(),
        f"{what} is one line of at most {most} characters.",
        field=field,
    )


@dataclass(frozen=True, slots=True)
class OwnHook:
    """The hook and strands that a part is worked with where they are not the figure's, in the yarn that it begins with.

    stitch_mm, round_mm: as measured on that hook, None where it is estimated.
    """

    hook_mm: float
    strands: int = 1
    stitch_mm: float | None = None
    round_mm: float | None = None

    def __post_init__(self) -> None:
        positive(self.hook_mm, "A hook", most=40, field="hook_mm")
        require(1 <= self.strands <= MOST_STRANDS_HELD, "From 1 to 6 strands are held together.", field="strands")
        both = (self.stitch_mm is None) == (self.round_mm is None)
        require(both, "A stitch's width and a round's height are measured together.", field="stitch_mm")
        if self.stitch_mm is not None and self.round_mm is not None:
            Gauge(self.stitch_mm, self.round_mm)  # says what is wrong with them


@dataclass(frozen=True, slots=True)
class Part:
    """A part: its key for life, name, number to make, the yarn it begins with, and its rounds as she typed them.

    recipe: how it was drafted, None when it was written by hand. drafted: its rounds are still the drafted ones.
    own_hook: None for a part that is worked as the figure is.
    """

    key: str
    name: str
    text: str = ""
    make: int = 1
    colour: str | None = None
    recipe: Recipe | PanelRecipe | None = None
    drafted: bool = False
    own_hook: OwnHook | None = None

    def __post_init__(self) -> None:
        one_line(self.key, "A part's key", 16, field="key")
        one_line(self.name, "A part's name", MOST_NAME, field="name")
        require(1 <= self.make <= MOST_MAKE, f"A part is made from 1 to {MOST_MAKE} times.", field="make")
        require(
            len(self.text) <= MOST_PART_TEXT,
            f"The rounds of one part are at most {MOST_PART_TEXT:,} characters.",
            field="text",
        )


@dataclass(frozen=True, slots=True)
class DesignYarn:
    """A yarn of the design, kept whole without the basket. colour: as #rrggbb. Lengths and weights are of a skein."""

    name: str
    colour: str
    weight: int
    wraps: float | None = None
    plush: bool = False
    skein_m: float | None = None
    skein_g: float | None = None

    def __post_init__(self) -> None:
        one_line(self.name, "A yarn's name", MOST_NAME, field="name")

    def strands(self, many: int) -> Yarn:
        """So many strands of it together."""
        return Yarn(self.name, self.weight, self.wraps, many, self.plush, self.skein_m, self.skein_g)


class GaugeFrom(StrEnum):
    """Where the gauge in force comes from."""

    ASSUMED = "assumed"
    ESTIMATE = "estimate"
    SWATCH = "swatch"
    OWN = "own"


@dataclass(frozen=True, slots=True)
class GaugeInForce:
    """Hook, strands and the gauge to reckon with. stitch_mm, round_mm: None unless measured or typed."""

    source: GaugeFrom = GaugeFrom.ASSUMED
    hook_mm: float | None = None
    strands: int = 1
    stitch_mm: float | None = None
    round_mm: float | None = None
    lean: float | None = None
    yarn_per_stitch_mm: float | None = None
    firmness: float = 0.5

    def __post_init__(self) -> None:
        within(self.firmness, "Filling", 0, 1, field="firmness")

    def gauge(self, yarn: DesignYarn | None) -> Gauge:
        """The gauge in force with `yarn`; assumed until a hook and a yarn, or measures, are given."""
        lean = DEFAULT_LEAN if self.lean is None else self.lean
        if self.source in (GaugeFrom.SWATCH, GaugeFrom.OWN) and self.stitch_mm and self.round_mm:
            measured = self.source is GaugeFrom.SWATCH
            how = "measured on your swatch" if measured else "as you typed it"
            return Gauge(self.stitch_mm, self.round_mm, lean, 0.03 if measured else 0.05, how)
        if self.source is not GaugeFrom.ASSUMED and yarn is not None and self.hook_mm:
            found = estimate_gauge(yarn.strands(self.strands), self.hook_mm)
            return Gauge(found.stitch_mm, found.round_mm, lean, found.spread, found.how)
        return ASSUMED

    def gauge_on(self, own: OwnHook, yarn: DesignYarn, main: DesignYarn | None) -> Gauge:
        """The gauge of a part on a hook of its own, in `yarn`: as measured there, else estimated; corrected as the figure's
        measured fabric differs from its own estimate, where that is known."""
        lean = DEFAULT_LEAN if self.lean is None else self.lean
        if own.stitch_mm is not None and own.round_mm is not None:
            return Gauge(own.stitch_mm, own.round_mm, lean, 0.05, "measured on the part's own hook")
        estimate = estimate_gauge(yarn.strands(own.strands), own.hook_mm)
        measured = self.source in (GaugeFrom.SWATCH, GaugeFrom.OWN) and self.stitch_mm and self.round_mm
        if measured and main is not None and self.hook_mm:
            sample = self.gauge(main), estimate_gauge(main.strands(self.strands), self.hook_mm)
            estimate = corrected_by_samples(estimate, [sample])
        return replace(estimate, lean=lean)

    def hook_to_yarn(self, yarn: DesignYarn | None) -> float | None:
        """Hook over yarn diameter, None while either is not known."""
        if yarn is None or not self.hook_mm:
            return None
        return fabric_outlook(yarn.strands(self.strands), self.hook_mm).ratio


def colours_of(yarns: tuple[DesignYarn, ...]) -> dict[str, str]:
    """Colours by the names that rounds use; the first yarn is also the main one."""
    colours = {y.name: y.colour for y in yarns}
    if yarns:
        colours.setdefault(MAIN_COLOUR, yarns[0].colour)
    return colours
