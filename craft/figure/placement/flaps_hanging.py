"""Brims, collars and skirts under their own weight: what is worked on the loops of a stuffed part and holds nothing hangs.

Every line from the seam to the edge is a heavy strip clamped at the seam (as in `drooping`), by itself: what falls
inwards folds, as cloth does, and costs nothing; what falls outwards must stretch its rounds, so that a flap falls no
further than these let it. One that stands up on its seam, though it is called a skirt or is longer than a strip that
stands by itself, is turned down about its seam first, as her hand turns it. It lies on its own part and not in it.
A geometric estimate, made after settling: the fabric under it does not move.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.placement.drooping import DOWN, bending_length, turned, turns_of
from craft.figure.placement.surface import Surface
from craft.figure.settling import THICK, Flap

Vector = NDArray[np.float64]

LINES = 24
"""From the seam to the edge, around a flap: each bends by itself, and the fabric between two goes with both."""

STANDS = 1.986
"""Bending lengths up to which an upright strip stands by itself (Greenhill, 1881)."""

MOST_STRETCH = 1.05
"""By how much a round is longer than it settled, where the weight of its flap draws it out: an estimate."""

HALVINGS = 12

AT_ONCE = 256
"""Nodes of a flap that are held against the whole part at once: all of them would fill the memory."""

BESIDE = 0.4
"""Radians to each side in which a flap lies on what is under it."""

_HANGS = re.compile(
    r"(?i)\b(?:skirts?|dress|gown|tutu|apron|kilt|rock|röckchen|kleid|jupe|robe|falda|vestido|gonna|vestito|rok|jurk)\b"
)
"""Names of what is worn hanging down, in every language that is read. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class _Fan:
    """A flap in a frame whose third axis is the seam's. x: (n, 3) its nodes; line: (n,) at which of the lines each lies,
    whole numbers and between; along: (n,) how many rounds behind the seam. lines: (LINES, k, 3) points from the seam on."""

    x: Vector
    line: Vector
    along: Vector
    lines: Vector


def hanging_flaps(surfaces: Mapping[str, Surface], placed: Sequence[Placed], stitch_mm: float) -> tuple[Placed, ...]:
    """The same pieces, their flaps as they hang."""
    return tuple(_hung(surfaces.get(piece.part), piece, stitch_mm) for piece in placed)


def _hung(surface: Surface | None, piece: Placed, stitch_mm: float) -> Placed:
    if surface is None or not surface.flaps:
        return piece
    x = (surface.x if piece.x is None else piece.x).copy()
    down = np.linalg.inv(piece.matrix[:3, :3]) @ DOWN
    down /= max(float(np.linalg.norm(down)), 1e-9)
    before, turned_down = x.copy(), np.zeros(len(x), np.bool_)
    for flap in surface.flaps:
        if _hang(surface, x, flap, down, stitch_mm):
            turned_down[np.concatenate([surface.rings[k] for k in flap.rounds])] = True
    if np.array_equal(before, x):
        return piece
    return replace(piece, x=x, turned=turned_down if turned_down.any() else None)


def _hang(surface: Surface, x: Vector, flap: Flap, down: Vector, stitch_mm: float) -> bool:
    """Move the nodes of a flap to where they hang; whether it was turned down about its seam."""
    nodes = np.concatenate([surface.rings[k] for k in flap.rounds])
    seam = _seam(surface, flap)
    if len(flap.rounds) < 2 or len(seam) < 3:
        return False
    middle, axes = _frame(x[seam], x[nodes])
    own = (x - middle) @ axes.T
    fall = axes @ down
    fan = _fan([own[seam], *(own[surface.rings[k]] for k in flap.rounds)])
    over = _stands(flap, fan, fall, bending_length(stitch_mm))
    if over:
        fan = replace(fan, x=fan.x * [1, 1, -1], lines=fan.lines * [1, 1, -1])
    moved = _fallen(fan, fall, bending_length(stitch_mm))
    if np.allclose(moved, own[nodes]):
        return False
    kept = np.setdiff1d(np.arange(len(x)), nodes)
    own[nodes] = _outside(moved, own[kept], stitch_mm * THICK)
    x[nodes] = own[nodes] @ axes + middle
    return over


def _seam(surface: Surface, flap: Flap) -> NDArray[np.int64]:
    """The nodes of the filled part that a flap is worked on: those that its first round shares a triangle with."""
    first = np.zeros(len(surface.x), np.bool_)
    first[surface.rings[flap.rounds[0]]] = True
    mine = np.zeros(len(surface.x), np.bool_)
    mine[np.concatenate([surface.rings[k] for k in flap.rounds])] = True
    touching = surface.triangles[first[surface.triangles].any(1)]
    found: NDArray[np.int64] = np.unique(touching[~mine[touching]])
    return found


def _frame(seam: Vector, flap: Vector) -> tuple[Vector, Vector]:
    """The middle of a seam, and three axes as rows: the third across the seam's plane, to the side of the flap."""
    middle = seam.mean(0)
    axes = np.linalg.svd(seam - middle)[2]
    if (flap.mean(0) - middle) @ axes[2] < 0:
        axes = axes * [[1], [1], [-1]]
    return middle, axes


