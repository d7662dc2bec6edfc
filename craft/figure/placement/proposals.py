"""Where limbs are mostly put: places proposed by a part's name, never imposed.

Common practice from memory: sitting legs on the lines that cut the base into thirds from the
belly's centre, arms at the neck line, wings behind them, ears on the widest part, hats and hair
on the top, a tail low at the back, spines in its middle, nose and beak in the middle of the face.
"""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise


@dataclass(frozen=True, slots=True)
class Proposal:
    """A place on a host: round from 1, stitches from the front, both sides or one, degrees up; and why there."""

    round: int
    stitch: float
    paired: bool
    tilt: float
    why: str


_EAR = re.compile(r"(?i)\b(ear|horn|antler|feeler|antenna|tuft)")
_ARM = re.compile(r"(?i)\b(arm|flipper|paddle)")
_WING = re.compile(r"(?i)\b(wing)")
_CROWN = re.compile(r"(?i)\b(hat|cap|bonnet|beanie|hood|hair|wig|crest|comb|crown|fringe|tassel|pompon|pom)")
_BEAK = re.compile(r"(?i)\b(beak|bill)")
_SPINE = re.compile(r"(?i)\b(spine|spike|fin|plate|hump|shell|backpack|cape)")
_BIB = re.compile(r"(?i)\b(belly|bib|patch|tummy|chest|scarf|collar|bow)")
_LEG = re.compile(r"(?i)\b(leg|foot|feet|paw)")
_TAIL = re.compile(r"(?i)\b(tail)")
_HEAD = re.compile(r"(?i)\b(head)")
_NOSE = re.compile(r"(?i)\b(nose|snout|muzzle|face)")
ON_THE_HEAD = (_EAR, _CROWN, _BEAK, _NOSE)
"""Names of what mostly sits on a head, where there is one."""


def is_head(name: str) -> bool:
    """Whether a part is a head by its name."""
    return bool(_HEAD.search(name))


def sits_on_head(name: str) -> bool:
    """Whether a part by its name mostly sits on the head."""
    return any(kind.search(name) for kind in ON_THE_HEAD)


def swings_when_sitting(name: str, seat: str, height: float) -> bool:
    """Whether a part is a leg whose seam bends: pinched flat, or with nothing said; an open ring stands stiff.

    height: of its seat on the host, 0 at R1 to 1. A paw on the chest is an arm.
    """
    return bool(_LEG.search(name)) and seat in ("", "pinched") and height < 0.4


DOWN = -90.0
"""Degrees above level at which legs of a standing figure point."""

HANGS = -35.0
"""The same of arms: they hang, and stay clear of the body."""

UPRIGHT = 65.0
"""The same of ears."""

STEEPEST = 6.0
"""Stitches that a round gains where stuffed fabric lies level: 2π rounds' heights, over a stitch's width."""

FELT = 1.6
"""Rounds away at which shaping still tells in the slope of stuffed fabric. Settled bodies of four shapes have their normals
within 4 degrees of the estimate in the mean, 14 at most (`test_leaning`)."""


def normal_above_level(counts: Sequence[int], index: int) -> float:
    """Degrees above level at which a stuffed part's surface looks out at a round from 0, R1 at the foot: downwards, less
    than 0, where its rounds grow. Estimated from the counts alone."""
    gains = [counts[0], *(b - a for a, b in pairwise(counts))]
    weights = [math.exp(-(((k - index - 0.5) / FELT) ** 2) / 2) for k in range(len(gains))]
    slope = sum(g * w for g, w in zip(gains, weights, strict=True)) / sum(weights)
    return -math.degrees(math.asin(max(-1.0, min(1.0, slope / STEEPEST))))


def _tilt_to(above_level: float, counts: Sequence[int], index: int) -> float:
    """The tilt off the surface that lets a part point so, to 5 degrees."""
    tilt = above_level - normal_above_level(counts, index)
    return float(max(-90, min(90, 5 * round(tilt / 5))))


def usual_tilt(name: str, counts: Sequence[int], round_: int, *, from_top: bool = False) -> float:
    """By how much a part of a name mostly leans at a round of a host, from 1, wherever that is. from_top: as in
    `propose_seat`."""
    if from_top:
        return -usual_tilt(name, tuple(reversed(counts)), len(counts) + 1 - round_)
    index = min(max(round_, 1), len(counts)) - 1
    if _HEAD.search(name) or _CROWN.search(name):
        return 0.0
    points = UPRIGHT if _EAR.search(name) else HANGS if _ARM.search(name) else DOWN if _LEG.search(name) else None
    if points is None:
        return 10.0 if _TAIL.search(name) else 0.0
    return _tilt_to(points, counts, index)


