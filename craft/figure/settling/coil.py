"""A tube rolled up and sewn to itself: where it lies at first, and which stitches its seam holds together.

Its middle line becomes a flat spiral (`craft.figure.spiral`). A tube that bends by itself (short rows) is rolled the way
it bends. Where the rounds are narrower at one end that end lies inside.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling.net import Net
from craft.figure.spiral import LEAST_RINGS, on_spiral, spiral, square, standing

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

SEAM_EVERY = 1
"""The seam goes through every round (common practice, no source)."""

STRAIGHT_MM = 1e-3
"""Sum of a tube's bends, as a share of its length, below which it bends no way of its own."""


@dataclass(frozen=True, slots=True)
class Rolled:
    """A tube on its spiral, in the plane of y and z. x: (n, 3) positions in mm. seam: (s, 2) nodes sewn to each other.
    turns: how many times it goes around.
    """

    x: Vector
    seam: Numbers
    turns: float


def roll_up(net: Net, x: Vector, inner: int, outer: int) -> Rolled | None:
    """Roll a tube up from ring `inner` to ring `outer` (indices of its closed edges in order), from where it has settled
    at `x`. None when there is nothing to roll: fewer than four rings."""
    rings = [e.nodes for e in net.edges if e.closed]
    if len(rings) < LEAST_RINGS or abs(outer - inner) < LEAST_RINGS - 1:
        return None
    order = list(range(len(rings))) if inner < outer else list(range(len(rings)))[::-1]
    low, high = order.index(inner), order.index(outer)
    middles = np.array([x[rings[k]].mean(0) for k in order])
    thick = np.array([np.linalg.norm(x[rings[k]] - m, axis=1).mean() for k, m in zip(order, middles, strict=True)])
    frames = _frames(middles, x, [rings[k] for k in order])
    length = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(middles, axis=0), axis=1))])
    angle, away = spiral(length[low : high + 1] - length[low], thick[low : high + 1])
    places, axes = on_spiral(length, low, high, angle, away)
    owner = _owners(net, x, middles, [rings[k] for k in order])
    local = np.einsum("nij,nj->ni", frames[owner], x - middles[owner])
    laid: Vector = places[owner] + np.einsum("nji,nj->ni", axes[owner], local)
    seam = _seam([rings[k] for k in order[low : high + 1]], laid, places[low : high + 1], angle)
    return Rolled(laid, seam, float(angle[-1]) / (2 * math.pi))


def _frames(middles: Vector, x: Vector, rings: list[Numbers]) -> Vector:
    """(k, 3, 3) rows along the tube, towards the inside of its bend, across: carried along without turning."""
    along = np.gradient(middles, axis=0)
    along /= np.maximum(np.linalg.norm(along, axis=1), 1e-12)[:, None]
    bend = np.diff(along, axis=0).sum(0)
    if np.linalg.norm(np.diff(along, axis=0), axis=1).sum() < STRAIGHT_MM or np.linalg.norm(bend) < 0.05:
        first = x[rings[0][0]] - middles[0]  # the first stitch lies at the front of a coil's outside
        bend = -first
    side = square(bend, along[0])
    frames = np.empty((len(middles), 3, 3))
    for k, t in enumerate(along):
        side = square(side, t)
        frames[k] = t, side, np.cross(t, side)
    return frames


def _owners(net: Net, x: Vector, middles: Vector, rings: list[Numbers]) -> Numbers:
    """Which ring each node goes with: the first it lies in, else the nearest."""
    owner = np.full(net.size, -1)
    for k in range(len(rings) - 1, -1, -1):
        owner[rings[k]] = k
    for node in np.flatnonzero(owner < 0):
        owner[node] = int(np.argmin(np.linalg.norm(middles - x[node], axis=1)))
    return owner


def _seam(rings: list[Numbers], x: Vector, places: Vector, angle: Vector) -> Numbers:
    """From the inside of every second ring to the outside of the turn that it lies on."""
    pairs: list[tuple[int, int]] = []
    flat = places.copy()
    flat[:, 0] = 0.0
    for k in range(0, len(rings), SEAM_EVERY):
        if angle[k] < 2 * math.pi:
            continue
        below = int(np.argmin(np.abs(angle[:k] - (angle[k] - 2 * math.pi))))
        inner = rings[k][int(np.argmin(np.linalg.norm(x[rings[k]] - flat[below], axis=1)))]
        outer = rings[below][int(np.argmin(np.linalg.norm(x[rings[below]] - x[inner], axis=1)))]
        pairs.append((int(inner), int(outer)))
    return np.array(pairs, np.int64).reshape(-1, 2)


def upright(net: Net, x: Vector, outer: int) -> Vector:
    """A coil at rest, turned so that its axis runs along x and its outer end, ring `outer`, lies below and looks to the
    front; its lowest point is at height 0, below its middle."""
    rings = [e.nodes for e in net.edges if e.closed]
    middles = np.array([x[r].mean(0) for r in rings])
    end = outer if outer >= 0 else len(rings) - 1
    turned = (x - x.mean(0)) @ standing(middles, x.mean(0), end)
    out: Vector = turned - np.array([0.0, 0.0, turned[:, 2].min()])
    return out
