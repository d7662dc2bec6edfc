"""Sizes: predicted measures, the same counts in another yarn, another height in the same yarn."""

from craft.design.grading.measure import EYES_SOLD, PartSize, part_size, profile_of, sizes, sold_eye
from craft.design.grading.regrade import Regraded, proportional_scale, regrade
from craft.design.grading.sized import (
    PartAtSize,
    Sized,
    SizeFigures,
    at_size,
    design_at,
    figure_size,
    figures_of,
    first_size,
    scaled,
    yarn_at,
)

__all__ = [
    "EYES_SOLD",
    "PartAtSize",
    "PartSize",
    "Regraded",
    "SizeFigures",
    "Sized",
    "at_size",
    "design_at",
    "figure_size",
    "figures_of",
    "first_size",
    "part_size",
    "profile_of",
    "proportional_scale",
    "regrade",
    "scaled",
    "sizes",
    "sold_eye",
    "yarn_at",
]
