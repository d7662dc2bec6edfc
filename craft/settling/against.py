"""How far a settled part lies from the solid it was drafted for.

Shape error: area-weighted distance from the settled surface to the target and back, symmetric mean
of squares, after the best shift (no scale, no reflection, axis and front kept), closing left out.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.drafting import Outline, Solid
from craft.settling.measure import volume_inside
from craft.settling.settle import Settled

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

SPACING = 0.25
"""Distance between samples of a surface, in stitch widths."""

CLOSING = 1.6
"""Radius left out around the closing, in stitch widths: the tail's pucker is no shape."""

_SHIFTS = 12


@dataclass(frozen=True, slots=True)
class ShapeError:
    """Root mean square distance to the target in mm and in stitch widths, and the volumes' ratio."""

    rms_mm: float
    rms_w: float
    volume_ratio: float


def _surface_samples(x: Vector, triangles: Numbers, spacing: float) -> tuple[Vector, Vector, Vector]:
    """Points about `spacing` apart on triangles, the area each stands for, and its unit normal."""
    a, b, c = x[triangles[:, 0]], x[triangles[:, 1]], x[triangles[:, 2]]
    normal = np.cross(b - a, c - a)
    double = np.linalg.norm(normal, axis=1)
    many = np.maximum(1, np.ceil(np.sqrt(double) / spacing)).astype(int)
    points, areas, normals = [], [], []
    for n in np.unique(many):
        own = many == n
        u, v = np.meshgrid((np.arange(n) + 1 / 3) / n, (np.arange(n) + 1 / 3) / n)
        inside = u + v < 1
        u, v = u[inside], v[inside]
        grid = (
            a[own, None] * (1 - u - v)[None, :, None]
            + b[own, None] * u[None, :, None]
            + c[own, None] * v[None, :, None]
        )
        points.append(grid.reshape(-1, 3))
        areas.append(np.repeat(double[own] / 2 / len(u), len(u)))
        unit = normal[own] / np.maximum(double[own], 1e-12)[:, None]
        normals.append(np.repeat(unit, len(u), axis=0))
    return np.concatenate(points), np.concatenate(areas), np.concatenate(normals)


def _dense(outline: Outline, spacing: float) -> tuple[Vector, Vector]:
    s = np.linspace(0.0, outline.length, max(int(outline.length / spacing), 8))
    return outline.radius_at(s), outline.height_at(s)


def _nearest(outline_tree: cKDTree, rz: Vector, line: Vector) -> tuple[Vector, Vector]:
    """Offset in (r, z) from each point to the nearest point of the outline's segments."""
    _, at = outline_tree.query(rz)
    best = np.full(len(rz), np.inf)
    offset = np.zeros_like(rz)
    for step in (-1, 0):
        i = np.clip(at + step, 0, len(line) - 2)
        a, d = line[i], line[i + 1] - line[i]
        t = np.clip(np.einsum("ij,ij->i", rz - a, d) / np.maximum(np.einsum("ij,ij->i", d, d), 1e-12), 0, 1)
        gap = rz - (a + t[:, None] * d)
        size = np.einsum("ij,ij->i", gap, gap)
        better = size < best
        best[better], offset[better] = size[better], gap[better]
    return best, offset


def shape_error(settled: Settled, solid: Solid) -> ShapeError:
    """Compare a settled part with the solid it was drafted for; R1 of both at the foot."""
    w = settled.gauge.stitch_mm
    outline = solid.outline()
    r, z = _dense(outline, SPACING * w / 2)
    line = np.column_stack([r, z])
    tree = cKDTree(line)
    points, areas, normals = _surface_samples(settled.x, settled.triangles, SPACING * w)
    if not solid.open:
        end = settled.x[-1] if settled.net.closings else np.array([0.0, 0.0, settled.x[:, 2].max()])
        keep = np.linalg.norm(points - end, axis=1) > CLOSING * w
        points, areas, normals = points[keep], areas[keep], normals[keep]
    shift = np.zeros(3)
    for _ in range(_SHIFTS):
        moved = points - shift
        radial = moved[:, :2] / np.maximum(np.linalg.norm(moved[:, :2], axis=1), 1e-9)[:, None]
        rz = np.column_stack([np.linalg.norm(moved[:, :2], axis=1), moved[:, 2]])
        _, offset = _nearest(tree, rz, line)
        gap = np.column_stack([radial * offset[:, :1], offset[:, 1]])
        step = np.average(gap, axis=0, weights=areas) * 1.5
        shift += step
        if np.linalg.norm(step) < 1e-3:
            break
    moved = points - shift
    rz = np.column_stack([np.linalg.norm(moved[:, :2], axis=1), moved[:, 2]])
    there, _ = _nearest(tree, rz, line)
    back, weight = _back(moved, normals, outline, w, open_end=solid.open)
    squares = (np.average(there, weights=areas) + np.average(back, weights=weight)) / 2
    rms = float(np.sqrt(squares))
    volume = abs(volume_inside(settled)) / max(outline.volume_ml, 1e-9)
    return ShapeError(rms, rms / w, volume)


def _back(points: Vector, normals: Vector, outline: Outline, w: float, *, open_end: bool) -> tuple[Vector, Vector]:
    """Squared distance from the target's surface to the settled one, along its nearest sample's normal."""
    r, z = _dense(outline, SPACING * w * 2)
    steps = np.diff(np.column_stack([r, z]), axis=0)
    mid_r, mid_z = (r[1:] + r[:-1]) / 2, (z[1:] + z[:-1]) / 2
    if not open_end:
        keep = np.hypot(mid_r - r[-1], mid_z - z[-1]) > CLOSING * w
        mid_r, mid_z, steps = mid_r[keep], mid_z[keep], steps[keep]
    around = np.linspace(0, 2 * np.pi, 72, endpoint=False)
    grid_r, turn = np.repeat(mid_r, 72), np.tile(around, len(mid_r))
    target = np.column_stack([np.cos(turn) * grid_r, np.sin(turn) * grid_r, np.repeat(mid_z, 72)])
    weight = np.repeat(mid_r * np.hypot(steps[:, 0], steps[:, 1]), 72) + 1e-9
    _, at = cKDTree(points).query(target)
    gap = target - points[at]
    along = np.einsum("ij,ij->i", gap, normals[at])
    across = np.maximum(np.einsum("ij,ij->i", gap, gap) - along**2, 0.0)
    beside = np.maximum(np.sqrt(across) - SPACING * w, 0.0)
    return along**2 + beside**2, weight
