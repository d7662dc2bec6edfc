"""Changes to written rounds as a designer makes them on the ladder; lines that are not touched stay as typed."""

from craft.reshaping.changes import Change, Copy, Insert, Recolour, Rotate, Spread, Swap, Widen, reshape
from craft.reshaping.stitches import mirrored_body, rotated_body

__all__ = [
    "Change",
    "Copy",
    "Insert",
    "Recolour",
    "Rotate",
    "Spread",
    "Swap",
    "Widen",
    "mirrored_body",
    "reshape",
    "rotated_body",
]
