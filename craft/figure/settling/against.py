"""How far a settled part lies from the solid it was drafted for.

Shape error: area-weighted distance from the settled surface to the target and back, symmetric mean
of squares, after the best shift (no scale, no reflection, axis and front kept), closing left out.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.figure.settling.measure import volume_inside
from craft.figure.settling.settle import Settled
from craft.shape.target import Form, Outline, Solid, TriangleMesh, as_form

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

SPACING = 0.25
"""Distance between samples of a surface, in stitch widths."""

CLOSING = 1.6
"""Radius left out around the closing, in stitch widths: the tail's pucker is no shape."""

_SHIFTS = 12


_TURNS, _CAP = 40, 3_000
"""Steps of turning a piece onto its target; samples of it that are used for that."""


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


def shape_error(settled: Settled, target: Form | Solid) -> ShapeError:
    """Compare a settled part with what it was drafted for; R1 of both at the foot.

    A body of revolution may be shifted to fit. Any other shape may also be turned, because a bent piece
    has no axis of its own that both could share.
    """
    form = as_form(target)
    if form.outline is not None:
        return _against_outline(settled, form.outline, is_open=form.open)
    return fit(settled, form.mesh).error


def _against_outline(settled: Settled, outline: Outline, *, is_open: bool) -> ShapeError:
    w = settled.gauge.stitch_mm
    r, z = _dense(outline, SPACING * w / 2)
    line = np.column_stack([r, z])
    tree = cKDTree(line)
    points, areas, normals = _surface_samples(settled.x, settled.triangles, SPACING * w)
    if not is_open:
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
    back, weight = _back(moved, normals, outline, w, open_end=is_open)
    squares = (np.average(there, weights=areas) + np.average(back, weights=weight)) / 2
    rms = float(np.sqrt(squares))
    volume = abs(volume_inside(settled)) / max(outline.volume_ml, 1e-9)
    return ShapeError(rms, rms / w, volume)


@dataclass(frozen=True, slots=True)
class Fit:
    """A settled piece laid onto a mesh.

    turn, shift: settled places x become x @ turn.T + shift. gap: (corners, 3) from the settled surface to each corner
    of the mesh, along the surface's normal. off: (nodes,) mm by which each settled node lies outside the mesh.
    """

    error: ShapeError
    turn: Vector
    shift: Vector
    gap: Vector
    off: Vector


