"""Parts on parts: places on the settled figure, eyes, seats, balance, order of work."""

from craft.figure.placement.balance import Balance, balance, necks
from craft.figure.placement.bending import bent
from craft.figure.placement.centre import CentreLine, Drift, centre_line, drift, round_and_stitch, share_and_angle
from craft.figure.placement.drooping import droop
from craft.figure.placement.eyes import SOLD_MM, EyePlace, Eyes, Warned, place_eyes, propose, washer_mm
from craft.figure.placement.flaps_hanging import hanging_flaps
from craft.figure.placement.laid_over import LaidOver, laid_over
from craft.figure.placement.order import Job, Misplaced, arranged, misplaced, puts_in_wire, room
from craft.figure.placement.patches import Patch, patch_on
from craft.figure.placement.posture import hung_by, hung_up, laid_down
from craft.figure.placement.proposals import (
    Proposal,
    clear_of,
    is_head,
    propose_seat,
    sits_on_head,
    swings_when_sitting,
    usual_tilt,
)
from craft.figure.placement.seats import MOST_BENT, Bend, Posable, Seat, Towards, extent, place
from craft.figure.placement.skin import Skin, eye_faces
from craft.figure.placement.stages import Stages, stages_of
from craft.figure.placement.surface import Foot, Surface, shown_flaps
from craft.figure.placement.taken_in import limbs_posed
from craft.figure.placement.touching import give_way
from craft.figure.placement.unrolled import unrolled

__all__ = [
    "MOST_BENT",
    "SOLD_MM",
    "Balance",
    "Bend",
    "CentreLine",
    "Drift",
    "EyePlace",
    "Eyes",
    "Foot",
    "Job",
    "LaidOver",
    "Misplaced",
    "Patch",
    "Posable",
    "Proposal",
    "Seat",
    "Skin",
    "Stages",
    "Surface",
    "Towards",
    "Warned",
    "arranged",
    "balance",
    "bent",
    "centre_line",
    "clear_of",
    "drift",
    "droop",
    "extent",
    "eye_faces",
    "give_way",
    "hanging_flaps",
    "hung_by",
    "hung_up",
    "is_head",
    "laid_down",
    "laid_over",
    "limbs_posed",
    "misplaced",
    "necks",
    "patch_on",
    "place",
    "place_eyes",
    "propose",
    "propose_seat",
    "puts_in_wire",
    "room",
    "round_and_stitch",
    "share_and_angle",
    "shown_flaps",
    "sits_on_head",
    "stages_of",
    "swings_when_sitting",
    "unrolled",
    "usual_tilt",
    "washer_mm",
]
