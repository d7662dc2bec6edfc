"""Targets to rounds: solids, rings, counts, spread."""

from craft.shape.drafting.around import said
from craft.shape.drafting.counts import best_counts
from craft.shape.drafting.draft import (
    LEAST_START,
    SIMPLICITY_PRESETS,
    Draft,
    Recipe,
    different_rounds,
    draft,
    prices,
    write_rounds,
)
from craft.shape.drafting.loops import Branch, BranchedError
from craft.shape.drafting.rings import Rings, rings_of, suggested_start
from craft.shape.drafting.sewn import MOST_SEWN, SewnThrough, Spot, spot_of
from craft.shape.drafting.short_rows import straightened
from craft.shape.drafting.spread import STAGGER_FROM, Shaping, shaped_round, shaped_rounds

__all__ = [
    "LEAST_START",
    "MOST_SEWN",
    "SIMPLICITY_PRESETS",
    "STAGGER_FROM",
    "Branch",
    "BranchedError",
    "Draft",
    "Recipe",
    "Rings",
    "SewnThrough",
    "Shaping",
    "Spot",
    "best_counts",
    "different_rounds",
    "draft",
    "prices",
    "rings_of",
    "said",
    "shaped_round",
    "shaped_rounds",
    "spot_of",
    "straightened",
    "suggested_start",
    "write_rounds",
]
