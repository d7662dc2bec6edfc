"""The registry of stitches: what each takes, gives, needs and is called."""

from craft.rounds.stitches.entry import Language, Loops, Sign, Stitch, Terms
from craft.rounds.stitches.registry import MOST_INTO_ONE, MOST_TOGETHER, STITCHES, decrease_of, increase_of, stitch

__all__ = [
    "MOST_INTO_ONE",
    "MOST_TOGETHER",
    "STITCHES",
    "Language",
    "Loops",
    "Sign",
    "Stitch",
    "Terms",
    "decrease_of",
    "increase_of",
    "stitch",
]
