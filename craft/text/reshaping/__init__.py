"""Changes to written rounds as a designer makes them on the ladder; lines that are not touched stay as typed."""

from craft.text.reshaping.changes import reshape
from craft.text.reshaping.commands import (
    Change,
    CloseEnd,
    Copy,
    Decreases,
    Divide,
    Insert,
    Joining,
    OpenEnd,
    Recolour,
    Rotate,
    Spread,
    StartOn,
    Stripes,
    Swap,
    Widen,
)
from craft.text.reshaping.joining import Limb, add_shift, fold_flat, keep_sides, open_flat, take_out, work_in
from craft.text.reshaping.lines import is_folded, numberless, renumbered, with_repeat
from craft.text.reshaping.stitches import mirrored_body, rotated_body

__all__ = [
    "Change",
    "CloseEnd",
    "Copy",
    "Decreases",
    "Divide",
    "Insert",
    "Joining",
    "Limb",
    "OpenEnd",
    "Recolour",
    "Rotate",
    "Spread",
    "StartOn",
    "Stripes",
    "Swap",
    "Widen",
    "add_shift",
    "fold_flat",
    "is_folded",
    "keep_sides",
    "mirrored_body",
    "numberless",
    "open_flat",
    "renumbered",
    "reshape",
    "rotated_body",
    "take_out",
    "with_repeat",
    "work_in",
]
