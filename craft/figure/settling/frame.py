"""The frame that a settled part stands in: z from its start to its close, its front to the viewer."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.figure.settling.net import Net
from craft.figure.settling.sheets import Sheets
from craft.figure.settling.start import is_plain

MORE_ALIKE = 0.6
"""Share of the other's distance from its mirror image at which an axis counts as the one from left to right."""

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

FLAT_PANEL = 0.8
"""Flatness from which the right side of a piece is its front."""


def in_frame(net: Net, sheets: Sheets, x: Vector, *, forward: Vector | None = None, up: Vector | None = None) -> Vector:
    """Rotate and shift: z from R1 to the close, or along `up`; R1's middle at the origin; its first stitch to the front, or
    the broad side across `forward`. What begins on a chain and is the same left and right stands so that it is."""
    centred = x - x.mean(0)
    level = net.level - net.level.mean()
    rise = level @ centred
    spread = float(np.linalg.norm(level) * np.linalg.norm(centred)) + 1e-12
    _, axes = np.linalg.eigh(centred.T @ centred)
    flat = np.linalg.norm(rise) < 0.15 * spread
    z = up if up is not None else axes[:, 0] if flat else rise / np.linalg.norm(rise)
    if forward is not None:
        forward = across(forward, z)
        start = net.edges[0].nodes
        forward = forward if (centred[start[0]] - centred[start].mean(0)) @ forward >= 0 else -forward
    elif is_plain(net):
        forward = across(centred[net.edges[0].nodes[0]] - centred[net.edges[0].nodes].mean(0), z)
    elif _flatness(centred, sheets) > FLAT_PANEL:
        forward = across(_facing(centred, sheets), z)
    else:
        sideways = across(axes[:, 2] if abs(axes[:, 2] @ z) < 0.7 else axes[:, 1], z)
        forward = np.cross(z, sideways)
        if not net.middles and _unlike(centred, forward) < MORE_ALIKE * _unlike(centred, sideways):
            forward = sideways
        # A chain's first stitch lies where the last is worked into it: the first that stands on it counts.
        first = net.edges[0].nodes[0] if net.middles or not len(net.posts) else int(net.posts[:, 0].min())
        forward = forward if (centred[first] - centred[net.edges[0].nodes].mean(0)) @ forward >= 0 else -forward
    y = -forward
    turned = centred @ np.column_stack([np.cross(y, z), y, z])
    start = net.edges[0].nodes if net.edges else np.arange(len(turned))
    foot = turned[len(net.stitch)] if net.middles else turned[start].mean(0)
    shift = foot if is_plain(net) or not net.middles else np.array([*turned.mean(0)[:2], foot[2]])
    out: Vector = turned - shift
    return out


def _unlike(x: Vector, way: Vector) -> float:
    """How far points lie from their mirror image across the plane square to `way`, in mm in the mean."""
    mirrored = x - 2 * np.outer(x @ way, way)
    return float(np.asarray(cKDTree(x).query(mirrored)[0]).mean())


def _facing(x: Vector, sheets: Sheets) -> Vector:
    """Sum of the area vectors of the largest sheet, in mm²."""
    t = sheets.triangles[sheets.sheet == 0]
    total: Vector = np.cross(x[t[:, 1]] - x[t[:, 0]], x[t[:, 2]] - x[t[:, 0]]).sum(0) / 2
    return total


def _flatness(x: Vector, sheets: Sheets) -> float:
    """1 for a flat sheet, 0 for a closed one."""
    whole = area(x, sheets.triangles[sheets.sheet == 0])
    return float(np.linalg.norm(_facing(x, sheets))) / max(whole, 1e-9)


def across(v: Vector, z: Vector) -> Vector:
    """The direction of `v` square to `z`."""
    flat = v - (v @ z) * z
    size = float(np.linalg.norm(flat))
    if size > 1e-9:
        return flat / size
    other = np.cross(z, [1.0, 0.0, 0.0]) if abs(z[0]) < 0.9 else np.cross(z, [0.0, 1.0, 0.0])
    return other / math.sqrt(float(other @ other))


def area(x: Vector, triangles: Numbers) -> float:
    """Area in mm² of triangles (t, 3) of nodes."""
    a, b, c = x[triangles[:, 0]], x[triangles[:, 1]], x[triangles[:, 2]]
    return float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)
