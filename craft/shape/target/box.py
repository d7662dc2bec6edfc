"""A box: the skin that flat panels make, with its sides parallel to the figure's own."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import require
from craft.shape.target.mesh import TriangleMesh

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

LEAST_MM, MOST_MM = 5.0, 2000.0

_FINE = 8
"""Cells along each edge: enough for distances over the skin to be true."""


@dataclass(frozen=True, slots=True)
class Box:
    """A box by its outer size in mm. CraftError for sizes out of reach."""

    width_mm: float
    depth_mm: float
    height_mm: float

    def __post_init__(self) -> None:
        for name in ("width", "depth", "height"):
            size = getattr(self, f"{name}_mm")
            require(
                isinstance(size, int | float) and LEAST_MM <= size <= MOST_MM,
                f"The {name} of a box lies between {LEAST_MM:g} mm and 2 m.",
                field=f"{name}_mm",
            )

    @property
    def open(self) -> bool:
        """A box is closed."""
        return False

    def scaled(self, factor: float) -> Box:
        """The same box at another size."""
        return Box(self.width_mm * factor, self.depth_mm * factor, self.height_mm * factor)

    def mesh(self) -> TriangleMesh:
        """Its skin: it stands on z = 0 with its middle on the axis, its sides parallel to the figure's."""
        at = np.linspace(-0.5, 0.5, _FINE + 1)
        u, v = (g.ravel() for g in np.meshgrid(at, at))
        cell = np.arange((_FINE + 1) ** 2).reshape(_FINE + 1, _FINE + 1)
        a, b, c, d = (m.ravel() for m in (cell[:-1, :-1], cell[:-1, 1:], cell[1:, 1:], cell[1:, :-1]))
        quads = np.concatenate([np.column_stack([a, b, c]), np.column_stack([a, c, d])])
        points: list[Vector] = []
        faces: list[Numbers] = []
        for axis in range(3):
            for sign in (-0.5, 0.5):
                p = np.empty((len(u), 3))
                p[:, axis] = sign
                p[:, (axis + 1) % 3], p[:, (axis + 2) % 3] = u, v
                faces.append((quads if sign > 0 else quads[:, ::-1]) + len(u) * len(points))
                points.append(p)
        x = np.concatenate(points)
        grid = np.round(x * 2 * _FINE).astype(int)
        _, first, where = np.unique(grid, axis=0, return_index=True, return_inverse=True)
        x = x[first] * [self.width_mm, self.depth_mm, self.height_mm] + [0, 0, self.height_mm / 2]
        return TriangleMesh(x, where.ravel()[np.concatenate(faces)], int(np.argmin(np.linalg.norm(x, axis=1))))
