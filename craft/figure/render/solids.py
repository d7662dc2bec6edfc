"""Small solids of a picture as triangles: domes for eyes, tubes for threads."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]
Whole = NDArray[np.int64]

_AROUND, _UP = 28, 10
DOME = 0.62
"""Height of an eye's dome as a share of its radius."""


def bead_mesh(at: Vector, out: Vector, mm: float) -> tuple[Vector, Vector, Whole]:
    """A dome with its rim on the fabric: points, normals, triangles."""
    z = out / max(float(np.linalg.norm(out)), 1e-9)
    x = np.cross(z, [0.0, 0.0, 1.0] if abs(z[2]) < 0.9 else [0.0, 1.0, 0.0])
    x /= np.linalg.norm(x)
    y = np.cross(z, x)
    turn, rise = np.meshgrid(np.linspace(0, 2 * np.pi, _AROUND + 1), np.linspace(-0.25, np.pi / 2, _UP + 1))
    around = np.cos(turn)[..., None] * x + np.sin(turn)[..., None] * y
    shape = np.cos(rise)[..., None] * around + DOME * np.sin(rise)[..., None] * z
    normal = np.cos(rise)[..., None] * around + np.sin(rise)[..., None] / DOME * z
    normal /= np.linalg.norm(normal, axis=2, keepdims=True)
    return (at + shape * mm / 2).reshape(-1, 3), normal.reshape(-1, 3), _grid(_UP, _AROUND)


def thread_mesh(points: Vector, mm: float) -> tuple[Vector, Vector, Whole]:
    """A round thread along points, (p, 3) with p of 1 or more; a single point is a knot."""
    if len(points) == 1:
        return bead_mesh(points[0], np.array([0.0, -1.0, 0.0]), mm * 1.8)
    way = np.gradient(points, axis=0)
    way /= np.maximum(np.linalg.norm(way, axis=1, keepdims=True), 1e-9)
    side = np.cross(way, [0.0, 0.0, 1.0])
    flat = np.linalg.norm(side, axis=1) < 1e-3
    side[flat] = np.cross(way[flat], [0.0, 1.0, 0.0])
    side /= np.maximum(np.linalg.norm(side, axis=1, keepdims=True), 1e-9)
    up = np.cross(side, way)
    turn = np.linspace(0, 2 * np.pi, 11)
    normal = np.cos(turn)[None, :, None] * side[:, None] + np.sin(turn)[None, :, None] * up[:, None]
    x = points[:, None] + normal * mm / 2
    return x.reshape(-1, 3), normal.reshape(-1, 3), _grid(len(points) - 1, 10)


def _grid(rows: int, columns: int) -> Whole:
    """Triangles of a grid of (rows + 1) × (columns + 1) points."""
    at = np.arange(rows * (columns + 1)).reshape(rows, columns + 1)[:, :-1].ravel()
    over = columns + 1
    return np.concatenate(
        [np.column_stack([at, at + 1, at + over + 1]), np.column_stack([at, at + over + 1, at + over])]
    )
