"""Traced silhouettes: half outlines through a few handles, from the front and from the side."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from craft.errors import require
from craft.shape.target.mesh import TriangleMesh, revolved
from craft.shape.target.solids import SAMPLES, Outline

Vector = NDArray[np.float64]
Handle = tuple[float, float]

MOST_HANDLES = 60
LEAST_SECTION, MOST_SECTION = 8, 360


def smooth_half(handles: Sequence[Handle], *, closed: bool) -> Outline:
    """A smooth half outline through handles (half width, height) in mm, from the start pole up.

    The first handle is the pole, and the last one of a closed outline the end: both lie on the axis,
    where the curve runs on into its mirror image, so that ends come out round.
    """
    points = np.asarray(handles, float)
    ghosts = np.array([-1.0, 1.0])
    line = [points[2:0:-1] * ghosts, points, points[-2:-4:-1] * ghosts] if closed else [points[2:0:-1] * ghosts, points]
    whole = np.concatenate(line)
    steps = np.maximum(np.sqrt(np.hypot(*np.diff(whole, axis=0).T)), 1e-9)  # centripetal: no loops between near handles
    at = np.concatenate([[0.0], np.cumsum(steps)])
    begin = len(line[0])
    t = np.linspace(at[begin], at[begin + len(points) - 1], SAMPLES)
    curve = CubicSpline(at, whole, bc_type="natural")(t)
    r = np.maximum(curve[:, 0], 0.0)
    r[0] = 0.0
    if closed:
        r[-1] = 0.0
    return Outline.through(r, curve[:, 1])


@dataclass(frozen=True, slots=True)
class Backing:
    """A picture behind an outline: its number in the studio, mm a pixel, and the pixel at which the pole lies."""

    number: int
    mm_per_px: float
    pole_x: float
    pole_y: float

    def __post_init__(self) -> None:
        require(self.number > 0, "A picture has a number from 1 on.", field="picture")
        require(0 < self.mm_per_px <= 100, "A pixel of the picture is up to 100 mm.", field="picture")
        require(abs(self.pole_x) <= 1e5 and abs(self.pole_y) <= 1e5, "The pole lies on the picture.", field="picture")


@dataclass(frozen=True, slots=True)
class Traced:
    """A shape from one or two half outlines and a bent axis.

    front: handles (half width, height) in mm, the first at the pole (0, 0). side: the same as seen from the
    side (half depth, height); without it every round is a circle. axis: (forward, height) by which the middle
    runs forward (positive) or back. open: the end is left open. picture: what it was traced over. section: the
    cross-section, as reaches from its middle at even angles from the front on to the viewer's left, in half widths.
    """

    front: tuple[Handle, ...]
    side: tuple[Handle, ...] = ()
    axis: tuple[Handle, ...] = ()
    open: bool = False
    picture: Backing | None = None
    section: tuple[float, ...] = ()

    def __post_init__(self) -> None:
        object.__setattr__(self, "front", _handles(self.front, "front", least=3))
        object.__setattr__(self, "side", _handles(self.side, "side", least=3) if self.side else ())
        axis = tuple((float(y), float(z)) for y, z in self.axis)
        require(len(axis) <= MOST_HANDLES, f"An axis has at most {MOST_HANDLES} handles.", field="axis")
        require(all(abs(v) <= 2_000 for h in axis for v in h), "The axis stays within 2,000 mm.", field="axis")
        require(len({z for _, z in axis}) == len(axis), "Two handles of the axis lie at one height.", field="axis")
        object.__setattr__(self, "axis", tuple(sorted(axis, key=lambda h: h[1])))
        section = tuple(float(r) for r in self.section)
        require(
            not section or LEAST_SECTION <= len(section) <= MOST_SECTION,
            f"A cross-section has {LEAST_SECTION} to {MOST_SECTION} reaches.",
            field="section",
        )
        require(all(0.05 <= r <= 20 for r in section), "A cross-section reaches out on every side.", field="section")
        object.__setattr__(self, "section", section)
        require(
            self.open or self.front[-1][0] < 0.25 * self.width_mm, "A closed outline ends on the axis.", field="front"
        )

    @property
    def height_mm(self) -> float:
        """Height from pole to the highest point."""
        return max(z for _, z in self.front) - min(z for _, z in self.front)

    @property
    def width_mm(self) -> float:
        """Twice the widest handle."""
        return 2 * max(r for r, _ in self.front)

    def outline(self) -> Outline:
        """The front half outline."""
        return smooth_half(self._ended(self.front), closed=not self.open)

    def _ended(self, handles: tuple[Handle, ...]) -> tuple[Handle, ...]:
        """Handles with the last one put on the axis when the end is closed."""
        return handles if self.open else (*handles[:-1], (0.0, handles[-1][1]))

    @property
    def is_round(self) -> bool:
        """Whether it is a body of revolution about a straight axis."""
        return not self.side and not self.section and not any(y for y, _ in self.axis)

    def mesh(self) -> TriangleMesh:
        """The shape as a surface: every height as wide as the front outline and as deep as the side one."""
        made = revolved(self.outline(), closed=not self.open)
        x = made.x.copy()
        if self.section:
            x[:, :2] *= self._reach(np.arctan2(-x[:, 0], -x[:, 1]))[:, None]
        if self.side:
            x[:, 1] *= self._depth_share(x[:, 2])
        if self.axis:
            along = np.array([z for _, z in self.axis])
            forward = np.array([y for y, _ in self.axis])
            x[:, 1] -= _between(along, forward, x[:, 2])
        return made.with_corners(x)

    def _reach(self, angle: Vector) -> Vector:
        """How far the cross-section reaches at angles from the front, in half widths; smooth between its reaches."""
        n = len(self.section)
        closed = np.append(self.section, self.section[0])
        curve = CubicSpline(np.arange(n + 1) * 2 * np.pi / n, closed, bc_type="periodic")
        out: Vector = np.maximum(curve(np.mod(angle, 2 * np.pi)), 0.02)
        return out

    def _depth_share(self, z: Vector) -> Vector:
        """Depth over width at heights `z`; near the ends that of a little inside, where both are thin."""
        front, side = self.outline(), smooth_half(self._ended(self.side), closed=not self.open)
        top = float(front.z.max())
        heights = np.linspace(0.02 * top, 0.98 * top if not self.open else top, 200)
        share = _width_at(side, heights * float(side.z.max()) / top) / np.maximum(_width_at(front, heights), 1e-6)
        return np.interp(z, heights, np.clip(share, 0.05, 20.0))

    def scaled(self, factor: float) -> Traced:
        """The same shape at another size, no longer over its picture."""

        def larger(handles: tuple[Handle, ...]) -> tuple[Handle, ...]:
            return tuple((r * factor, z * factor) for r, z in handles)

        return Traced(larger(self.front), larger(self.side), larger(self.axis), self.open, None, self.section)


def _handles(given: Sequence[Handle], name: str, *, least: int) -> tuple[Handle, ...]:
    found = tuple((float(r), float(z)) for r, z in given)
    require(least <= len(found) <= MOST_HANDLES, f"An outline has {least} to {MOST_HANDLES} handles.", field=name)
    require(all(np.isfinite(v) for h in found for v in h), "A handle lies nowhere.", field=name)
    require(all(0 <= r <= 1_000 and abs(z) <= 2_000 for r, z in found), "Handles stay within 1,000 mm.", field=name)
    low = found[0][1]
    found = ((0.0, 0.0), *((r, z - low) for r, z in found[1:]))
    require(max(r for r, _ in found) >= 1, "The outline has no width.", field=name)
    require(max(z for _, z in found) >= 1, "The outline has no height.", field=name)
    require(
        all(np.hypot(b[0] - a[0], b[1] - a[1]) > 0.05 for a, b in itertools.pairwise(found)),
        "Two handles lie on each other.",
        field=name,
    )
    return found


def _width_at(outline: Outline, z: Vector) -> Vector:
    """The largest half width at heights `z`."""
    order = np.argsort(outline.z, kind="stable")
    return np.interp(z, outline.z[order], np.maximum(outline.r[order], 0.0))


def _between(along: Vector, values: Vector, z: Vector) -> Vector:
    """Smooth values between handles at heights `along`; one handle shifts everything above it smoothly."""
    if len(along) < 3:
        along, values = (
            np.append(0.0, along[along > 0]),
            np.append(values[along <= 0][:1] if (along <= 0).any() else 0.0, values[along > 0]),
        )
    if len(along) < 2:
        return np.full_like(z, values[0])
    out: Vector = CubicSpline(along, values, bc_type="natural")(np.clip(z, along[0], along[-1]))
    return out
