"""Patches laid onto the fabric in true mm: felt, satin stitch, a brushed cheek.

From the middle of the patch ways run out over the fabric in all directions, each as straight as the fabric lets it
and as long as the patch is wide that way, so that a piece cut to that size lies like it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.figure.placement.surface import Surface

Vector = NDArray[np.float64]
Whole = NDArray[np.int64]

AROUND, RINGS = 20, 5
"""Ways out of the middle, and steps on each."""

LIFTED = 0.42
"""How far above the fabric's middle a patch lies, in stitch widths: the stitches' relief stands out that much (an estimate)."""

THICK_MM = 1.0
"""How far a patch that is laid over another lies above it: craft felt is about 1 mm thick (common practice, no source)."""

NEAR = 6
"""Nodes whose planes a point of the patch goes by."""


@dataclass(frozen=True, slots=True)
class Patch:
    """points: (1 + AROUND · RINGS, 3) in mm in the part's frame, the middle first, then ring by ring. out: (…, 3) unit
    directions away from the fabric. triangles: (t, 3)."""

    points: Vector
    out: Vector
    triangles: Whole

    def over(self, others: Sequence[Patch]) -> Patch:
        """The patch laid over those that were put on before it: a nose of satin stitch on a muzzle of felt."""
        lifted = np.zeros(len(self.points))
        for other in others:
            away, at = cKDTree(other.points).query(self.points)
            above = np.einsum("ij,ij->i", self.points - other.points[at], other.out[at])
            beside = np.sqrt(np.maximum(np.asarray(away) ** 2 - above**2, 0.0))
            apart = float(np.median(np.linalg.norm(np.diff(other.points, axis=0), axis=1)))
            covered = (beside < apart) & (np.abs(above) < 4 * THICK_MM)
            lifted = np.where(covered, np.maximum(lifted, THICK_MM - above), lifted)
        return self if not lifted.any() else replace(self, points=self.points + float(lifted.max()) * self.out)


class _Fabric:
    """The fabric as planes at its nodes."""

    def __init__(self, surface: Surface) -> None:
        a, b, c = (surface.x[surface.triangles[:, k]] for k in range(3))
        area = np.cross(b - a, c - a)
        normal = np.zeros_like(surface.x)
        for k in range(3):
            np.add.at(normal, surface.triangles[:, k], area)
        self.x = surface.x
        self.normal = normal / np.maximum(np.linalg.norm(normal, axis=1), 1e-12)[:, None]
        self.tree = cKDTree(surface.x)

    def onto(self, points: Vector, facing: Vector) -> tuple[Vector, Vector]:
        """Points moved onto the fabric, and its direction there; only fabric that faces alike counts. A plane counts the
        more the nearer its node is."""
        away, near = self.tree.query(points, k=min(NEAR, len(self.x)))
        alike = np.maximum(np.einsum("ijk,ik->ij", self.normal[near], facing), 0.0)
        weight = (alike + 1e-6) / (np.asarray(away) ** 2 + 0.5)
        weight = weight / weight.sum(1, keepdims=True)
        normal = np.einsum("ij,ijk->ik", weight, self.normal[near])
        normal /= np.maximum(np.linalg.norm(normal, axis=1), 1e-12)[:, None]
        middle = np.einsum("ij,ijk->ik", weight, self.x[near])
        above = np.einsum("ij,ij->i", points - middle, normal)
        return points - above[:, None] * normal, normal


def patch_on(surface: Surface, at: int, angle: float, wide_mm: float, tall_mm: float, stitch_mm: float) -> Patch:
    """An oval patch with its middle at a round (from 0) and an angle from the front: `wide_mm` along the round, `tall_mm`
    up the part, measured over the fabric."""
    fabric = _Fabric(surface)
    point, out = surface.spot(at, angle)
    up = surface.axis(min(max(at, 0), surface.rounds - 1))
    up = up - (up @ out) * out
    size = float(np.linalg.norm(up))
    if size < 1e-6:
        up = np.array([0.0, -1.0, 0.0]) - (-out[1]) * out
        size = max(float(np.linalg.norm(up)), 1e-9)
    up /= size
    side = np.cross(up, out)
    turn = np.linspace(0, 2 * math.pi, AROUND, endpoint=False)
    way = np.cos(turn)[:, None] * side + np.sin(turn)[:, None] * up
    # The oval's radius in each direction, in equal steps from the middle to its edge.
    step = np.hypot(np.cos(turn) * wide_mm, np.sin(turn) * tall_mm) / 2 / RINGS
    middle, normal = fabric.onto(point[None], out[None])
    now, facing = np.repeat(middle, AROUND, 0), np.repeat(normal, AROUND, 0)
    points, outs = [middle], [normal]
    for _ in range(RINGS):
        way = way - np.einsum("ij,ij->i", way, facing)[:, None] * facing
        way /= np.maximum(np.linalg.norm(way, axis=1), 1e-12)[:, None]
        reached, there = fabric.onto(now + step[:, None] * way, facing)
        gone = reached - now
        long = np.maximum(np.linalg.norm(gone, axis=1), 1e-12)
        now, facing, way = now + gone * (step / long)[:, None], there, gone / long[:, None]
        points.append(now)
        outs.append(facing)
    every, faces = np.concatenate(points), np.concatenate(outs)
    return Patch(every + LIFTED * stitch_mm * faces, faces, _triangles())


def _triangles() -> Whole:
    """A fan around the middle, then strips between rings; wound to face outward."""
    k = np.arange(AROUND)
    after = (k + 1) % AROUND
    found = [np.column_stack([np.zeros(AROUND, np.int64), 1 + k, 1 + after])]
    for ring in range(RINGS - 1):
        low, high = 1 + ring * AROUND, 1 + (ring + 1) * AROUND
        found += [
            np.column_stack([low + k, high + k, high + after]),
            np.column_stack([low + k, high + after, low + after]),
        ]
    return np.concatenate(found)
