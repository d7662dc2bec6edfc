"""Cutting a shape by a plane: two shapes, each open where they were cut, with one opening that fits the other."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from craft.errors import require
from craft.shape.target.distance import distance_from
from craft.shape.target.mesh import TriangleMesh

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class CutPiece:
    """A piece of a cut shape, and whether it lay above the cut."""

    mesh: TriangleMesh
    above: bool


def cut(mesh: TriangleMesh, height_mm: float) -> tuple[CutPiece, ...]:
    """The pieces of a closed mesh below and above a height, each begun at its far end and open at the cut.

    What lies above comes turned over, so that it too stands on its pole; both keep their front. A shape
    that divides gives more than two pieces; the one with several openings is closed flat on each.
    CraftError when the height lies outside, or a piece is too little.
    """
    require(not mesh.open, "An open shape is cut before it is opened.")
    low, high = float(mesh.x[:, 2].min()), float(mesh.x[:, 2].max())
    require(
        low + 0.03 * (high - low) < height_mm < high - 0.03 * (high - low),
        f"Cut between {low + 0.03 * (high - low):.0f} and {high - 0.03 * (high - low):.0f} mm up.",
        field="height_mm",
    )
    x, faces = _split(mesh, height_mm)
    above = x[faces].mean(1)[:, 2] > height_mm
    return tuple(
        CutPiece(piece, side) for side in (False, True) for piece in _pieces(x, faces[above == side], over=side)
    )


def _split(mesh: TriangleMesh, height: float) -> tuple[Vector, Numbers]:
    """The faces divided along the plane; corners on it belong to both sides."""
    x = mesh.x.copy()
    near = np.abs(x[:, 2] - height) < 1e-6 * max(1.0, float(np.ptp(x[:, 2])))
    x[near, 2] = height + 1e-6 * max(1.0, float(np.ptp(x[:, 2])))
    side = x[:, 2] > height
    made: dict[tuple[int, int], int] = {}
    added: list[Vector] = []

    def between(a: int, b: int) -> int:
        key = (min(a, b), max(a, b))
        if key not in made:
            share = (height - x[a, 2]) / (x[b, 2] - x[a, 2])
            made[key] = len(x) + len(added)
            added.append(x[a] + (x[b] - x[a]) * share)
        return made[key]

    crossing = side[mesh.faces].any(1) & ~side[mesh.faces].all(1)
    divided: list[tuple[int, int, int]] = []
    for face in mesh.faces[crossing]:
        alone = next(k for k in range(3) if side[face[(k + 1) % 3]] == side[face[(k + 2) % 3]])
        a, b, c = (int(face[(alone + k) % 3]) for k in range(3))
        p, q = between(a, b), between(a, c)
        divided += [(a, p, q), (p, b, c), (p, c, q)]
    return np.vstack([x, *added]), np.vstack([mesh.faces[~crossing], np.array(divided, np.int64).reshape(-1, 3)])


def _pieces(x: Vector, faces: Numbers, *, over: bool) -> list[TriangleMesh]:
    """Connected pieces of some faces as meshes, each standing on the corner farthest from its opening."""
    n = len(x)
    pairs = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]]])
    _, of = connected_components(
        coo_matrix((np.ones(len(pairs)), (pairs[:, 0], pairs[:, 1])), shape=(n, n)), directed=False
    )
    found = []
    for label in np.unique(of[faces[:, 0]]):
        own = faces[of[faces[:, 0]] == label]
        corners, local = np.unique(own, return_inverse=True)
        if len(own) < 12:
            continue
        places = x[corners] * (np.array([-1.0, 1.0, -1.0]) if over else 1.0)
        places, closed = _capped(places, local.reshape(-1, 3))
        rough = TriangleMesh(places, closed, int(np.argmin(places[:, 2])))
        pole = int(np.argmax(distance_from(rough, rough.rims[0]))) if rough.rims else rough.pole
        found.append(TriangleMesh(places - [*places.mean(0)[:2], places[pole, 2]], closed, pole))
    return found


def _capped(x: Vector, faces: Numbers) -> tuple[Vector, Numbers]:
    """A piece with several openings closed flat on each: what belongs there is sewn on. One opening stays."""
    ways = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    there = {(int(a), int(b)) for a, b in ways}
    rim = np.array([(a, b) for a, b in there if (b, a) not in there], np.int64).reshape(-1, 2)
    n = len(x)
    _, of = connected_components(coo_matrix((np.ones(len(rim)), (rim[:, 0], rim[:, 1])), shape=(n, n)), directed=False)
    loops = np.unique(of[rim[:, 0]]) if len(rim) else np.array([], np.int64)
    if len(loops) < 2:
        return x, faces
    for label in loops:
        own = rim[of[rim[:, 0]] == label]
        faces = np.vstack([faces, np.column_stack([own[:, 1], own[:, 0], np.full(len(own), len(x))])])
        x = np.vstack([x, x[own[:, 0]].mean(0)])
    return x, faces
