"""Pieces that touch: fabric gives way where two would lie in each other.

What is placed is settled by itself and set in its place as it is; where pieces then overlap, the fabric of both is
moved out of each other, along the outside of what it lies in. A piece gives way to what it is sewn on more than that
to it, what holds no filling gives way altogether, and two that only meet share it. What is moved draws its
neighbourhood along. A geometric estimate: no forces are solved for.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csr_matrix, diags
from scipy.spatial import cKDTree

from craft.figure.body import Placed
from craft.figure.placement.seats import Seat
from craft.figure.placement.surface import Surface

Vector = NDArray[np.float64]

APART = 0.35
"""How far apart the middles of two pieces' fabric come to lie, in stitch widths: half of what two free layers keep,
as seams draw them together (common practice, no source)."""

HOST_GIVES = 0.3
"""Share that what carries a stuffed piece gives way by; the piece gives the rest."""

ROUNDS = 4
"""How often all pairs are gone through (judgement: what touches several pieces is pushed by each in turn)."""

DRAWN_ALONG = 0.6
"""Share of their neighbours' way by which stitches are drawn along, again and again for some rounds around."""

RINGS = 4
TOO_DEEP = 0.5
"""Share of its stitches that lie in another piece above which it is meant to: a head in a hood, a part laid wrongly."""

LEAST_MM = 0.15
"""Ways shorter than this are left out."""


DEEPEST = 1.0
"""Stitch widths by which a piece may lie in what carries it: one that lies deeper moves out as a whole first."""

LIFTS = 8
"""How often a piece is looked at again while it moves out."""


@dataclass
class _Piece:
    """A piece as it gives way. x: (n, 3) its nodes in the scene. shift: by how much it moved as a whole."""

    part: str
    surface: Surface
    x: Vector
    shift: Vector = field(default_factory=lambda: np.zeros(3))
    _outside: tuple[Vector, Vector, Vector, cKDTree] | None = None

    @property
    def solid(self) -> bool:
        """Whether it is a body: it holds filling, so that it has an inside and pushes others away."""
        return self.surface.filled

    @cached_property
    def thickest(self) -> float:
        """Radius in mm of its widest round: nothing lies deeper in it than that, whatever the outside nearest to a point
        that is far off seems to say, as in the crook of a bent limb."""
        rings = (self.surface.x[ring] for ring in self.surface.rings)
        return max(float(np.linalg.norm(ring - ring.mean(0), axis=1).max()) for ring in rings)

    @cached_property
    def beside(self) -> csr_matrix:
        """(n, n) mean over the neighbours of every node."""
        t = self.surface.triangles
        rows, columns = t[:, [0, 1, 2, 1, 2, 0]].ravel(), t[:, [1, 2, 0, 0, 1, 2]].ravel()
        many = len(self.surface.x)
        web = coo_matrix((np.ones(len(rows)), (rows, columns)), shape=(many, many)).tocsr()
        web.data[:] = 1.0
        return csr_matrix(diags(1.0 / np.maximum(np.asarray(web.sum(1)).ravel(), 1.0)) @ web)

    def outside(self) -> tuple[Vector, Vector, cKDTree]:
        """Points over its outside, the outward direction at each, and a tree of them; made anew once it has moved."""
        if self._outside is None or self._outside[0] is not self.x:
            points, out = self._skin()
            self._outside = self.x, points, out, cKDTree(points)
        return self._outside[1:]

    @cached_property
    def _filled_nodes(self) -> NDArray[np.bool_]:
        """Of every node, whether it is no brim's or skirt's: these have no inside."""
        solid = np.ones(len(self.surface.x), np.bool_)
        for flap in self.surface.flaps:
            solid[np.concatenate([self.surface.rings[k] for k in flap.rounds])] = False
        return solid

    def facing(self) -> Vector:
        """(n, 3) the outward direction at each of its nodes."""
        every = self._normals()
        out: Vector = every / np.maximum(np.linalg.norm(every, axis=1), 1e-12)[:, None]
        return out

    def _normals(self) -> Vector:
        """(n, 3) outward at every node, not of unit length; a skirt's are none that its part is known by."""
        x, t = self.x, self.surface.triangles
        t = t[self._filled_nodes[t].all(1)]
        a, b, c = (x[t[:, k]] for k in range(3))
        area = np.cross(b - a, c - a)
        normal = np.zeros_like(x)
        for k in range(3):
            np.add.at(normal, t[:, k], area)
        return normal

    def _skin(self) -> tuple[Vector, Vector]:
        """Points over its outside, lids of its openings among them, and the outward direction at each."""
        x, t, solid = self.x, self.surface.triangles, self._filled_nodes
        t = t[solid[t].all(1)]
        a, b, c = (x[t[:, k]] for k in range(3))
        area = np.cross(b - a, c - a)
        points, out = [x[solid], (a + b + c) / 3], [self._normals()[solid], area]
        last = self.surface.rings[-1]
        if not self.surface.closed and len(last) > 2:
            rim, middle = x[last], x[last].mean(0)
            lid = np.cross(rim - middle, np.roll(rim, -1, 0) - middle).sum(0)
            lid = lid if lid @ (middle - x.mean(0)) > 0 else -lid
            fan = np.concatenate([middle[None], (2 * rim + middle) / 3, (rim + 2 * middle) / 3])
            points.append(fan)
            out.append(np.repeat(lid[None], len(fan), 0))
        every = np.concatenate(out)
        return np.concatenate(points), every / np.maximum(np.linalg.norm(every, axis=1), 1e-12)[:, None]


