"""Runs rounds over the live edge: tallies, stitch graph, and every disagreement with its verdict."""

from craft.fabric.check import Checked, check, run_pattern
from craft.fabric.graph import KIND_KEYS, LOOP_ORDER, StitchGraph
from craft.fabric.run import MAIN_COLOUR, Tally, WorkedPart, WorkedStep, run_part

__all__ = [
    "KIND_KEYS",
    "LOOP_ORDER",
    "MAIN_COLOUR",
    "Checked",
    "StitchGraph",
    "Tally",
    "WorkedPart",
    "WorkedStep",
    "check",
    "run_part",
    "run_pattern",
]
