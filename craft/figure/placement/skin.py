"""A settled part as something to draw and to write: every stitch a face, the fabric a mesh."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.picture import Faces
from craft.figure.settling import Mesh, Settled, relief_of, rgb_of

Vector = NDArray[np.float64]
Whole = NDArray[np.int64]

OVERLAP = 1.12
"""Faces are drawn a little larger than their stitches, so that nothing shows between them."""

UNNAMED = "#b99c6b"


@dataclass(frozen=True, slots=True)
class Skin:
    """Positions at rest with what stands where.

    x: (n, 3) nodes in mm, stitches first. below, beside: (s, 2) as in `craft.figure.settling.Relief`.
    colours: the yarn of each stitch, (s,) numbers into `yarns`. triangles: (t, 3) nodes. rounds: (s,) index of each stitch's
    round, -1 for a piece taken in; None where nobody asks for a part on the way.
    """

    name: str
    x: Vector
    below: Whole
    beside: Whole
    colours: Whole
    yarns: tuple[str, ...]
    triangles: Whole
    rounds: Whole | None = None

    @classmethod
    def of(cls, name: str, settled: Settled) -> Skin:
        """What a settled part is drawn and written from."""
        relief = relief_of(settled)
        below, beside = relief.below.astype(np.int64), relief.beside.astype(np.int64)
        yarns = tuple(settled.graph.colours)
        triangles, rounds = settled.triangles.astype(np.int64), relief.round.astype(np.int64)
        return cls(name, settled.x, below, beside, relief.colour.astype(np.int64), yarns, triangles, rounds)

    def up_to(self, round_: int) -> Skin:
        """As it is after so many rounds, from 1, in the place that they have in the finished part."""
        if self.rounds is None or round_ > int(self.rounds.max(initial=-1)):
            return self
        later = self.rounds >= round_
        gone = np.concatenate([later, np.zeros(len(self.x) - len(later), np.bool_)])
        below = np.where(later[:, None], -1, self.below)
        return replace(self, below=below, triangles=self.triangles[~gone[self.triangles].any(1)])

    def given_way(self, piece: Placed) -> Skin:
        """As it lies in a piece that gives way to others, or hangs."""
        skin = self if piece.x is None else replace(self, x=piece.x)
        return skin if piece.turned is None else skin._mirrored(piece.turned)

    def _mirrored(self, nodes: NDArray[np.bool_]) -> Skin:
        """With its right side out where the fabric is mirrored."""
        turned = np.any(nodes[self.triangles], axis=1, keepdims=True)
        triangles = np.where(turned, self.triangles[:, ::-1], self.triangles)
        beside = np.where(nodes[: len(self.beside), None], self.beside[:, ::-1], self.beside)
        return replace(self, triangles=triangles, beside=beside)

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
        across = self.x[self.beside[:, 1]] - self.x[self.beside[:, 0]]
        steps = (self.beside != np.arange(many)[:, None]).sum(1)
        half = across / np.maximum(steps, 1)[:, None] / 2 * OVERLAP
        left, right = self.x[self.below[:, 0]], self.x[self.below[:, 1]]
        down = ((left + right) / 2 - top) * (OVERLAP - 1)
        corners = np.stack([left - half + down, right + half + down, top + half, top - half], axis=1)
        keep = np.flatnonzero(self.below[:, 0] >= 0)
        ends = self.triangles[(self.triangles >= many).any(1)]
        fills, normals = self._fills(palette), self._normals()
        turn, shift = matrix[:3, :3], matrix[:3, 3]
        quads = np.concatenate([corners[keep], self.x[ends[:, [0, 1, 2, 2]]]])
        outward = np.concatenate([normals[:many][keep], normals[ends[:, 0]]])
        colours = [fills[i] for i in keep] + [fills[min(i, many - 1)] for i in ends.min(1)]
        return Faces(quads @ turn.T + shift, colours, outward @ turn.T)

    def mesh(self, matrix: Vector, palette: Mapping[str, str]) -> Mesh:
        """Its fabric in the scene, coloured."""
        rgb = np.array([rgb_of(fill) for fill in self._fills(palette)], np.uint8)
        rest = np.repeat(rgb[:1], len(self.x) - len(rgb), axis=0)
        x = self.x @ matrix[:3, :3].T + matrix[:3, 3]
        return Mesh(self.name, x, self.triangles, np.concatenate([rgb, rest]))


EYE = "#17120f"


def eye_faces(points: Vector, out: Vector, eye_mm: float, matrix: Vector) -> Faces:
    """Eyes as dark discs on a part: points and directions (2, 3) in its own frame."""
    quads: list[Vector] = []
    outward: list[Vector] = []
    for point, way in zip(points, out, strict=True):
        z = way / max(float(np.linalg.norm(way)), 1e-9)
        x = np.cross(z, [0.0, 0.0, 1.0] if abs(z[2]) < 0.9 else [0.0, 1.0, 0.0])
        x /= np.linalg.norm(x)
        y = np.cross(z, x)
        middle = point + z * eye_mm * 0.35
        rim = [middle + (x * np.cos(a) + y * np.sin(a)) * eye_mm / 2 for a in np.arange(8) * np.pi / 4]
        for k in range(0, 8, 2):
            quads.append(np.array([middle, rim[k], rim[k + 1], rim[(k + 2) % 8]]))
            outward.append(z)
    turn = matrix[:3, :3]
    return Faces(np.array(quads) @ turn.T + matrix[:3, 3], [EYE] * len(quads), np.array(outward) @ turn.T)