def give_way(
    surfaces: Mapping[str, Surface], placed: Sequence[Placed], seats: Sequence[Seat], stitch_mm: float
) -> tuple[Placed, ...]:
    """The same pieces; those that touch others with their fabric where it gives way to."""
    own = {at: p for at, p in enumerate(placed) if p.part in surfaces and surfaces[p.part].rounds > 1}
    pieces = {
        at: _Piece(p.part, surfaces[p.part], p.in_scene(surfaces[p.part].x if p.x is None else p.x))
        for at, p in own.items()
    }
    hosts = {s.part: s.on for s in reversed(seats)}
    pairs = [
        (one, other, share)
        for one in pieces
        for other in pieces
        if one != other
        and pieces[other].solid
        and (share := _share(pieces[one], pieces[other], hosts)) > 0
        and _boxes_meet(pieces[one].x, pieces[other].x)
    ]
    if not pairs:
        return tuple(placed)
    _move_out(pieces, pairs, hosts, DEEPEST * stitch_mm)
    before = {at: p.x for at, p in pieces.items()}
    for _ in range(ROUNDS):
        _push_apart(pieces, pairs, hosts, APART * stitch_mm)
        for at, piece in pieces.items():
            _draw_along(piece, before[at])
    _push_apart(pieces, pairs, hosts, APART * stitch_mm)
    found = list(placed)
    for at, piece in pieces.items():
        matrix = placed[at].matrix.copy()
        matrix[:3, 3] += piece.shift
        found[at] = replace(placed[at], matrix=matrix)
        if float(np.abs(piece.x - before[at]).max()) > LEAST_MM:
            found[at] = replace(found[at], x=found[at].from_scene(piece.x))
    return tuple(found)


def _boxes_meet(a: Vector, b: Vector) -> bool:
    return bool((a.min(0) < b.max(0)).all() and (b.min(0) < a.max(0)).all())


def _share(one: _Piece, other: _Piece, hosts: Mapping[str, str]) -> float:
    """How much of the way `one` goes when it lies in `other`."""
    if not one.solid:
        return 1.0
    if other.part in _carried_by(one.part, hosts):
        return 1.0 - HOST_GIVES
    return HOST_GIVES if one.part in _carried_by(other.part, hosts) else 0.5


def _carried_by(part: str, hosts: Mapping[str, str]) -> set[str]:
    """All parts that a part sits on, and those that these sit on."""
    found: set[str] = set()
    while part in hosts and hosts[part] not in found:
        part = hosts[part]
        found.add(part)
    return found


def _move_out(
    pieces: Mapping[int, _Piece], pairs: Sequence[tuple[int, int, float]], hosts: Mapping[str, str], deepest: float
) -> None:
    """Every piece that lies deep in what carries it moves out as a whole, and what sits on it with it."""
    for one, piece in pieces.items():
        under = [other for a, other, _ in pairs if a == one and pieces[other].part in _carried_by(piece.part, hosts)]
        for _ in range(LIFTS if under else 0):
            ways = [_way_out(piece.x, pieces[other], deepest) for other in under]
            way = np.sum(ways, axis=0)
            if float(np.linalg.norm(way)) < LEAST_MM:
                break
            for other in pieces.values():
                if other is piece or piece.part in _carried_by(other.part, hosts):
                    other.x = other.x + way
                    other.shift = other.shift + way


def _way_out(x: Vector, body: _Piece, deepest: float) -> Vector:
    """The mean way out of a body for the points that lie deeper in it than `deepest`."""
    points, out, tree = body.outside()
    at = np.asarray(tree.query(x)[1], np.int64)
    deep = -np.einsum("ij,ij->i", x - points[at], out[at])
    far = (deep > deepest) & (deep <= body.thickest)
    if not far.any() or far.mean() > TOO_DEEP:
        return np.zeros(3)
    way: Vector = ((deep[far] - deepest)[:, None] * out[at[far]]).mean(0)
    return way


def _push_apart(
    pieces: Mapping[int, _Piece], pairs: Sequence[tuple[int, int, float]], hosts: Mapping[str, str], gap: float
) -> None:
    """Every node that lies in another piece, or nearer to it than `gap`, moves out by its share of the way."""
    bodies = {other: pieces[other].outside() for _, other, _ in pairs}
    for one, other, share in pairs:
        x, (points, out, tree) = pieces[one].x, bodies[other]
        near = np.flatnonzero(((x > points.min(0) - gap) & (x < points.max(0) + gap)).all(1))
        if not len(near):
            continue
        at = np.asarray(tree.query(x[near])[1], np.int64)
        above = np.einsum("ij,ij->i", x[near] - points[at], out[at])
        beside = np.linalg.norm(x[near] - points[at] - above[:, None] * out[at], axis=1)
        inside = (above < gap) & (above >= -pieces[other].thickest) & (beside < 2 * np.maximum(np.abs(above), gap))
        if np.count_nonzero(above[inside] < 0) > TOO_DEEP * len(x):
            continue
        if pieces[one].part in _carried_by(pieces[other].part, hosts):
            # Fabric that carries a piece gives way inwards: it never comes out through what is sewn on it.
            own = pieces[one].facing()[near]
            inside &= np.einsum("ij,ij->i", out[at], own) < 0
        if inside.any():
            moved = x.copy()
            moved[near[inside]] += share * (gap - above[inside])[:, None] * out[at[inside]]
            pieces[one].x = moved


def _draw_along(piece: _Piece, before: Vector) -> None:
    """Stitches around those that moved go along, less the further off they are."""
    way = piece.x - before
    moved = np.linalg.norm(way, axis=1)
    if moved.max() <= LEAST_MM:
        return
    pushed = moved > LEAST_MM
    for _ in range(RINGS):
        drawn = DRAWN_ALONG * (piece.beside @ way)
        way = np.where(pushed[:, None], way, drawn)
    piece.x = before + way
