"""Loops: where rounds lie on a mesh, as lines of equal distance from its pole."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.errors import CraftError
from craft.shape.target import TriangleMesh, distance_from, distance_from_pole

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

SAMPLES = 256
"""Points that a loop is kept by, evenly along it."""

LEAST_STITCHES, SOON = 8, 3
"""A loop of fewer stitches, or one that closes within so many rounds, belongs to the closing and is no branch."""


@dataclass(frozen=True, slots=True)
class Branch:
    """Where a shape divides: distance from the pole in mm, and the middle and length of each loop there."""

    distance_mm: float
    middles: tuple[tuple[float, float, float], ...]
    lengths_mm: tuple[float, ...]


class BranchedError(CraftError):
    """A shape that one tube can't follow. branches: where it divides."""

    def __init__(self, message: str, branches: tuple[Branch, ...]) -> None:
        super().__init__(message, field="branches")
        self.branches = branches


@dataclass(frozen=True, slots=True)
class Loop:
    """One round's line: (SAMPLES, 3) points evenly along it in working direction, the front first; length in mm."""

    points: Vector
    length: float


@dataclass(frozen=True, slots=True)
class Field:
    """Values at the corners of a mesh that grow from 0 at the pole; rounds lie at equal steps of it.

    uneven: by how much the real height of rounds differs from the step, as a share (0 for true distance).
    """

    mesh: TriangleMesh
    value: Vector
    uneven: float = 0.0


def field_of(mesh: TriangleMesh, *, even: bool = True) -> Field:
    """Distance from the pole; with even=False blended, towards the end, with the distance to the end.

    The blend makes rounds around the far end of a flat shape close on a point instead of on a line, and the last
    round of an open shape run along its opening.
    """
    near = distance_from_pole(mesh)
    if even:
        return Field(mesh, near)
    end = mesh.rims[0] if mesh.open else np.array([int(np.argmax(near))])
    far = distance_from(mesh, end)
    total = float(near[end].mean())
    share = near / np.maximum(near + far, 1e-9)
    ramp = np.clip((near / total - 0.35) / 0.5, 0.0, 1.0)
    ramp = ramp * ramp * (3 - 2 * ramp)
    value = (1 - ramp) * near + ramp * total * share
    return Field(mesh, value, _unevenness(mesh, value))


def _unevenness(mesh: TriangleMesh, value: Vector) -> float:
    """Area-weighted spread of the field's slope about 1."""
    x, f = mesh.x, mesh.faces
    normal = np.cross(x[f[:, 1]] - x[f[:, 0]], x[f[:, 2]] - x[f[:, 0]])
    double = np.maximum(np.linalg.norm(normal, axis=1), 1e-12)
    slope = np.zeros((len(f), 3))
    for k in range(3):
        side = x[f[:, (k + 2) % 3]] - x[f[:, (k + 1) % 3]]
        slope += np.cross(normal / double[:, None], side) * value[f[:, k], None]
    steep = np.linalg.norm(slope, axis=1) / double
    return float(np.sqrt(np.average((steep - 1.0) ** 2, weights=double)))


class Cutter:
    """Cuts a field at given values."""

    def __init__(self, field: Field) -> None:
        mesh = field.mesh
        self.x, self.faces, self.value = mesh.x, mesh.faces, field.value
        corners = np.sort(
            np.stack([mesh.faces[:, [0, 1]], mesh.faces[:, [1, 2]], mesh.faces[:, [2, 0]]], axis=1), axis=2
        )
        flat = corners.reshape(-1, 2)
        _, side = np.unique(flat[:, 0] * len(mesh.x) + flat[:, 1], return_inverse=True)
        self.side = side.reshape(-1, 3)
        self.least = self.value[self.faces].min(1)
        self.most = self.value[self.faces].max(1)

    def longest(self, at: float) -> Vector:
        """The longest of the lines at a value. CraftError when there is none."""
        found = self.loops(at)
        if not found:
            raise CraftError("The shape could not be cut into rounds: mend or simplify it first.", field="form")
        return found[0]

    def loops(self, at: float) -> list[Vector]:
        """Closed lines where the field has the value `at`, longest first; each (m, 3), in working direction."""
        at = at + 1e-7 * (1.0 + abs(at))
        hit = np.flatnonzero((self.least < at) & (self.most >= at))
        if not len(hit):
            return []
        faces, above = self.faces[hit], self.value[self.faces[hit]] >= at
        ends = np.zeros((len(hit), 2), np.int64)
        places = np.zeros((len(hit), 2, 3))
        odd = np.argmax(above == (above.sum(1, keepdims=True) == 1), axis=1)  # the corner that lies alone
        rows = np.arange(len(hit))
        for end, step in ((0, 1), (1, 2)):
            other = (odd + step) % 3
            a, b = faces[rows, odd], faces[rows, other]
            share = (at - self.value[a]) / np.where(self.value[b] == self.value[a], 1.0, self.value[b] - self.value[a])
            places[:, end] = self.x[a] + (self.x[b] - self.x[a]) * np.clip(share, 0, 1)[:, None]
            ends[:, end] = self.side[hit, np.where(step == 1, odd, (odd + 2) % 3)]
        # With the lone corner above, the line from its next side to its last runs to the viewer's left.
        turn = above[rows, odd]
        ends[turn], places[turn] = ends[turn][:, ::-1], places[turn][:, ::-1]
        return _chained(ends, places)


