"""Lines on a settled surface laid flat: as long as they are, and turning as they turn on the fabric and in no other way."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np

from craft.figure.placement.surface import Surface, Vector

STEPS = 32
"""Pieces that a line is walked along in."""

SIDEWAYS = 0.05
"""Radians to either side by which the direction along a round is told."""

OnSurface = tuple[float, float]
"""A round from 0, and an angle from the front in radians."""

Flat = tuple[float, float]
"""A place on paper in mm: to the viewer's right, and up the part."""


def unrolled(surface: Surface, start: OnSurface, end: OnSurface) -> tuple[Flat, ...]:
    """The line between two places of a surface on paper, from 0: every piece of it in its length, each turned against the one
    before by as much as on the fabric (its geodesic curvature, as a strip of paper laid along it would show it; do Carmo,
    "Differential Geometry of Curves and Surfaces", 4-4). On the whole it lies against the rounds as it does there."""
    share = np.linspace(0.0, 1.0, STEPS + 1)[:, None]
    places = np.array(start) + share * (np.array(end) - np.array(start))
    walked = np.array([_at(surface, float(row), float(angle)) for row, angle in places])
    steps = np.diff(walked, axis=0)
    moves = np.linalg.norm(steps, axis=1) > 1e-9
    steps, walked, places = steps[moves], walked[:-1][moves], places[:-1][moves]
    if not len(steps):
        return ((0.0, 0.0),)
    turns = [_turned(a, b, surface.normal(at)) for (a, b), at in zip(pairwise(steps), walked[1:], strict=True)]
    headings = np.concatenate([[0.0], np.cumsum(turns)])
    seen = [_heads(surface, (float(row), float(angle)), step) for (row, angle), step in zip(places, steps, strict=True)]
    headings += float(np.angle(np.exp(1j * (np.array(seen) - headings)).mean()))
    lengths = np.linalg.norm(steps, axis=1)
    flat = np.cumsum(np.stack([lengths * np.cos(headings), lengths * np.sin(headings)], axis=1), axis=0)
    return ((0.0, 0.0), *((float(x), float(y)) for x, y in flat))


def _at(surface: Surface, row: float, angle: float) -> Vector:
    """The point at a place between rounds."""
    low = min(max(math.floor(row), 0), surface.rounds - 1)
    high = min(low + 1, surface.rounds - 1)
    a, b = surface.spot(low, angle)[0], surface.spot(high, angle)[0]
    return a + (b - a) * min(max(row - low, 0.0), 1.0)


def _heads(surface: Surface, at: OnSurface, step: Vector) -> float:
    """The direction of a step on paper: 0 along the round to the viewer's right, a quarter turn up the part."""
    row, angle = at
    right = _at(surface, row, angle - SIDEWAYS) - _at(surface, row, angle + SIDEWAYS)
    out = surface.normal(_at(surface, row, angle))
    right -= (right @ out) * out
    up = np.cross(out, right)
    if up @ surface.axis(min(max(round(row), 0), surface.rounds - 1)) < 0:
        up = -up
    return math.atan2(float(step @ up) / _size(up), float(step @ right) / _size(right))


def _turned(before: Vector, after: Vector, out: Vector) -> float:
    """The angle between two steps within the fabric, leftward as seen from outside."""
    a, b = before - (before @ out) * out, after - (after @ out) * out
    return math.atan2(float(np.cross(a, b) @ out), float(a @ b))


def _size(v: Vector) -> float:
    return max(float(np.linalg.norm(v)), 1e-9)
