"""How far each corner of a mesh lies from its pole, along the surface.

The heat method (Crane, Weischedel, Wardetzky: Geodesics in Heat, ACM Transactions on Graphics 32,
2013): heat let flow for a short time points the way, and a Poisson equation turns the way into distance.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csr_matrix, diags
from scipy.sparse.csgraph import dijkstra
from scipy.sparse.linalg import splu

from craft.errors import CraftError
from craft.shape.target.laplace import cotangents, stiffness
from craft.shape.target.mesh import TriangleMesh

Vector = NDArray[np.float64]

DECAY = 28.0
"""Lengths over which heat falls to 1 / e from pole to end: more, and the far end is lost in rounding."""


def distance_from_pole(mesh: TriangleMesh) -> Vector:
    """(n,) distance along the surface from the pole, in mm. CraftError on a surface of slivers."""
    return distance_from(mesh, np.array([mesh.pole]))


def distance_from(mesh: TriangleMesh, sources: NDArray[np.int64]) -> Vector:
    """(n,) distance along the surface from the nearest of some corners, in mm. CraftError on a surface of slivers."""
    x, faces = mesh.x, mesh.faces
    n = len(x)
    corners = [x[faces[:, k]] for k in range(3)]
    normal = np.cross(corners[1] - corners[0], corners[2] - corners[0])
    double = np.maximum(np.linalg.norm(normal, axis=1), 1e-12)
    cots = cotangents(x, faces)
    laplacian = stiffness(faces, cots, n)
    mass = np.bincount(faces.ravel(), np.repeat(double / 6, 3), minlength=n)
    begin = np.zeros(n)
    begin[sources] = 1.0
    try:
        heat = splu((diags(mass) + _time(mesh, sources) * laplacian).tocsc()).solve(begin)
        unit = normal / double[:, None]
        slope = np.zeros((len(faces), 3))
        for k in range(3):
            side = x[faces[:, (k + 2) % 3]] - x[faces[:, (k + 1) % 3]]
            slope += np.cross(unit, side) * heat[faces[:, k], None]
        way = -slope / np.maximum(np.linalg.norm(slope, axis=1), 1e-30)[:, None]
        spread = np.zeros(n)
        for k in range(3):
            o, i, j = faces[:, k], faces[:, (k + 1) % 3], faces[:, (k + 2) % 3]
            np.add.at(spread, o, 0.5 * (cots[:, (k + 2) % 3] * np.einsum("ij,ij->i", x[i] - x[o], way)
                                        + cots[:, (k + 1) % 3] * np.einsum("ij,ij->i", x[j] - x[o], way)))  # fmt: skip
        found = splu((laplacian + 1e-9 * float(laplacian.diagonal().mean()) * diags(np.ones(n))).tocsc()).solve(-spread)
    except RuntimeError:
        raise CraftError("The shape has faces without area: mend or simplify it first.") from None
    if not np.isfinite(found).all():
        raise CraftError("The shape has faces without area: mend or simplify it first.")
    out: Vector = found - found[sources].mean()
    return np.maximum(out if out.mean() > 0 else -out, 0.0)


def _time(mesh: TriangleMesh, sources: NDArray[np.int64]) -> float:
    """How long the heat flows, in mm²: about an edge's length squared, more on a long shape."""
    a, b = mesh.sides[:, 0], mesh.sides[:, 1]
    length = np.linalg.norm(mesh.x[a] - mesh.x[b], axis=1)
    graph = csr_matrix(coo_matrix((length, (a, b)), shape=(len(mesh.x),) * 2))
    far = float(np.max(dijkstra(graph, directed=False, indices=sources[:1])))
    return max(float(length.mean()), far / DECAY) ** 2
