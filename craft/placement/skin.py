"""A settled part as something to draw and to write: every stitch a face, the fabric a mesh."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure import Faces
from craft.settling import Mesh, rgb_of

Vector = NDArray[np.float64]
Whole = NDArray[np.int64]

UNNAMED = "#b99c6b"


@dataclass(frozen=True, slots=True)
class Skin:
    """Positions at rest with what stands where.

    x: (n, 3) nodes in mm, stitches first. below, beside: (s, 2) as in `craft.settling.Relief`.
    colours: the yarn of each stitch, (s,) numbers into `yarns`. triangles: (t, 3) nodes.
    """

    name: str
    x: Vector
    below: Whole
    beside: Whole
    colours: Whole
    yarns: tuple[str, ...]
    triangles: Whole

    def _normals(self) -> Vector:
        """(n, 3) outward directions of the fabric at every node, not of unit length."""
        a, b, c = (self.x[self.triangles[:, k]] for k in range(3))
        normal = np.cross(b - a, c - a)
        out = np.zeros_like(self.x)
        for k in range(3):
            np.add.at(out, self.triangles[:, k], normal)
        return out

    def _fills(self, palette: Mapping[str, str]) -> list[str]:
        main = palette.get("Main", UNNAMED)
        table = [palette.get(y, main) for y in self.yarns] or [main]
        return [table[c] for c in self.colours]

    def faces(self, matrix: Vector, palette: Mapping[str, str]) -> Faces:
        """Its stitches as faces in the scene. palette: yarn names to '#rrggbb'."""
        many = len(self.below)
        top = self.x[:many]
        known = self.below[:, 0] >= 0
        foot = np.where(known[:, None], (self.x[self.below[:, 0]] + self.x[self.below[:, 1]]) / 2, top)
        across = self.x[self.beside[:, 1]] - self.x[self.beside[:, 0]]
        steps = (self.beside != np.arange(many)[:, None]).sum(1)
        half = across / np.maximum(steps, 1)[:, None] / 2
        corners = np.stack([foot - half, foot + half, top + half, top - half], axis=1)
        keep = np.flatnonzero(known)
        fills = self._fills(palette)
        turn, shift = matrix[:3, :3], matrix[:3, 3]
        return Faces(
            corners[keep] @ turn.T + shift, [fills[i] for i in keep], self._normals()[:many][keep] @ turn.T
        )  # fmt: skip

    def mesh(self, matrix: Vector, palette: Mapping[str, str]) -> Mesh:
        """Its fabric in the scene, coloured."""
        rgb = np.array([rgb_of(fill) for fill in self._fills(palette)], np.uint8)
        rest = np.repeat(rgb[:1], len(self.x) - len(rgb), axis=0)
        x = self.x @ matrix[:3, :3].T + matrix[:3, 3]
        return Mesh(self.name, x, self.triangles, np.concatenate([rgb, rest]))
