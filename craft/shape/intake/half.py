"""Both sides of an outline as one half outline with a few handles."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]

HANDLES = 14
"""Most handles of a found outline, pole and end among them: few enough to take in hand."""

ENOUGH = 0.006
"""Share of the height by which the line through the handles may miss the outline."""

LOPSIDED = 0.12
"""Share of the half width by which an outline's middle may wander before it is said."""


@dataclass(frozen=True)
class HalfOutline:
    """handles: (half width, height above the pole). pole: where it lies. notes: what was evened out, in words."""

    handles: tuple[tuple[float, float], ...]
    pole: tuple[float, float]
    notes: tuple[str, ...]


def half_outline(rows: Vector, left: Vector, right: Vector) -> HalfOutline:
    """The half outline of sides told row by row, downwards; the foot is its pole."""
    middle = float(np.average((left + right) / 2, weights=np.maximum(right - left, 1.0)))
    half, up = ((right - left) / 2)[::-1], (rows[-1] - rows)[::-1]
    off = np.abs((left + right) / 2 - middle)
    notes: tuple[str, ...] = ()
    if float(np.average(off, weights=np.maximum(half, 1.0))) > LOPSIDED * float(half.max()):
        notes = ("It is not the same on both sides: the outline is the mean of both.",)
    line = np.column_stack([np.concatenate([[0.0], half, [0.0]]), np.concatenate([[0.0], up, [up[-1] + 0.5]])])
    handles = tuple((round(float(r), 1), round(float(z), 1)) for r, z in _few(line))
    return HalfOutline(handles, (round(middle, 1), round(float(rows[-1]), 1)), notes)


def _few(line: Vector) -> Vector:
    """The fewest points of a line that keep it (Douglas and Peucker, 1973), at most HANDLES."""
    keep = {0, len(line) - 1}
    enough = ENOUGH * float(np.ptp(line[:, 1]))
    while len(keep) < HANDLES:
        order = sorted(keep)
        worst, at = 0.0, -1
        for a, b in itertools.pairwise(order):
            if b - a < 2:
                continue
            inside, way = line[a + 1 : b], line[b] - line[a]
            gap = inside - line[a]
            size = max(float(np.hypot(*way)), 1e-9)
            off = np.abs(gap[:, 0] * way[1] - gap[:, 1] * way[0]) / size
            if float(off.max()) > worst:
                worst, at = float(off.max()), a + 1 + int(np.argmax(off))
        if at < 0 or worst < enough:
            break
        keep.add(at)
    return line[sorted(keep)]