def _chained(ends: Numbers, places: Vector) -> list[Vector]:
    following = {int(a): i for i, a in enumerate(ends[:, 0])}
    left = set(range(len(ends)))
    found = []
    while left:
        first = at = left.pop()
        line = [places[at, 0]]
        while (after := following.get(int(ends[at, 1]))) is not None and after in left:
            left.discard(after)
            line.append(places[after, 0])
            at = after
        if following.get(int(ends[at, 1])) == first and len(line) > 2:
            found.append(np.array(line))
    return sorted(found, key=lambda v: -length_of(v))


def length_of(line: Vector) -> float:
    """Length of a closed line in mm."""
    return float(np.linalg.norm(np.roll(line, -1, 0) - line, axis=1).sum())


def evenly(line: Vector, begin: float = 0.0) -> Loop:
    """A closed line as SAMPLES points evenly along it, from `begin` mm after its first point."""
    steps = np.linalg.norm(np.roll(line, -1, 0) - line, axis=1)
    at = np.concatenate([[0.0], np.cumsum(steps)])
    whole = np.vstack([line, line[:1]])
    wanted = (begin + np.arange(SAMPLES) / SAMPLES * at[-1]) % at[-1]
    points = np.column_stack([np.interp(wanted, at, whole[:, k]) for k in range(3)])
    return Loop(points, float(at[-1]))


def nearest_along(line: Loop, points: Vector) -> Vector:
    """How far along a loop, as a share from 0 to 1, the point of it nearest to each of `points` lies."""
    a = line.points
    d = np.roll(a, -1, 0) - a
    size = np.maximum(np.einsum("ij,ij->i", d, d), 1e-12)
    _, near = cKDTree(a).query(points)
    found = []
    for corner in (near - 1, near):  # the nearest place lies on the side before or after the nearest corner
        at = corner % len(a)
        gap = points - a[at]
        t = np.clip(np.einsum("ij,ij->i", gap, d[at]) / size[at], 0.0, 1.0)
        off = gap - t[:, None] * d[at]
        found.append((np.einsum("ij,ij->i", off, off), (at + t) / len(a)))
    (off_before, before), (off_after, after) = found
    share: Vector = np.where(off_before < off_after, before, after)
    return share % 1.0


def levels(cutter: Cutter, steps: Vector, stitch_mm: float) -> list[Vector]:
    """The one loop at each step. BranchedError where a shape divides into parts worth working."""
    lines: list[Vector] = []
    apart: list[tuple[float, list[Vector]]] = []
    run: list[tuple[float, list[Vector]]] = []
    for step in steps:
        found = cutter.loops(float(step))
        if not found:
            break
        worth = [v for v in found if length_of(v) >= LEAST_STITCHES * stitch_mm]
        if len(worth) > 1:
            run.append((float(step), worth))
            if len(run) == SOON + 1:
                apart.append(run[0])
        else:
            run = []
        lines.append(found[0])
    if apart:
        raise _branched(apart)
    return lines


def _branched(apart: list[tuple[float, list[Vector]]]) -> BranchedError:
    found = tuple(
        Branch(
            round(at, 1),
            tuple(
                (round(float(m[0]), 1), round(float(m[1]), 1), round(float(m[2]), 1))
                for m in (v.mean(0) for v in lines)
            ),
            tuple(round(length_of(v), 1) for v in lines),
        )
        for at, lines in apart
    )
    at, many = found[0].distance_mm, len(found[0].middles)
    return BranchedError(
        f"The shape divides into {many} at {at / 10:.1f} cm from its start: work it as a split, cut it there and "
        "draft each piece, or start at another end.",
        found,
    )


def aligned(lines: list[np.ndarray], mesh: TriangleMesh) -> list[Loop]:
    """Loops begun at the front: the first where it looks forward, each other straight above the one below."""
    middle = lines[0].mean(0)
    up = middle - mesh.x[mesh.pole]
    up = up / max(float(np.linalg.norm(up)), 1e-9)
    # What looks forward, a snout, has its front on top.
    ahead = np.array([0.0, 0.0, 1.0]) if abs(up[1]) > 0.8 else np.array([0.0, -1.0, 0.0])
    first = evenly(lines[0])
    ahead = ahead - up * float(ahead @ up)
    begin = float(np.argmax((first.points - middle) @ ahead)) / len(first.points) * first.length
    loops = [evenly(lines[0], begin)]
    for line in lines[1:]:
        plain = evenly(line)
        share = float(nearest_along(plain, loops[-1].points[:1])[0])
        loops.append(evenly(line, share * plain.length))
    return loops
