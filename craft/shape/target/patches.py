"""Patches: a skin cut along its bends into pieces that lie nearly flat, for panels that are sewn together."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from craft.errors import CraftError, require
from craft.shape.target.mesh import TriangleMesh

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]
Run = tuple[tuple[int, ...], int]
"""Corners from one end of an edge to the other, and the piece beyond it."""

SIDES = (
    ("Front", (0.0, -1.0, 0.0)),
    ("Back", (0.0, 1.0, 0.0)),
    ("Left", (-1.0, 0.0, 0.0)),
    ("Right", (1.0, 0.0, 0.0)),
    ("Top", (0.0, 0.0, 1.0)),
    ("Base", (0.0, 0.0, -1.0)),
)
"""The ways a piece of skin may look; left and right are the viewer's."""

SMALLEST = 0.03
"""Share of the whole skin below which a piece is no panel of its own, and joins its longest neighbour."""

STEADY = 1.12
"""How much better another side must suit a face than that of its neighbours before it leaves them."""

MOST_PATCHES = 16

EVENED = 20
"""How often an edge's points are averaged with their neighbours: triangles make zigzags of it."""


@dataclass(frozen=True, slots=True)
class PatchEdge:
    """Where two patches meet: points (k, 3) from corner to corner, counter-clockwise from outside.

    corners: (k,) numbers of the points among the patch's own. other: number of the patch beyond it. mate: which of
    that patch's edges it is.
    """

    points: Vector
    corners: Numbers
    other: int
    mate: int

    @property
    def length(self) -> float:
        """In mm, steps of the triangles evened out."""
        return float(np.linalg.norm(np.diff(self.evened, axis=0), axis=1).sum())

    @property
    def evened(self) -> Vector:
        """(k, 3) the points as a smooth line between the same ends."""
        x = self.points.copy()
        for _ in range(EVENED * (len(x) > 2)):
            x[1:-1] = (x[:-2] + 2 * x[1:-1] + x[2:]) / 4
        return x


@dataclass(frozen=True, eq=False)
class Patch:
    """A piece of skin. x: (n, 3) corners in mm; faces: (t, 3), counter-clockwise from outside.

    edges: around it, counter-clockwise from outside, one behind the other.
    """

    name: str
    x: Vector
    faces: Numbers
    edges: tuple[PatchEdge, ...]

    @cached_property
    def out(self) -> Vector:
        """The way it looks, all in all."""
        total = self._areas.sum(0)
        way: Vector = total / np.linalg.norm(total)
        return way

    @property
    def _areas(self) -> Vector:
        a, b, c = (self.x[self.faces[:, i]] for i in range(3))
        areas: Vector = np.cross(b - a, c - a) / 2
        return areas

    @property
    def up(self) -> Vector:
        """The way its rows are stacked: upwards, or to the back on what lies flat."""
        guide = np.array([0.0, 0.0, 1.0]) if abs(self.out[2]) < 0.8 else np.array([0.0, 1.0, 0.0])
        flat = guide - self.out * float(guide @ self.out)
        way: Vector = flat / np.linalg.norm(flat)
        return way

    @property
    def area_mm2(self) -> float:
        """Area in mm²."""
        return float(np.linalg.norm(self._areas, axis=1).sum())

    @property
    def roundness(self) -> float:
        """0 for a flat piece; the share of its area that is lost when it is pressed flat."""
        return 1.0 - float(self._areas.sum(0) @ self.out) / self.area_mm2


def patches_of(mesh: TriangleMesh) -> tuple[Patch, ...]:
    """Cut a closed skin where it turns from one of six sides to another.

    CraftError where that makes no panels: an open skin, a ball's worth of tiny pieces, a piece with a hole.
    """
    require(not mesh.open, "Panels are cut from a closed shape.", field="form")
    number = _sides_of(mesh)
    number = _without_small(mesh, number)
    found = int(number.max()) + 1
    require(found >= 2, "This shape has no bends to cut panels along.", field="form")
    require(found <= MOST_PATCHES, f"This shape would fall into {found} panels: smooth it first.", field="form")
    loops = [_loop(mesh, number, k) for k in range(found)]
    beyond = _beyond(mesh, number)
    corners = _corners(beyond)
    runs = [_runs(loop, beyond, corners) for loop in loops]
    mates: dict[frozenset[int], list[tuple[int, int]]] = {}
    for k, rs in enumerate(runs):
        for at, (run, _) in enumerate(rs):
            mates.setdefault(frozenset(run), []).append((k, at))
    names = _names(mesh, number, found)
    out: list[Patch] = []
    for k, rs in enumerate(runs):
        edges = []
        used, small = np.unique(mesh.faces[number == k], return_inverse=True)
        for at, (run, other) in enumerate(rs):
            mate = next((m for m in mates[frozenset(run)] if m != (k, at)), None)
            if mate is None:
                raise CraftError("Two panels of this shape do not meet edge to edge: simplify it first.", field="form")
            edges.append(PatchEdge(mesh.x[list(run)], np.searchsorted(used, run), other, mate[1]))
        out.append(Patch(names[k], mesh.x[used], small.reshape(-1, 3), tuple(edges)))
    return tuple(out)


