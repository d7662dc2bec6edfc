"""A solid proposed for a part, by its name and by how much longer than wide it is drawn.

Common practice, no source: heads are balls, bodies eggs, limbs capsules, what is sewn on stays open, wings and leaves
lie flat. A proposal, never imposed.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from craft.errors import require

LEAST_MM, MOST_MM = 5.0, 600.0
ROUND, LONG = 1.15, 1.8
"""How much longer than wide a part may be to be a ball; from what on it is a capsule."""

_FLAT = re.compile(r"(?i)\b(wings?|lea(?:f|ves)|fins?|petals?|flags?|feathers?|capes?)\b")
_SEWN = re.compile(r"(?i)\b(ears?|horns?|antlers?|feelers?|tails?|noses?|snouts?|muzzles?|beaks?)\b")
_LIMB = re.compile(r"(?i)\b(arms?|legs?|paws?|feet|foot|flippers?|tentacles?|necks?|trunks?)\b")
_HAT = re.compile(r"(?i)\b(hats?|caps?|bonnets?|hoods?)\b")
_BODY = re.compile(r"(?i)\b(body|bodies|belly|torso)\b")


@dataclass(frozen=True, slots=True)
class Proposed:
    """A kind of solid, whether it is left open to be sewn on, whether it takes no filling; and why."""

    kind: str
    open: bool
    empty: bool
    why: str


def proposed_solid(name: str, wide_mm: float, tall_mm: float) -> Proposed:
    """What a part of that name and size is mostly made as. CraftError for a size that no part has."""
    for size, field in ((wide_mm, "wide_mm"), (tall_mm, "tall_mm")):
        require(LEAST_MM <= size <= MOST_MM, f"A part is from {LEAST_MM:g} to {MOST_MM:g} mm large.", field=field)
    if _FLAT.search(name):
        return Proposed("drop", True, True, "it lies flat, in two layers")
    if _HAT.search(name):
        return Proposed("dome", True, True, "it is worn, so it stays open and empty")
    if _SEWN.search(name):
        return Proposed("drop" if tall_mm > wide_mm else "dome", True, False, "it is sewn on by its opening")
    longer = max(tall_mm, wide_mm) / min(tall_mm, wide_mm)
    if _LIMB.search(name):
        return Proposed("capsule", True, False, "a limb is sewn on by its opening")
    if _BODY.search(name) and longer < LONG:
        return Proposed("egg", False, False, "a body is broader below")
    if longer <= ROUND:
        return Proposed("sphere", False, False, "it is as tall as it is wide")
    if tall_mm / wide_mm >= LONG:
        return Proposed("capsule", False, False, "it is much taller than wide")
    return Proposed("ellipsoid", False, False, "it is longer one way than the other")
