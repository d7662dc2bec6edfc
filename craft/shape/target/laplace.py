"""The Laplacian of a triangle mesh by cotangents: how heat flows over it, and how values even out between borders.

Source: Pinkall and Polthier, Computing discrete minimal surfaces and their conjugates, 1993 (from memory).
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csc_matrix
from scipy.sparse.linalg import splu

from craft.errors import CraftError

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

STEEPEST = 50.0
"""Cotangents beyond this are cut off: slivers would drown all else."""


def cotangents(x: Vector, faces: Numbers) -> Vector:
    """(t, 3) cotangent of the angle at every corner of every triangle."""
    out = np.empty((len(faces), 3))
    for k in range(3):
        o = x[faces[:, k]]
        u, v = x[faces[:, (k + 1) % 3]] - o, x[faces[:, (k + 2) % 3]] - o
        double = np.maximum(np.linalg.norm(np.cross(u, v), axis=1), 1e-12)
        out[:, k] = np.einsum("ij,ij->i", u, v) / double
    return out


def stiffness(faces: Numbers, cots: Vector, many: int) -> csc_matrix:
    """The Laplacian of a mesh of `many` corners, positive: symmetric, its rows sum to nothing."""
    rows, cols, weights = [], [], []
    for k in range(3):
        i, j = faces[:, (k + 1) % 3], faces[:, (k + 2) % 3]
        half = np.clip(cots[:, k], -STEEPEST, STEEPEST) / 2
        rows += [i, j, i, j]
        cols += [j, i, i, j]
        weights += [-half, -half, half, half]
    return coo_matrix((np.concatenate(weights), (np.concatenate(rows), np.concatenate(cols))), (many, many)).tocsc()


def evened_between(x: Vector, faces: Numbers, low: Numbers, high: Numbers) -> Vector:
    """(n,) values from 0 at the corners `low` to 1 at the corners `high`, harmonic between.

    CraftError on a surface of slivers.
    """
    n = len(x)
    value = np.zeros(n)
    value[high] = 1.0
    free = np.ones(n, np.bool_)
    free[low] = free[high] = False
    if not free.any():
        return value
    flow = stiffness(faces, cotangents(x, faces), n)
    try:
        value[free] = splu(flow[free][:, free].tocsc()).solve(-flow[free][:, ~free] @ value[~free])
    except RuntimeError:
        raise CraftError("The shape has faces without area: mend or simplify it first.") from None
    return value
