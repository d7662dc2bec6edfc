"""Solids of revolution by height and width: outlines from the start pole to the end.

Every outline is a closed formula in docs/drafting.md, sampled finely; lengths in mm.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError, require
from craft.units import positive

Vector = NDArray[np.float64]
SAMPLES = 1441


LEVEL, WIDE_END = 0.005, 0.4
"""How level an end must lie, as a share of the height, and how far out, as a share of the width, to be a flat one."""


@dataclass(frozen=True, slots=True)
class Outline:
    """Half a silhouette: radius and z in mm from the start pole (0, 0), and arc length `s` along it."""

    r: Vector
    z: Vector
    s: Vector

    @classmethod
    def through(cls, r: Vector, z: Vector) -> Outline:
        """The outline through points in order; z is measured from the first."""
        s = np.concatenate([[0.0], np.cumsum(np.hypot(np.diff(r), np.diff(z)))])
        return cls(np.maximum(r, 0.0), z - z[0], s)

    @property
    def length(self) -> float:
        """Arc length from pole to end in mm."""
        return float(self.s[-1])

    def radius_at(self, s: Vector) -> Vector:
        """Radius at arc lengths `s`."""
        return np.interp(s, self.s, self.r)

    def height_at(self, s: Vector) -> Vector:
        """z at arc lengths `s`."""
        return np.interp(s, self.s, self.z)

    def flat_end_mm(self) -> float:
        """Across the wider of its flat ends, 0 for a body with none: one that lies level over much of its width."""
        tall = max(float(self.z.max() - self.z.min()), 1e-9)
        ends = []
        for z, r in ((self.z, self.r), (self.z[::-1], self.r[::-1])):
            level = np.abs(z - z[0]) < LEVEL * tall
            reach = int(np.argmin(level)) or len(level)
            ends.append(2 * float(r[:reach].max()) if r[0] < 1e-6 else 0.0)
        widest = 2 * float(self.r.max())
        return max((end for end in ends if end > WIDE_END * widest), default=0.0)

    @property
    def volume_ml(self) -> float:
        """Volume of revolution in ml."""
        return abs(float(np.trapezoid(math.pi * self.r**2, self.z))) / 1000

    @property
    def area_cm2(self) -> float:
        """Area of revolution in cm²."""
        return float(np.trapezoid(2 * math.pi * self.r, self.s)) / 100


_T = np.linspace(0.0, 1.0, SAMPLES)


def _ellipse(height: float, width: float) -> tuple[Vector, Vector]:
    t = math.pi * _T
    return width / 2 * np.sin(t), height / 2 * (1 - np.cos(t))


def _egg(height: float, width: float, point: float) -> tuple[Vector, Vector]:
    """r = b sin t (1 + k cos t), widest below the middle; k = `point` from 0 to 0.5, scaled to the width."""
    t = math.pi * _T
    r = np.sin(t) * (1 + point * np.cos(t))
    return r * (width / 2 / r.max()), height / 2 * (1 - np.cos(t))


def _drop(height: float, width: float) -> tuple[Vector, Vector]:
    """A teardrop from its tip: r = sin(t) sin²(t / 2) scaled to the width, t from 0 to π."""
    t = math.pi * _T
    r = np.sin(t) * np.sin(t / 2) ** 2
    return r * (width / 2 / r.max()), height / 2 * (1 - np.cos(t))


def _straight(*points: tuple[float, float]) -> tuple[Vector, Vector]:
    r, z = (np.array(axis, float) for axis in zip(*points, strict=True))
    s = np.concatenate([[0.0], np.cumsum(np.hypot(np.diff(r), np.diff(z)))])
    at = np.union1d(np.linspace(0.0, s[-1], SAMPLES), s)
    return np.interp(at, s, r), np.interp(at, s, z)


def _capsule(height: float, width: float, ends: str) -> tuple[Vector, Vector]:
    radius = width / 2
    if ends == "flat":
        return _straight((0, 0), (radius, 0), (radius, height), (0, height))
    cap = min(radius, height / 2)
    t = math.pi / 2 * np.linspace(0, 1, SAMPLES // 2)
    r = np.concatenate([radius * np.sin(t), radius * np.cos(t)])
    z = np.concatenate([cap * (1 - np.cos(t)), height - cap + cap * np.sin(t)])
    return r, z


def _dome(height: float, width: float, closed: bool) -> tuple[Vector, Vector]:
    t = math.pi / 2 * _T
    r, z = width / 2 * np.sin(t), height * (1 - np.cos(t))
    if closed:
        base = np.linspace(width / 2, 0, SAMPLES // 2)[1:]
        r, z = np.concatenate([r, base]), np.concatenate([z, np.full_like(base, height)])
    return r, z


@dataclass(frozen=True, slots=True)
class SolidKind:
    """A kind of solid: its name in words, what it is good for, and whether it is the same both ways up."""

    key: str
    title: str
    use: str
    mirrored: bool
    outline: Callable[[Solid], tuple[Vector, Vector]]
    open_share: float = 0.4


SOLIDS: Mapping[str, SolidKind] = MappingProxyType(
    {
        kind.key: kind
        for kind in (
            SolidKind("sphere", "Ball", "heads, bodies", True, lambda s: _ellipse(s.width_mm, s.width_mm)),
            SolidKind(
                "ellipsoid",
                "Ellipsoid",
                "long or flat bodies, seeds",
                True,
                lambda s: _ellipse(s.height_mm, s.width_mm),
            ),
            SolidKind(
                "egg", "Egg", "sitting bodies, blunt end first", False, lambda s: _egg(s.height_mm, s.width_mm, s.point)
            ),
            SolidKind(
                "drop", "Drop", "tip first: noses, hats, leaves", False, lambda s: _drop(s.height_mm, s.width_mm)
            ),
            SolidKind(
                "cone",
                "Cone",
                "tip first: noses, horns, hats",
                False,
                lambda s: _straight((0, 0), (s.width_mm / 2, s.height_mm), *(() if s.open else ((0.0, s.height_mm),))),
                1.0,
            ),
            SolidKind(
                "dome", "Dome", "caps, ears, shells", False, lambda s: _dome(s.height_mm, s.width_mm, not s.open), 1.0
            ),
            SolidKind(
                "capsule",
                "Capsule",
                "bodies, arms, legs",
                True,
                lambda s: _capsule(s.height_mm, s.width_mm, "domed"),
                1.0,
            ),
            SolidKind(
                "cylinder",
                "Cylinder",
                "stems, drums, stumps",
                True,
                lambda s: _capsule(s.height_mm, s.width_mm, "flat"),
                1.0,
            ),
        )
    }
)
"""Every kind of solid by its key."""


@dataclass(frozen=True, slots=True)
class Solid:
    """A solid of revolution.

    height_mm, width_mm: outer size of the stuffed piece; a sphere's height is its width.
    open: left open at the far end, at `opening_mm` across (a default for its kind if None).
    point: how pointed an egg is, 0 to 0.5.
    """

    kind: str
    height_mm: float
    width_mm: float
    open: bool = False
    opening_mm: float | None = None
    point: float = field(default=0.2)

    def __post_init__(self) -> None:
        if self.kind not in SOLIDS:
            raise CraftError(f"No solid is called {self.kind!r}; there are {', '.join(SOLIDS)}.", field="kind")
        positive(self.height_mm, "Height", most=2_000, field="height_mm")
        positive(self.width_mm, "Width", most=2_000, field="width_mm")
        require(
            0.05 <= self.height_mm / self.width_mm <= 20,
            "A solid is at most 20 times as long as wide.",
            field="height_mm",
        )
        require(0 <= self.point <= 0.5, "An egg's point lies between 0 and 0.5.", field="point")
        if self.kind == "sphere":
            object.__setattr__(self, "height_mm", self.width_mm)
        if self.open and self.opening_mm is not None:
            positive(self.opening_mm, "The opening", most=self.width_mm, field="opening_mm")

    @property
    def opening(self) -> float:
        """Diameter in mm of the end that is left open; 0 for a closed solid."""
        if not self.open:
            return 0.0
        return self.opening_mm if self.opening_mm is not None else SOLIDS[self.kind].open_share * self.width_mm

    def outline(self) -> Outline:
        """The outline from the start pole to the end, cut off at the opening if there is one."""
        r, z = SOLIDS[self.kind].outline(self)
        if self.open:
            widest = int(np.argmax(r))
            small = np.flatnonzero(r[widest:] < self.opening / 2 * (1 - 1e-9))
            if len(small):
                r, z = r[: widest + small[0]], z[: widest + small[0]]
        return Outline.through(r, z)

    def scaled(self, factor: float) -> Solid:
        """The same shape at another size."""
        opening = None if self.opening_mm is None else self.opening_mm * factor
        return Solid(self.kind, self.height_mm * factor, self.width_mm * factor, self.open, opening, self.point)
