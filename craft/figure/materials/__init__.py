"""Yarn, filling, tails and time that a figure takes."""

from craft.figure.materials.use import (
    ColourUse,
    Tail,
    filling_g,
    filling_of,
    hours,
    length_per_unit,
    skeins,
    tail_mm,
    tails,
    yarn_use,
)

__all__ = [
    "ColourUse",
    "Tail",
    "filling_g",
    "filling_of",
    "hours",
    "length_per_unit",
    "skeins",
    "tail_mm",
    "tails",
    "yarn_use",
]
