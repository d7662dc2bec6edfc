"""The centre line: where the start of the rounds wanders, and what brings it back."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from craft.errors import require
from craft.figure.placement.surface import Surface


@dataclass(frozen=True, slots=True)
class Drift:
    """How far the start has wandered by the end of a round.

    degrees: from where R1 began, positive in working direction (so negative for a right-hander).
    stitches: plain stitches that bring it back, 0 when it is less than half a stitch.
    """

    round: int
    degrees: float
    stitches: int


def drift(
    counts: Sequence[int], lean: float, *, left_handed: bool = False, inside_out: bool = False
) -> tuple[Drift, ...]:
    """Drift after every round: the sum of 2π·lean / n.

    lean: stitches a round, as the maker's own sample shows it. A left-hander's rounds run the other
    way, and so does her drift; inside out both change sides. In working direction all are alike, so
    degrees are mirrored for the eye only: positive is to the viewer's left.
    """
    require(all(c >= 0 for c in counts), "A round has no stitches or more.")
    mirrored = left_handed != inside_out
    angle = 0.0
    found: list[Drift] = []
    for at, n in enumerate(counts):
        if n and at:
            angle -= 2 * math.pi * lean / n
        back = -angle * n / (2 * math.pi)
        found.append(Drift(at + 1, math.degrees(-angle if mirrored else angle), max(math.floor(back + 0.5), 0)))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class CentreLine:
    """Nodes of a settled part along its front middle, and along the starts of its rounds, by round."""

    front: tuple[tuple[float, float, float], ...]
    starts: tuple[tuple[float, float, float], ...]


def centre_line(surface: Surface) -> CentreLine:
    """The two lines, from R1 up."""
    front, starts = [], []
    for at in range(surface.rounds):
        front.append(_point(surface.at_place(at, surface.front_place(at))))
        starts.append(_point(surface.x[surface.rings[at][0]]))
    return CentreLine(tuple(front), tuple(starts))


def _point(at: np.ndarray) -> tuple[float, float, float]:
    return round(float(at[0]), 2), round(float(at[1]), 2), round(float(at[2]), 2)


def _shares(heights: Sequence[float]) -> np.ndarray:
    """How far up the fabric each round's middle lies, 0 to 1."""
    h = np.maximum(np.asarray(heights, float), 1e-6)
    out: np.ndarray = (np.cumsum(h) - h / 2) / h.sum()
    return out


def round_and_stitch(counts: Sequence[int], heights: Sequence[float], share: float, angle: float) -> tuple[int, float]:
    """A place of the surface in rounds as they are now: round from 1, stitches from the front.

    heights: of the rounds, in any unit. share: how far up the fabric, 0 to 1. angle: in degrees from
    the front, in working direction.
    """
    at = int(np.argmin(np.abs(_shares(heights) - share)))
    return at + 1, angle / 360.0 * counts[at]


def share_and_angle(
    counts: Sequence[int], heights: Sequence[float], round_at: int, stitch: float
) -> tuple[float, float]:
    """The place of the surface that a round and a number of stitches from the front mean: share, degrees."""
    at = min(max(round_at, 1), len(counts)) - 1
    return float(_shares(heights)[at]), stitch / max(counts[at], 1) * 360.0
