"""From where the picture is seen, and from where it is lit: matrices from the scene to the cube that is drawn."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from craft.figure.render.look import Look

Vector = NDArray[np.float64]

MARGIN = 1.12
"""How much larger than the figure the picture is."""

LIGHT = np.array([-0.42, -0.68, 0.60])
"""The way to the key light: high, in front, on the left. The same in shaders/light.glsl."""

_ROOM_MM = 400.0
"""Room in depth before and behind the figure, for the table."""


def seen_by(points: Vector, look: Look) -> tuple[Vector, Vector]:
    """(4, 4) to the cube that is drawn, and the unit vector to the viewer. points: (n, 3) that the picture holds."""
    axes = look.axes()
    seen = points @ axes.T
    low, high = seen.min(0), seen.max(0)
    wide = high - low
    aspect = look.width / look.height
    if look.mm_across is None:
        half = MARGIN / 2 * max(wide[1], wide[0] / aspect, 1e-3)
    else:
        half = look.mm_across / 2 * max(1.0, 1 / aspect)
    deep = max(float(wide[2]), 1.0) * 2 + _ROOM_MM
    return _into_cube(axes, (low + high) / 2, np.array([1 / (half * aspect), 1 / half, -1 / deep])), axes[2]


def lit_by(points: Vector) -> Vector:
    """(4, 4) to the cube that the key light sees."""
    z = LIGHT / np.linalg.norm(LIGHT)
    x = np.cross([0.0, 0.0, 1.0], z)
    x /= np.linalg.norm(x)
    axes = np.stack([x, np.cross(z, x), z])
    seen = points @ axes.T
    low, high = seen.min(0) - 4, seen.max(0) + 4
    return _into_cube(axes, (low + high) / 2, 2 / np.maximum(high - low, 1e-3) * np.array([1.0, 1.0, -1.0]))


def _into_cube(axes: Vector, middle: Vector, scale: Vector) -> Vector:
    matrix = np.eye(4)
    matrix[:3, :3] = axes * scale[:, None]
    matrix[:3, 3] = -middle * scale
    return matrix
