"""Where limbs are mostly put: places proposed by a part's name, never imposed.

Common practice from memory: sitting legs on the lines that cut the base into thirds from the
belly's centre, arms at the neck line, ears on the widest part, a tail low at the back, a nose in
the middle of the face.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Proposal:
    """A place on a host: round from 1, stitches from the front, both sides or one, degrees up; and why there."""

    round: int
    stitch: float
    paired: bool
    tilt: float
    why: str


_EAR = re.compile(r"(?i)\b(ear|horn|antler|feeler|antenna)")
_ARM = re.compile(r"(?i)\b(arm|wing|flipper)")
_LEG = re.compile(r"(?i)\b(leg|foot|feet|paw)")
_TAIL = re.compile(r"(?i)\b(tail)")
_HEAD = re.compile(r"(?i)\b(head)")
_NOSE = re.compile(r"(?i)\b(nose|snout|muzzle|face)")


def swings_when_sitting(name: str, seat: str, height: float) -> bool:
    """Whether a part is a leg whose seam bends: pinched flat, or with nothing said; an open ring stands stiff.

    height: of its seat on the host, 0 at R1 to 1. A paw on the chest is an arm.
    """
    return bool(_LEG.search(name)) and seat in ("", "pinched") and height < 0.4


def propose_seat(name: str, counts: Sequence[int], *, sitting: bool = False) -> Proposal:
    """A place for a part called `name` on a host whose rounds have `counts` stitches, R1 at the foot."""
    many = len(counts)
    peak = max(counts)
    widest = max(i for i, n in enumerate(counts) if n == peak)
    neck = next((i for i in range(widest, many) if counts[i] < 0.85 * peak), many - 1)

    def at(index: int, share: float, *, paired: bool, tilt: float, why: str) -> Proposal:
        index = min(max(index, 0), many - 1)
        return Proposal(index + 1, round(counts[index] * share * 2) / 2, paired, tilt, why)

    if _HEAD.search(name):
        return at(many - 1, 0.0, paired=False, tilt=0.0, why="a head sits on the top")
    if _EAR.search(name):
        return at(min(neck, many - 2), 0.22, paired=True, tilt=35.0, why="ears sit just above the widest part")
    if _ARM.search(name):
        return at(neck - 1, 0.25, paired=True, tilt=-35.0, why="arms sit at the neck line")
    if _LEG.search(name):
        low = next((i for i, n in enumerate(counts) if n >= 0.75 * peak), 0)
        tilt, why = (
            (-5.0, "sitting legs lie on the lines that cut the base into thirds")
            if sitting
            else (-60.0, "legs stand under the body")
        )
        return at(low, 1 / 6, paired=True, tilt=tilt, why=why)
    if _TAIL.search(name):
        return at(many // 4, 0.5, paired=False, tilt=10.0, why="a tail sits low at the back")
    if _NOSE.search(name):
        return at(widest, 0.0, paired=False, tilt=0.0, why="the middle of the face")
    return at(widest, 0.0, paired=False, tilt=0.0, why="the middle of the front, on the widest round")
