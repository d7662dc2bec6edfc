"""The flat spiral of a tube that is rolled up: where its rings come to lie, and how the coil then stands.

Every turn lies on the one before it: the middle line's distance from the centre grows within a turn by the tube's half
thickness there and here.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]

TIGHTEST = 1.0
"""Distance from the centre at which a coil begins, in half thicknesses of its tube: a stuffed tube bends no tighter."""

LEAST_RINGS = 4
"""Rings of a tube that is rolled up at all."""


def square(v: Vector, t: Vector) -> Vector:
    """The direction of `v` as far as it is square to `t`; any such one where they are parallel."""
    out = v - (v @ t) * t
    size = float(np.linalg.norm(out))
    if size < 1e-9:
        other = np.array([1.0, 0.0, 0.0]) if abs(t[0]) < 0.9 else np.array([0.0, 1.0, 0.0])
        return square(other, t)
    return out / size


def spiral(length: Vector, thick: Vector) -> tuple[Vector, Vector]:
    """Angle and distance from the centre of every ring, from how far along the tube it is and half its thickness there."""
    angle, away = np.zeros(len(length)), np.zeros(len(length))
    first = TIGHTEST * max(float(thick[0]), float(thick[:3].mean()))
    away[0] = first
    for k in range(1, len(length)):
        step = (length[k] - length[k - 1]) / max(away[k - 1], 1e-6)
        angle[k] = angle[k - 1] + min(step, math.pi / 3)
        below = angle[k] - 2 * math.pi
        if below >= 0:
            away[k] = np.interp(below, angle[:k], away[:k]) + np.interp(below, angle[:k], thick[:k]) + thick[k]
        else:
            away[k] = first + (thick[0] + thick[k]) * angle[k] / (2 * math.pi)
    return angle, away


def on_spiral(length: Vector, low: int, high: int, angle: Vector, away: Vector) -> tuple[Vector, Vector]:
    """Places (k, 3) of all rings in the plane of y and z, straight on beyond the spiral's ends `low` and `high`, and their
    axes (k, 3, 3): along the tube, towards the centre, across."""
    many = len(length)
    on = np.zeros((len(angle), 3))
    on[:, 1], on[:, 2] = away * np.cos(angle), away * np.sin(angle)
    along = np.gradient(on, axis=0)
    along /= np.maximum(np.linalg.norm(along, axis=1), 1e-12)[:, None]
    near = np.clip(np.arange(many), low, high)
    ahead, centred = along[near - low], on[near - low]
    places = centred + ahead * (length - length[near])[:, None]
    inward = -centred + np.sum(centred * ahead, axis=1)[:, None] * ahead
    inward /= np.maximum(np.linalg.norm(inward, axis=1), 1e-12)[:, None]
    return places, np.stack([ahead, inward, np.cross(ahead, inward)], axis=1)


def standing(middles: Vector, centre: Vector, end: int) -> Vector:
    """(3, 3) that turns a coil so that its axis runs along x, and its outer end lies below and looks to the front.

    middles: of its rings, in order. centre: its middle. end: the ring at its outer end. Points are multiplied from the left.
    """
    centred = middles - middles.mean(0)
    axis = np.linalg.eigh(centred.T @ centred)[1][:, 0]
    axis = axis if axis[0] >= 0 else -axis
    before = end - 1 if end else 1
    ahead = square(middles[end] - middles[before], axis)
    up = np.cross(axis, -ahead)
    if (middles[end] - centre) @ up > 0:  # the outer end lies above: the other side of the coil is seen
        axis, up = -axis, -up
    turned: Vector = np.column_stack([axis, -ahead, up])
    return turned


@dataclass(frozen=True, slots=True)
class Coil:
    """A straight tube rolled up. heights: z of its rings before. places (k, 3), turns (k, 3, 3): where each ring lies then,
    and what turns its points there."""

    heights: Vector
    places: Vector
    turns: Vector

    def laid(self, ring: int, points: Vector) -> Vector:
        """(n, 3) points of the straight tube at a ring, on the coil."""
        middle = np.array([0.0, 0.0, self.heights[ring]])
        out: Vector = (points - middle) @ self.turns[ring].T + self.places[ring]
        return out

    def turned(self, ring: int, direction: Vector) -> Vector:
        """A direction of the straight tube at a ring, on the coil."""
        out: Vector = self.turns[ring] @ direction
        return out


def rolled_up(heights: Vector, thick: Vector, inner: int, outer: int, outside: Vector) -> Coil | None:
    """The coil of a straight tube along z, from its ring `inner` to `outer`; None for one that is too short.

    heights, thick: of its rings, in mm. outside: the direction that comes to lie outwards. It stands on z = 0.
    """
    if len(heights) < LEAST_RINGS or abs(outer - inner) < LEAST_RINGS - 1:
        return None
    order = np.arange(len(heights)) if inner < outer else np.arange(len(heights))[::-1]
    low, high = (int(np.flatnonzero(order == k)[0]) for k in (inner, outer))
    length = np.abs(heights[order] - heights[order[0]])
    angle, away = spiral(length[low : high + 1] - length[low], thick[order][low : high + 1])
    on, axes = on_spiral(length, low, high, angle, away)
    along = np.array([0.0, 0.0, 1.0 if inner < outer else -1.0])
    side = square(-outside, along)
    frame = np.array([along, side, np.cross(along, side)])
    places, turns = np.empty_like(on), np.empty_like(axes)
    places[order], turns[order] = on, np.einsum("kij,il->kjl", axes, frame)
    upright = standing(places, places.mean(0), outer)
    places = (places - places.mean(0)) @ upright
    turns = np.einsum("ji,kjl->kil", upright, turns)
    foot = min(float(p[2] - t * math.hypot(r[2, 0], r[2, 1])) for p, t, r in zip(places, thick, turns, strict=True))
    return Coil(heights, places - np.array([0.0, 0.0, foot]), turns)
