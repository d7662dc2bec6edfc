"""Parts on parts: places on the settled figure, eyes, seats, balance, order of work."""

from craft.placement.balance import Balance, balance, necks
from craft.placement.centre import CentreLine, Drift, centre_line, drift, expressed, kept
from craft.placement.directions import (
    EyeDirection,
    EyeWords,
    eye_direction,
    find_direction,
    round_for_eyes,
    said_anew,
    with_direction,
)
from craft.placement.eyes import SOLD_MM, EyePlace, Eyes, Warned, place_eyes, propose, washer_mm
from craft.placement.order import Job, Misplaced, arranged, misplaced, room
from craft.placement.proposals import Proposal, propose_seat, swings_when_sitting
from craft.placement.seats import Posable, Seat, extent, place
from craft.placement.skin import Skin, eye_faces
from craft.placement.surface import Surface

__all__ = [
    "SOLD_MM",
    "Balance",
    "CentreLine",
    "Drift",
    "EyeDirection",
    "EyePlace",
    "EyeWords",
    "Eyes",
    "Job",
    "Misplaced",
    "Posable",
    "Proposal",
    "Seat",
    "Skin",
    "Surface",
    "Warned",
    "arranged",
    "balance",
    "centre_line",
    "drift",
    "expressed",
    "extent",
    "eye_direction",
    "eye_faces",
    "find_direction",
    "kept",
    "misplaced",
    "necks",
    "place",
    "place_eyes",
    "propose",
    "propose_seat",
    "room",
    "round_for_eyes",
    "said_anew",
    "swings_when_sitting",
    "washer_mm",
    "with_direction",
]
