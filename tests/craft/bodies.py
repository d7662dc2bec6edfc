"""Bodies that no formula gives, for tests: cut out of a smooth field of distances by marching cubes."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from skimage.measure import marching_cubes

Vector = NDArray[np.float64]
Rod = tuple[tuple[float, float, float], tuple[float, float, float], float]

Y_RODS: tuple[Rod, ...] = (((0, 0, -45), (0, 0, 0), 13), ((0, 0, 0), (42, 0, 42), 11), ((0, 0, 0), (-42, 0, 42), 11))
"""A trunk that divides into two long arms."""

LEGS_RODS: tuple[Rod, ...] = (
    ((0, 0, -36), (0, 0, 8), 22),
    ((-14, 0, 5), (-17, 0, 45), 12),
    ((14, 0, 5), (17, 0, 45), 12),
)
"""A body with two legs."""

THREE_RODS: tuple[Rod, ...] = (
    ((0, 0, -36), (0, 0, 8), 24), ((-18, 6, 5), (-20, 8, 45), 11), ((18, 6, 5), (20, 8, 45), 11), ((0, -18, 5), (0, -22, 45), 11),
)  # fmt: skip
"""A body with three legs."""

ARM_RODS: tuple[Rod, ...] = (((0, 0, -45), (0, 0, 10), 20), ((0, 0, 10), (0, 0, 45), 12), ((10, 0, 5), (45, 0, 20), 11))
"""A body with an arm out to one side."""


def rods(parts: tuple[Rod, ...], *, fine: int = 56, reach: float = 66.0) -> tuple[Vector, NDArray[np.int64]]:
    """Rods with round ends (from, to, radius in mm), run into each other: corners and outward faces."""
    line = np.linspace(-reach, reach, fine)
    grid = np.stack(np.meshgrid(line, line, line, indexing="ij"), axis=-1)
    near = np.zeros(grid.shape[:3])
    for a, b, radius in parts:
        p, d = grid - np.array(a), np.array(b) - np.array(a)
        t = np.clip((p @ d) / (d @ d), 0, 1)
        near += np.exp(-(np.linalg.norm(p - t[..., None] * d, axis=-1) - radius) / 3)
    x, faces, _, _ = marching_cubes(-np.log(np.maximum(near, 1e-12)), 0.0, spacing=(2 * reach / (fine - 1),) * 3)
    a, b, c = (x[faces[:, k]] for k in range(3))
    outward = float(np.einsum("ij,ij->i", a - x.mean(0), np.cross(b - a, c - a)).sum()) > 0
    return x - reach, (faces if outward else faces[:, ::-1]).astype(np.int64)
