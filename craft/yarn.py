"""Yarn and hooks: weight classes, wraps per inch, strands held together, hook sizes.

Weight classes 0 to 7: Craft Yarn Council, Standard Yarn Weight System; wraps and hook names are
common practice. All figures are quoted from memory.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from craft.errors import CraftError, require
from craft.units import MM_PER_INCH


@dataclass(frozen=True, slots=True)
class WeightClass:
    """A published class: single crochets per 4 inches, hook in mm, wraps per inch, as (least, most).

    Class 0 is published in double crochets, so it has no `stitches`. `None` at an end is open.
    """

    number: int
    name: str
    wraps: tuple[float, float]
    hook_mm: tuple[float, float | None] | None
    stitches: tuple[int | None, int] | None


WEIGHT_CLASSES: tuple[WeightClass, ...] = (
    WeightClass(0, "Lace", (30, 40), None, None),
    WeightClass(1, "Super fine", (14, 30), (2.25, 3.5), (21, 32)),
    WeightClass(2, "Fine", (12, 18), (3.5, 4.5), (16, 20)),
    WeightClass(3, "Light", (11, 15), (4.5, 5.5), (12, 17)),
    WeightClass(4, "Medium", (9, 12), (5.5, 6.5), (11, 14)),
    WeightClass(5, "Bulky", (6, 9), (6.5, 9.0), (8, 11)),
    WeightClass(6, "Super bulky", (5, 6), (9.0, 15.0), (7, 9)),
    WeightClass(7, "Jumbo", (1, 4), (15.0, None), (None, 6)),
)

HOOKS: tuple[tuple[float, str | None], ...] = (
    (1.5, None),
    (1.75, None),
    (2.0, None),
    (2.25, "B-1"),
    (2.5, None),
    (2.75, "C-2"),
    (3.0, None),
    (3.25, "D-3"),
    (3.5, "E-4"),
    (3.75, "F-5"),
    (4.0, "G-6"),
    (4.5, "7"),
    (5.0, "H-8"),
    (5.5, "I-9"),
    (6.0, "J-10"),
    (6.5, "K-10½"),
    (8.0, "L-11"),
    (9.0, "M/N-13"),
    (10.0, "N/P-15"),
    (12.0, None),
    (15.0, "P/Q"),
)
"""Hooks in millimetres with their US name, None where there is none."""


def weight_class(number: int) -> WeightClass:
    """The class of a number from 0 to 7."""
    require(
        isinstance(number, int) and 0 <= number < len(WEIGHT_CLASSES),
        "A weight class is a number from 0 to 7.",
        field="class",
    )
    return WEIGHT_CLASSES[number]


def hook_name(mm: float) -> str:
    """A hook as it is printed: '3.5 mm (E-4)', or millimetres alone where no US name exists."""
    name = next((us for size, us in HOOKS if abs(size - mm) < 0.01), None)
    return f"{mm:g} mm ({name})" if name else f"{mm:g} mm"


def combined_wraps(*wraps: float) -> float:
    """Wraps per inch of strands held together: 1 / sqrt(sum of 1 / a²), their cross-sections added."""
    require(
        bool(wraps) and all(math.isfinite(w) and 0 < w <= 100 for w in wraps),
        "Wraps per inch lie above 0 and up to 100.",
        field="wpi",
    )
    return 1 / math.sqrt(sum(1 / w**2 for w in wraps))


def diameter_mm(wraps: float) -> float:
    """Yarn diameter in mm from wraps per inch."""
    return MM_PER_INCH / combined_wraps(wraps)


def wraps_of_class(number: int) -> float:
    """A class's middle wraps per inch: the geometric mean of its published ends."""
    low, high = weight_class(number).wraps
    return math.sqrt(low * high)


@dataclass(frozen=True, slots=True)
class Yarn:
    """What is known of a yarn; `wraps` or `weight` must be given. Lengths and weights are of a skein."""

    name: str
    weight: int | None = None
    wraps: float | None = None
    strands: int = 1
    plush: bool = False
    skein_m: float | None = None
    skein_g: float | None = None

    def __post_init__(self) -> None:
        if self.weight is None and self.wraps is None:
            raise CraftError(f"{self.name}: give its wraps per inch or its weight class.", field="wraps")
        require(1 <= self.strands <= 6, "One to six strands are held together.", field="strands")

    @property
    def wraps_together(self) -> float:
        """Wraps per inch of all its strands held together."""
        wraps = self.wraps if self.wraps is not None else wraps_of_class(self.weight or 0)
        return combined_wraps(*([wraps] * self.strands))

    @property
    def measured(self) -> bool:
        """Whether the wraps were counted rather than taken from the class."""
        return self.wraps is not None

    @property
    def diameter_mm(self) -> float:
        """Diameter of all strands together, in mm."""
        return MM_PER_INCH / self.wraps_together


def held_together(one: Yarn, other: Yarn) -> Yarn:
    """Two different yarns worked as one: their cross-sections add up. Skeins are of no one yarn any more."""
    name = f"{one.name} and {other.name}"
    return Yarn(name, wraps=combined_wraps(one.wraps_together, other.wraps_together), plush=one.plush or other.plush)
