"""Sizes: predicted measures, the same counts in another yarn, another height in the same yarn."""

from craft.design.grading.measure import EYES_SOLD, PartSize, part_size, profile_of, sizes, sold_eye
from craft.design.grading.regrade import Regraded, proportional_scale, regrade

__all__ = [
    "EYES_SOLD",
    "PartSize",
    "Regraded",
    "part_size",
    "profile_of",
    "proportional_scale",
    "regrade",
    "sizes",
    "sold_eye",
]