def propose_seat(name: str, counts: Sequence[int], *, sitting: bool = False, from_top: bool = False) -> Proposal:
    """A place for a part called `name` on a host whose rounds have `counts` stitches.

    from_top: the host's R1 is its top, as of a head whose last round is sewn on the body; else it is the foot.
    """
    if from_top:
        found = propose_seat(name, tuple(reversed(counts)), sitting=sitting)
        return replace(found, round=len(counts) + 1 - found.round, tilt=-found.tilt)
    many = len(counts)
    peak = max(counts)
    widest = max(i for i, n in enumerate(counts) if n == peak)
    neck = next((i for i in range(widest, many) if counts[i] < 0.85 * peak), many - 1)

    def at(index: int, share: float, *, paired: bool, tilt: float, why: str) -> Proposal:
        index = min(max(index, 0), many - 1)
        return Proposal(index + 1, round(counts[index] * share * 2) / 2, paired, tilt, why)

    if _HEAD.search(name):
        return at(many - 1, 0.0, paired=False, tilt=0.0, why="a head sits on the top")
    if _CROWN.search(name):
        return at(many - 1, 0.0, paired=False, tilt=0.0, why="a hat and hair sit on the top")
    if _EAR.search(name):
        index = min(neck, many - 2)
        tilt = usual_tilt(name, counts, index + 1)
        return at(index, 0.22, paired=True, tilt=tilt, why="ears sit just above the widest part")
    if _WING.search(name):
        return at(neck - 1, 0.36, paired=True, tilt=0.0, why="wings sit behind the arms, at the neck line")
    if _SPINE.search(name):
        return at(widest, 0.5, paired=False, tilt=0.0, why="the middle of the back")
    if _BEAK.search(name):
        return at(widest, 0.0, paired=False, tilt=0.0, why="a beak sits in the middle of the face")
    if _ARM.search(name):
        tilt = usual_tilt(name, counts, neck)
        return at(neck - 1, 0.25, paired=True, tilt=tilt, why="arms sit at the neck line")
    if _LEG.search(name):
        low = next((i for i, n in enumerate(counts) if n >= 0.75 * peak), 0)
        tilt, why = (
            (-5.0, "sitting legs lie on the lines that cut the base into thirds")
            if sitting
            else (usual_tilt(name, counts, low + 1), "legs stand under the body")
        )
        return at(low, 1 / 6, paired=True, tilt=tilt, why=why)
    if _TAIL.search(name):
        return at(many // 4, 0.5, paired=False, tilt=10.0, why="a tail sits low at the back")
    if _NOSE.search(name):
        return at(widest, 0.0, paired=False, tilt=0.0, why="the middle of the face")
    if _BIB.search(name):
        low = next((i for i, n in enumerate(counts) if n >= 0.9 * peak), widest)
        return at((low + widest) // 2, 0.0, paired=False, tilt=0.0, why="the middle of the belly")
    return at(widest, 0.0, paired=False, tilt=0.0, why="the middle of the front, on the widest round")


def clear_of(found: Proposal, counts: Sequence[int], taken: Sequence[tuple[int, float]]) -> Proposal:
    """The proposal, or the nearest place to it that nothing sits on. taken: (round, stitches from the front) of others on
    the same host; a pair sits on both sides."""
    for step in (0, 3, -3, 6, -6, 9, -9):
        round_ = found.round + step
        if not 1 <= round_ <= len(counts):
            continue
        stitch = found.stitch / max(counts[found.round - 1], 1) * counts[round_ - 1]
        stitch = round(stitch * 2) / 2
        if not any(
            _near((round_, s), other, counts) for other in taken for s in {stitch, -stitch if found.paired else stitch}
        ):
            why = (
                found.why
                if not step
                else f"{found.why}; that place is taken, so a little {'higher' if step > 0 else 'lower'}"
            )
            return replace(found, round=round_, stitch=stitch, why=why)
    return found


NEAR_ROUNDS, NEAR_SHARE = 2, 0.09
"""Within as many rounds, and as much of the way around, two places are one."""


def _near(a: tuple[int, float], b: tuple[int, float], counts: Sequence[int]) -> bool:
    if abs(a[0] - b[0]) > NEAR_ROUNDS:
        return False
    shares = [stitch / max(counts[min(row, len(counts)) - 1], 1) for row, stitch in (a, b)]
    away = abs(shares[0] - shares[1]) % 1
    return min(away, 1 - away) < NEAR_SHARE
