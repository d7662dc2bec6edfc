"""Runs rounds over the live edge: tallies, stitch graph, and every disagreement with its verdict."""

from craft.rounds.fabric.coils import Rolling
from craft.rounds.fabric.dryrun import Movement, movements, place_of
from craft.rounds.fabric.edges import Piece, find_piece, singular, stem
from craft.rounds.fabric.graph import ARRAYS, KIND_KEYS, LOOP_ORDER, EdgeKind, StitchGraph
from craft.rounds.fabric.hook import Tally, WorkedStep
from craft.rounds.fabric.laying import Hole
from craft.rounds.fabric.parts import run_pattern
from craft.rounds.fabric.run import MAIN_COLOUR, WorkedPart, run_part
from craft.rounds.fabric.said import repeats_said
from craft.rounds.fabric.threads import Thread

__all__ = [
    "ARRAYS",
    "KIND_KEYS",
    "LOOP_ORDER",
    "MAIN_COLOUR",
    "EdgeKind",
    "Hole",
    "Movement",
    "Piece",
    "Rolling",
    "StitchGraph",
    "Tally",
    "Thread",
    "WorkedPart",
    "WorkedStep",
    "find_piece",
    "movements",
    "place_of",
    "repeats_said",
    "run_part",
    "run_pattern",
    "singular",
    "stem",
]