def fit(settled: Settled, mesh: TriangleMesh) -> Fit:
    """Turn and shift a settled part onto a mesh, and measure how far they lie apart.

    The rigid fit is iterated closest points with distances to planes (Chen and Medioni, 1992).
    """
    w = settled.gauge.stitch_mm
    points, areas, normals = _surface_samples(settled.x, settled.triangles, SPACING * w)
    if settled.net.closings:
        keep = np.linalg.norm(points - settled.x[-1], axis=1) > CLOSING * w
        points, areas, normals = points[keep], areas[keep], normals[keep]
    there, there_area, there_normal = _surface_samples(mesh.x, mesh.faces, SPACING * w * 1.5)
    tree = cKDTree(there)
    few = slice(None, None, max(1, len(points) // _CAP))
    turn, shift = _turned_onto(points[few], areas[few], there, there_normal, tree)
    moved, faced = points @ turn.T + shift, normals @ turn.T
    one = _apart(moved, there, there_normal, tree, SPACING * w)
    back_tree = cKDTree(moved)
    keep_there = np.ones(len(there), np.bool_)
    if settled.net.closings:
        end = settled.x[-1] @ turn.T + shift
        keep_there = np.linalg.norm(there - end, axis=1) > CLOSING * w
    two = _apart(there[keep_there], moved, faced, back_tree, SPACING * w)
    squares = (np.average(one, weights=areas) + np.average(two, weights=there_area[keep_there])) / 2
    rms = float(np.sqrt(squares))
    _, at = back_tree.query(mesh.x)
    away = mesh.x - moved[at]
    gap = np.einsum("ij,ij->i", away, faced[at])[:, None] * faced[at]
    volume = abs(volume_inside(settled)) / max(mesh.volume_ml, 1e-9)
    nodes = settled.x @ turn.T + shift
    _, near = tree.query(nodes)
    off = np.einsum("ij,ij->i", nodes - there[near], there_normal[near])
    return Fit(ShapeError(rms, rms / w, volume), turn, shift, gap, off)


def _turned_onto(points: Vector, areas: Vector, there: Vector, normals: Vector, tree: cKDTree) -> tuple[Vector, Vector]:
    """Rotation and shift that lay points on a surface, from an upright start at the same middle."""
    turn = np.eye(3)
    shift = there.mean(0) - np.average(points, axis=0, weights=areas)
    weight = np.sqrt(areas / areas.sum())[:, None]
    for _ in range(_TURNS):
        moved = points @ turn.T + shift
        _, at = tree.query(moved)
        n, off = normals[at], np.einsum("ij,ij->i", there[at] - moved, normals[at])
        rows = np.hstack([np.cross(moved, n), n])
        ridge = 1e-6 * np.eye(6)
        a = rows * weight
        small = np.linalg.solve(a.T @ a + ridge, a.T @ (off[:, None] * weight)).ravel()
        angle = float(np.linalg.norm(small[:3]))
        k = small[:3] / max(angle, 1e-12)
        cross = np.array([[0.0, -k[2], k[1]], [k[2], 0.0, -k[0]], [-k[1], k[0], 0.0]])
        step = np.eye(3) + np.sin(min(angle, 0.3)) * cross + (1 - np.cos(min(angle, 0.3))) * cross @ cross
        turn, shift = step @ turn, step @ shift + small[3:]
        if angle < 1e-4 and np.linalg.norm(small[3:]) < 1e-3:
            break
    return turn, shift


def _apart(points: Vector, surface: Vector, normals: Vector, tree: cKDTree, spacing: float) -> Vector:
    """Squared distance of points from a sampled surface, along the nearest sample's normal and beyond its cell."""
    _, at = tree.query(points)
    gap = points - surface[at]
    along = np.einsum("ij,ij->i", gap, normals[at])
    across = np.maximum(np.einsum("ij,ij->i", gap, gap) - along**2, 0.0)
    beside = np.maximum(np.sqrt(across) - spacing, 0.0)
    out: Vector = along**2 + beside**2
    return out


def signed_apart(points: Vector, x: Vector, triangles: Numbers, spacing: float) -> Vector:
    """How far points lie outside a surface in mm, negative inside. spacing: of the surface's samples, in mm."""
    samples, _, normals = _surface_samples(x, triangles, spacing)
    far = np.sqrt(_apart(points, samples, normals, cKDTree(samples), spacing))
    out: Vector = np.where(np.abs(_winding(points, x[triangles])) > 0.5, -far, far)
    return out


_AT_ONCE = 2_000_000
"""Solid angles worked out together."""


def _winding(points: Vector, corners: Vector) -> Vector:
    """How often a surface goes around every point: 1 or -1 inside a closed one, 0 outside, between where it is open.

    corners: (t, 3, 3) of its triangles. The solid angle of a triangle is that of A. van Oosterom and J. Strackee, The
    solid angle of a plane triangle, IEEE Transactions on Biomedical Engineering 30 (1983).
    """
    out = np.empty(len(points))
    step = max(1, _AT_ONCE // max(len(corners), 1))
    for start in range(0, len(points), step):
        a, b, c = (corners[None, :, k] - points[start : start + step, None] for k in range(3))
        la, lb, lc = (np.linalg.norm(v, axis=2) for v in (a, b, c))
        triple = np.einsum("ijk,ijk->ij", a, np.cross(b, c))
        ab, bc, ca = (np.einsum("ijk,ijk->ij", *pair) for pair in ((a, b), (b, c), (c, a)))
        angle = 2 * np.arctan2(triple, la * lb * lc + ab * lc + bc * la + ca * lb)
        out[start : start + step] = angle.sum(axis=1) / (4 * np.pi)
    return out


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
