"""Yarn, filling, tails and time that a figure takes."""

from craft.figure.materials.skein_plan import PieceNeed, Skein, SkeinPlan, skein_plan
from craft.figure.materials.use import (
    SKEIN_MARGIN,
    ColourUse,
    Enough,
    Tail,
    enough,
    filling_g,
    filling_of,
    hours,
    length_per_unit,
    skeins,
    tail_mm,
    tails,
    used_together,
    yarn_use,
)

__all__ = [
    "SKEIN_MARGIN",
    "ColourUse",
    "Enough",
    "PieceNeed",
    "Skein",
    "SkeinPlan",
    "Tail",
    "enough",
    "filling_g",
    "filling_of",
    "hours",
    "length_per_unit",
    "skein_plan",
    "skeins",
    "tail_mm",
    "tails",
    "used_together",
    "yarn_use",
]
