"""From one figure to another: differences between designs, merging, pieces and grafts (docs/bases.md)."""

from craft.design.remix.adapting import adapter_counts, flat_growth
from craft.design.remix.applying import applied
from craft.design.remix.changes import Change, Difference, Kind
from craft.design.remix.compared import Beside, Comes, Comparison, PartsCompared, comes_of, compared, sums_said
from craft.design.remix.crediting import Credits, credit_line, credits_of
from craft.design.remix.difference import difference
from craft.design.remix.drawing import MOST_SEED, SLOTS, Drawn, Lot, drawn
from craft.design.remix.grafted import Grafted, grafted
from craft.design.remix.grafting import Adapt, Graft, graft
from craft.design.remix.merging import Conflict, Merge, in_terms, merged
from craft.design.remix.piece_stored import piece_json, piece_of_json, piece_written, read_piece, whole_piece
from craft.design.remix.pieces import PutIn, ShelfPiece, Slot, Use, piece_from, put_in
from craft.design.remix.ports import Cut, Port, ports_along, ports_of
from craft.design.remix.stored import read_difference
from craft.design.remix.telling import said
from craft.design.remix.worn import Worn, alone, worn_again, worn_of

__all__ = [
    "MOST_SEED",
    "SLOTS",
    "Adapt",
    "Beside",
    "Change",
    "Comes",
    "Comparison",
    "Conflict",
    "Credits",
    "Cut",
    "Difference",
    "Drawn",
    "Graft",
    "Grafted",
    "Kind",
    "Lot",
    "Merge",
    "PartsCompared",
    "Port",
    "PutIn",
    "ShelfPiece",
    "Slot",
    "Use",
    "Worn",
    "adapter_counts",
    "alone",
    "applied",
    "comes_of",
    "compared",
    "credit_line",
    "credits_of",
    "difference",
    "drawn",
    "flat_growth",
    "graft",
    "grafted",
    "in_terms",
    "merged",
    "piece_from",
    "piece_json",
    "piece_of_json",
    "piece_written",
    "ports_along",
    "ports_of",
    "put_in",
    "read_difference",
    "read_piece",
    "said",
    "sums_said",
    "whole_piece",
    "worn_again",
    "worn_of",
]
