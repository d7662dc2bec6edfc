"""Runs rounds over the live edge: tallies, stitch graph, and every disagreement with its verdict."""

from craft.fabric.check import Checked, check, run_pattern
from craft.fabric.dryrun import Movement, movements, place_of
from craft.fabric.edges import Piece, singular
from craft.fabric.graph import ARRAYS, KIND_KEYS, LOOP_ORDER, EdgeKind, StitchGraph
from craft.fabric.hook import Tally, WorkedStep
from craft.fabric.laying import Hole
from craft.fabric.run import MAIN_COLOUR, WorkedPart, run_part
from craft.fabric.said import repeats_said
from craft.fabric.threads import Thread

__all__ = [
    "ARRAYS",
    "KIND_KEYS",
    "LOOP_ORDER",
    "MAIN_COLOUR",
    "Checked",
    "EdgeKind",
    "Hole",
    "Movement",
    "Piece",
    "StitchGraph",
    "Tally",
    "Thread",
    "WorkedPart",
    "WorkedStep",
    "check",
    "movements",
    "place_of",
    "repeats_said",
    "run_part",
    "run_pattern",
    "singular",
]
