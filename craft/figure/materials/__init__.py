"""Yarn, filling, tails and time that a figure takes."""

from craft.figure.materials.skein_plan import PieceNeed, Skein, SkeinPlan, skein_plan
from craft.figure.materials.use import (
    SKEIN_MARGIN,
    ColourUse,
    Tail,
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
    "PieceNeed",
    "Skein",
    "SkeinPlan",
    "Tail",
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
