"""From one figure to another: differences between designs, merging, pieces and grafts (docs/bases.md)."""

from craft.design.remix.adapting import adapter_counts, flat_growth
from craft.design.remix.applying import applied
from craft.design.remix.changes import Change, Difference, Kind
from craft.design.remix.compared import Beside, Comes, Comparison, PartsCompared, compared
from craft.design.remix.difference import difference
from craft.design.remix.grafted import Grafted, grafted
from craft.design.remix.grafting import Adapt, Graft, graft
from craft.design.remix.merging import Conflict, Merge, in_terms, merged
from craft.design.remix.ports import Cut, Port, ports_along, ports_of
from craft.design.remix.stored import read_difference
from craft.design.remix.telling import said

__all__ = [
    "Adapt",
    "Beside",
    "Change",
    "Comes",
    "Comparison",
    "Conflict",
    "Cut",
    "Difference",
    "Graft",
    "Grafted",
    "Kind",
    "Merge",
    "PartsCompared",
    "Port",
    "adapter_counts",
    "applied",
    "compared",
    "difference",
    "flat_growth",
    "graft",
    "grafted",
    "in_terms",
    "merged",
    "ports_along",
    "ports_of",
    "read_difference",
    "said",
]
