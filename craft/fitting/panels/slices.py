"""Slices: how wide a patch is, row by row, measured over the skin.

Rows run from one side of the patch to the other: they are the levels of a value that is harmonic between the
base and the top, so that the first lies along the base, the last along the top, and none breaks.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.shape.target import Patch, evened_between

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

FINE = 120
"""Slices through a patch."""


@dataclass(frozen=True, eq=False, slots=True)
class Slices:
    """A patch cut across from base to top. along: (k,) mm over the skin from the base; width: (k,) mm across."""

    along: Vector
    width: Vector

    @property
    def length(self) -> float:
        """From base to top in mm, over the skin, on the mean."""
        return float(self.along[-1])

    def width_at(self, along: Vector) -> Vector:
        """(n,) width in mm at heights over the skin."""
        out: Vector = np.interp(along, self.along, self.width)
        return out


def slices_of(patch: Patch, base: Numbers, top: Numbers) -> Slices:
    """Cut a patch across, from its corners `base` to its corners `top`. CraftError on a surface of slivers."""
    value = evened_between(patch.x, patch.faces, base, top)
    levels = np.linspace(0, 1, FINE + 1)
    # Corners on the very level would be cut twice or not at all.
    middle = (levels[:-1] + levels[1:]) / 2 + 1e-9
    width = np.array([_across(patch, value, level) for level in middle])
    step = _areas_between(patch, value, levels) / np.maximum(width, 1e-9)
    along = np.concatenate([[0.0], np.cumsum(step)])
    at = np.concatenate([[0.0], (along[:-1] + along[1:]) / 2, along[-1:]])
    return Slices(at, np.concatenate([width[:1], width, width[-1:]]))


def _across(patch: Patch, value: Vector, level: float) -> float:
    """Length in mm of the line along which a value has a level."""
    above = value[patch.faces] > level
    hit = above.any(1) & ~above.all(1)
    ends = np.full((int(hit.sum()), 3, 3), np.nan)
    for side, (i, j) in enumerate(((0, 1), (1, 2), (2, 0))):
        crossed = above[hit, i] != above[hit, j]
        a, b = patch.faces[hit, i][crossed], patch.faces[hit, j][crossed]
        share = (level - value[a]) / (value[b] - value[a])
        ends[crossed, side] = patch.x[a] + share[:, None] * (patch.x[b] - patch.x[a])
    points = ends[~np.isnan(ends[..., 0])].reshape(-1, 2, 3)
    return float(np.linalg.norm(points[:, 1] - points[:, 0], axis=1).sum())


def _areas_between(patch: Patch, value: Vector, levels: Vector) -> Vector:
    """(k - 1,) mm² of skin between each level and the next, each triangle shared out over the values it spans."""
    corner = patch.x[patch.faces]
    area = np.linalg.norm(np.cross(corner[:, 1] - corner[:, 0], corner[:, 2] - corner[:, 0]), axis=1) / 2
    a, b, c = np.sort(value[patch.faces], axis=1).T
    below = np.zeros(len(levels))
    for at, level in enumerate(levels):
        # Share of a triangle below a level, for a value that is linear over it.
        low = (level - a) ** 2 / np.maximum((b - a) * (c - a), 1e-15)
        high = 1 - (c - level) ** 2 / np.maximum((c - b) * (c - a), 1e-15)
        share = np.where(level <= a, 0.0, np.where(level >= c, 1.0, np.where(level < b, low, high)))
        below[at] = float((area * share).sum())
    return np.diff(below)