def _fan(rings: Sequence[Vector]) -> _Fan:
    """A flap by its rounds, the seam first."""
    at = np.linspace(-np.pi, np.pi, LINES, endpoint=False)
    lines = np.stack([_around(ring, at) for ring in rings], axis=1)
    x = np.concatenate(rings[1:])
    angle = np.arctan2(x[:, 1], x[:, 0])
    along = np.repeat(np.arange(1.0, len(rings)), [len(ring) for ring in rings[1:]])
    return _Fan(x, (angle + np.pi) / (2 * np.pi) * LINES, along, lines)


def _around(ring: Vector, at: Vector) -> Vector:
    """(many, 3) points of a round at angles about the axis, smoothed over its ruffles."""
    angle = np.arctan2(ring[:, 1], ring[:, 0])
    away = np.abs(np.angle(np.exp(1j * (at[:, None] - angle[None]))))
    weight = np.exp(-0.5 * (away / (2 * np.pi / LINES)) ** 2) + 1e-12
    weight /= weight.sum(1, keepdims=True)
    flat = np.hypot(ring[:, 0], ring[:, 1])
    radius, height = weight @ flat, weight @ ring[:, 2]
    return np.column_stack([radius * np.cos(at), radius * np.sin(at), height])


def _stands(flap: Flap, fan: _Fan, fall: Vector, bending: float) -> bool:
    """Whether a flap stands up on its seam as it settled and is turned down: it is called what hangs, or is too long."""
    reach = fan.lines[:, -1] - fan.lines[:, 0]
    if float(reach.mean(0) @ fall) >= 0:
        return False
    long = float(np.linalg.norm(np.diff(fan.lines, axis=1), axis=2).sum(1).mean())
    return _HANGS.search(flap.name) is not None or long > STANDS * bending


def _fallen(fan: _Fan, fall: Vector, bending: float) -> Vector:
    """The nodes of a flap as its lines fall, as far as its rounds let them."""
    bends = turns_of(np.diff(fan.lines, axis=1), fall, bending)
    if bends is None:
        return fan.x
    girths = _girths(fan.lines)
    low, high = 0.0, 1.0
    if not _reaches(_bent(fan.lines, bends, high), girths):
        for _ in range(HALVINGS):
            half = (low + high) / 2
            low, high = (half, high) if _reaches(_bent(fan.lines, bends, half), girths) else (low, half)
        high = low
    return _with(fan, _bent(fan.lines, bends, high))


def _girths(lines: Vector) -> Vector:
    out: Vector = np.linalg.norm(np.roll(lines, -1, axis=0) - lines, axis=2).sum(0)
    return out


def _reaches(lines: Vector, girths: Vector) -> bool:
    """Whether the rounds are long enough for lines that lie so."""
    return bool((_girths(lines) <= MOST_STRETCH * girths + 1e-9).all())


def _bent(lines: Vector, bends: tuple[Vector, Vector], share: float) -> Vector:
    """Lines whose steps have turned by a share of their turns."""
    turn, axis = bends
    steps = np.diff(lines, axis=1)
    each = np.repeat(axis, steps.shape[1], axis=0)
    moved = turned(steps.reshape(-1, 3), share * turn.ravel(), each).reshape(steps.shape)
    return np.concatenate([lines[:, :1], lines[:, :1] + np.cumsum(moved, axis=1)], axis=1)


def _with(fan: _Fan, lines: Vector) -> Vector:
    """The nodes moved as the lines are: by what the two lines beside a node moved by at its round."""
    way = lines - fan.lines
    low = np.floor(fan.line).astype(np.int64) % LINES
    part = (fan.line - np.floor(fan.line))[:, None]
    at = fan.along.astype(np.int64)
    out: Vector = fan.x + (1 - part) * way[low, at] + part * way[(low + 1) % LINES, at]
    return out


def _outside(x: Vector, body: Vector, apart: float) -> Vector:
    """Nodes that lie in the body under the flap, out from its axis to beside it. body: nodes of the part itself, in the
    same frame."""
    now = np.hypot(x[:, 0], x[:, 1])
    least = np.concatenate([_widest(some, body, apart) for some in np.array_split(x, max(len(x) // AT_ONCE, 1))])
    inside = (least > 0) & (now < least + apart)
    out = x.copy()
    out[inside, :2] *= ((least[inside] + apart) / np.maximum(now[inside], 1e-9))[:, None]
    return out


def _widest(x: Vector, body: Vector, apart: float) -> Vector:
    """(n,) how far from the axis the body reaches beside each of some points; 0 where it does not."""
    away = np.hypot(body[:, 0], body[:, 1])
    angles = [np.arctan2(at[:, 1], at[:, 0]) for at in (x, body)]
    level = np.abs(x[:, 2, None] - body[None, :, 2]) <= apart
    beside = np.cos(angles[0][:, None] - angles[1][None]) >= np.cos(BESIDE)
    out: Vector = np.where(level & beside, away[None], 0.0).max(1)
    return out