def _sides_of(mesh: TriangleMesh) -> Numbers:
    """Which connected piece of one side each face belongs to."""
    normals = _normals(mesh)
    suits = normals @ np.array([way for _, way in SIDES]).T
    side = np.argmax(suits, axis=1)
    a, b = _neighbours(mesh)
    # Borders are drawn straight: a face that suits another side hardly better goes with most of its neighbours.
    for _ in range(6):
        votes = np.zeros_like(suits)
        np.add.at(votes, a, np.eye(len(SIDES))[side[b]])
        np.add.at(votes, b, np.eye(len(SIDES))[side[a]])
        most = np.argmax(votes, axis=1)
        rows = np.arange(len(side))
        gives_way = (votes[rows, most] >= 2) & (suits[rows, most] * STEADY >= suits[rows, side])
        side = np.where(gives_way, most, side)
    return _connected(mesh, side)


def _connected(mesh: TriangleMesh, side: Numbers) -> Numbers:
    a, b = _neighbours(mesh)
    same = side[a] == side[b]
    many = len(mesh.faces)
    graph = coo_matrix((np.ones(same.sum()), (a[same], b[same])), shape=(many, many))
    labels: Numbers = connected_components(graph, directed=False)[1].astype(np.int64)
    return labels


def _normals(mesh: TriangleMesh) -> Vector:
    a, b, c = (mesh.x[mesh.faces[:, i]] for i in range(3))
    n = np.cross(b - a, c - a)
    out: Vector = n / np.maximum(np.linalg.norm(n, axis=1), 1e-12)[:, None]
    return out


def _neighbours(mesh: TriangleMesh) -> tuple[Numbers, Numbers]:
    """Faces that share a side, once each."""
    faces = mesh.faces
    pairs = np.sort(np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]]), axis=1)
    owner = np.tile(np.arange(len(faces)), 3)
    order = np.lexsort((pairs[:, 1], pairs[:, 0]))
    same = (pairs[order][1:] == pairs[order][:-1]).all(1)
    return owner[order][:-1][same], owner[order][1:][same]


def _without_small(mesh: TriangleMesh, number: Numbers) -> Numbers:
    """Pieces too small for a panel go to the neighbour that they share most sides with."""
    corner = mesh.x[mesh.faces]
    area = np.linalg.norm(np.cross(corner[:, 1] - corner[:, 0], corner[:, 2] - corner[:, 0]), axis=1)
    a, b = _neighbours(mesh)
    while True:
        size = np.bincount(number, area)
        least = int(np.argmin(size))
        if size[least] >= SMALLEST * size.sum() or len(size) <= 2:
            return number
        beside = np.concatenate([number[b][number[a] == least], number[a][number[b] == least]])
        beside = beside[beside != least]
        number = np.where(number == least, np.bincount(beside).argmax(), number)
        number = np.unique(number, return_inverse=True)[1]


def _loop(mesh: TriangleMesh, number: Numbers, k: int) -> list[int]:
    """Corners around a piece, counter-clockwise from outside. CraftError for one with a hole in it."""
    faces = mesh.faces[number == k]
    halves = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    inside = {(int(a), int(b)) for a, b in halves}
    after = {a: b for a, b in inside if (b, a) not in inside}
    many = sum((b, a) not in inside for a, b in inside)
    first = min(after)
    loop = [first]
    while after[loop[-1]] != first:
        loop.append(after[loop[-1]])
        if len(loop) > many:
            break
    if len(loop) != many or many != len(after):
        raise CraftError("A panel of this shape would have a hole or a pinch in it: simplify the shape.", field="form")
    return loop


def _beyond(mesh: TriangleMesh, number: Numbers) -> dict[tuple[int, int], int]:
    """By every directed side of a face, the piece that face belongs to."""
    return {
        (int(face[i]), int(face[(i + 1) % 3])): int(own)
        for face, own in zip(mesh.faces, number, strict=True)
        for i in range(3)
    }


def _corners(beyond: dict[tuple[int, int], int]) -> set[int]:
    """Corners at which three pieces or more meet."""
    touching: dict[int, set[int]] = {}
    for (a, b), own in beyond.items():
        touching.setdefault(a, set()).add(own)
        touching.setdefault(b, set()).add(own)
    return {corner for corner, pieces in touching.items() if len(pieces) > 2}


def _runs(loop: list[int], beyond: dict[tuple[int, int], int], corners: set[int]) -> list[Run]:
    """A loop cut at its corners."""
    begin = next((i for i, v in enumerate(loop) if v in corners), 0)
    loop = [*loop[begin:], *loop[:begin], loop[begin]]
    runs: list[Run] = []
    run = [loop[0]]
    for a, b in itertools.pairwise(loop):
        run.append(b)
        if b in corners or b == loop[-1]:
            runs.append((tuple(run), beyond[b, a]))
            run = [b]
    return runs


def _names(mesh: TriangleMesh, number: Numbers, found: int) -> list[str]:
    """Front, Back, Left …, numbered where there are several."""
    normals, sides = _normals(mesh), np.array([way for _, way in SIDES])
    names: list[str] = []
    for k in range(found):
        name = SIDES[int(np.argmax(sides @ normals[number == k].sum(0)))][0]
        many = sum(n.split(" ")[0] == name for n in names)
        names.append(f"{name} {many + 1}" if many else name)
    return names
