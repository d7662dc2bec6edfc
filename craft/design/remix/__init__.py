"""From one figure to another: differences between designs, merging, pieces and grafts (docs/bases.md)."""

from craft.design.remix.applying import applied
from craft.design.remix.changes import Change, Difference, Kind
from craft.design.remix.difference import difference
from craft.design.remix.merging import Conflict, Merge, in_terms, merged
from craft.design.remix.stored import read_difference

__all__ = [
    "Change",
    "Conflict",
    "Difference",
    "Kind",
    "Merge",
    "applied",
    "difference",
    "in_terms",
    "merged",
    "read_difference",
]
