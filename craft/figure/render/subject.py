"""What is drawn: cloths of stitches, beads for eyes, threads of embroidery, each in the scene, in mm."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.figure.placement import Skin
from craft.figure.settling import rgb_of

Vector = NDArray[np.float64]
Whole = NDArray[np.int64]

UNNAMED = "#b99c6b"


@dataclass(frozen=True)
class Cloth:
    """A placed part. corners, normals: (s, 4, 3) of every stitch, foot left, foot right, top right, top left, outside
    facing. rgb: (s, 3) of 0 to 255. x, triangles, shade, facing: its fabric behind the stitches, the colour and the normal of every
    node.
    fuzz: 0 for smooth yarn to 1 for plush.
    """

    corners: Vector
    normals: Vector
    rgb: NDArray[np.uint8]
    x: Vector
    triangles: Whole
    shade: NDArray[np.uint8]
    facing: Vector
    fuzz: float = 0.0


@dataclass(frozen=True, slots=True)
class Bead:
    """A safety eye: where it stands, which way it looks, how wide it is."""

    at: tuple[float, float, float]
    out: tuple[float, float, float]
    mm: float
    colour: str = "#17120f"


@dataclass(frozen=True, slots=True)
class Thread:
    """Embroidery: a thread laid over the fabric from point to point."""

    points: tuple[tuple[float, float, float], ...]
    mm: float = 1.6
    colour: str = "#2d2621"


@dataclass(frozen=True)
class Sheet:
    """Felt, satin stitch or brushed colour laid on: points and unit normals (n, 3), triangles (t, 3). covers: how much of
    what is below it hides, of 1."""

    points: Vector
    out: Vector
    triangles: Whole
    colour: str
    covers: float = 1.0


@dataclass(frozen=True)
class Subject:
    """Everything in the picture. floor: height of the table, None where the figure touches it."""

    cloths: tuple[Cloth, ...]
    beads: tuple[Bead, ...] = ()
    threads: tuple[Thread, ...] = ()
    floor: float | None = None
    sheets: tuple[Sheet, ...] = ()

    @property
    def points(self) -> Vector:
        """(n, 3) of all that decides the picture's bounds."""
        own = [c.x for c in self.cloths] + [np.array(t.points) for t in self.threads]
        return np.concatenate(own) if own else np.zeros((1, 3))


VEIL_REACH_MM = 6.0
"""How far from a brushed patch's points a stitch may lie and be coloured by it."""


def veiled(cloth: Cloth, veils: Sequence[Sheet]) -> Cloth:
    """A cloth with colour brushed onto its stitches, fading towards the edge of every patch."""
    rgb = cloth.rgb.astype(np.float64)
    middle = cloth.corners.mean(1) if len(cloth.corners) else np.zeros((0, 3))
    for veil in veils:
        away, at = cKDTree(veil.points).query(middle)
        beside = np.linalg.norm(veil.points - veil.points[0], axis=1)
        edge = float(beside.max()) or 1.0
        fade = np.clip(1.5 * (1.0 - beside[at] / edge * 0.85), 0.0, 1.0)
        share = np.where(np.asarray(away) < min(VEIL_REACH_MM, edge), veil.covers * fade, 0.0)[:, None]
        rgb = rgb * (1 - share) + np.array(rgb_of(veil.colour)) * share
    return replace(cloth, rgb=rgb.round().astype(np.uint8))


def cloth_of(skin: Skin, matrix: Vector, palette: Mapping[str, str], *, fuzz: float = 0.0) -> Cloth:
    """A settled part in its place. palette: yarn names to '#rrggbb'; matrix: (4, 4) from its frame to the scene's."""
    turn, shift = matrix[:3, :3], matrix[:3, 3]
    x = skin.x @ turn.T + shift
    many = len(skin.colours)
    normal = _normals(x, skin.triangles)
    if np.linalg.det(turn) < 0:
        normal = -normal
    before, after = skin.beside[:, 0], skin.beside[:, 1]
    steps = np.maximum((skin.beside != np.arange(many)[:, None]).sum(1), 1)[:, None]
    half = (x[after] - x[before]) / steps / 2
    keep = np.flatnonzero(skin.below[:, 0] >= 0)
    left, right = skin.below[keep, 0], skin.below[keep, 1]
    own, feet = half[keep], _feet(skin.below, half, keep)
    corners = np.stack([x[left] - feet[0], x[right] + feet[1], x[keep] + own, x[keep] - own], axis=1)
    normals = np.stack([normal[left], normal[right], _unit(normal[keep] + normal[after[keep]]),
                        _unit(normal[keep] + normal[before[keep]])], axis=1)  # fmt: skip
    table = np.array([rgb_of(palette.get(y, palette.get("Main", UNNAMED))) for y in skin.yarns] or [rgb_of(UNNAMED)])
    rgb = table[skin.colours].astype(np.uint8)
    shade = np.concatenate([rgb, np.repeat(rgb[-1:], len(x) - many, axis=0)])
    return Cloth(corners, normals, rgb[keep], x, skin.triangles, shade, normal, fuzz)


def _feet(below: Whole, half: Vector, keep: Whole) -> tuple[Vector, Vector]:
    """Half the width of every stitch's foot, left and right: of the stitch below where it alone stands on it, else its
    own, as stitches that share one stand beside each other."""
    many = len(half)
    children = np.bincount(below[keep].ravel(), minlength=many)
    sides = []
    for k in (0, 1):
        under = below[keep, k]
        known = under < many
        alone = np.zeros(len(keep), np.bool_)
        alone[known] = children[under[known]] <= 2 - (below[keep[known], 0] != below[keep[known], 1])
        sides.append(np.where(alone[:, None], half[np.minimum(under, many - 1)], half[keep]))
    return sides[0], sides[1]


def _normals(x: Vector, triangles: Whole) -> Vector:
    """(n, 3) unit normals of the fabric at every node."""
    a, b, c = (x[triangles[:, k]] for k in range(3))
    flat = np.cross(b - a, c - a)
    out = np.zeros_like(x)
    for k in range(3):
        np.add.at(out, triangles[:, k], flat)
    return _unit(out)


def _unit(v: Vector) -> Vector:
    size = np.linalg.norm(v, axis=-1, keepdims=True)
    out: Vector = np.where(size > 1e-9, v / np.maximum(size, 1e-9), [0.0, 0.0, 1.0])
    return out
