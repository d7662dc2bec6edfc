"""The shape that counts make: a quick profile of revolution, and the estimate of it stuffed.

The quick profile lays each round h further along; the inflated one is the axisymmetric
equilibrium of springs and pressure, good to a few percent and done in milliseconds.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dpbsv

from craft.errors import require
from craft.gauge import Gauge
from craft.remembered import of_short

Vector = NDArray[np.float64]


class Lie(StrEnum):
    """How a round lies on the one before."""

    WALL = "wall"
    CUP = "cup"
    FLAT = "flat"
    RUFFLE = "ruffle"


@dataclass(frozen=True, slots=True)
class Profile:
    """Rounds as circles: radius and height in mm of each round's top edge, R1 first, z from 0 up.

    lies: how each round lies. closed: the last opening is drawn together.
    """

    radius: Vector
    height: Vector
    lies: tuple[Lie, ...]
    closed: bool

    @property
    def height_mm(self) -> float:
        """Height over all, in mm."""
        return float(np.ptp(np.append(self.height, 0.0))) if len(self.height) else 0.0

    @property
    def width_mm(self) -> float:
        """Largest width, in mm."""
        return float(2 * self.radius.max()) if len(self.radius) else 0.0

    @property
    def volume_ml(self) -> float:
        """Volume inside, with a flat lid on an open end, in ml."""
        r, z = np.append(0.0, self.radius), np.append(0.0, self.height)
        return abs(float(np.sum(np.diff(z) * (r[1:] ** 2 + r[1:] * r[:-1] + r[:-1] ** 2)) * math.pi / 3)) / 1000

    @property
    def area_cm2(self) -> float:
        """Area of the fabric, in cm²."""
        r, z = np.append(0.0, self.radius), np.append(0.0, self.height)
        return float(np.sum(np.hypot(np.diff(r), np.diff(z)) * (r[1:] + r[:-1]))) * math.pi / 100


FOLDS = 2.2
"""Stitches of a round that the two folds at its sides take from its width (measured on a settled tube of 16)."""

BY_EDGE = 0.3
"""Share by which rounds follow the outline's length and not its height: where it is round, the folds at its sides are
longer than the middle is high, and the fabric gives way to both (chosen so that balls, ellipsoids, drops and capsules come out)."""

END = 0.5
"""Rounds by which a closed end lies lower than its rounds are high: they fan out around it (chosen with the share above)."""

EMPTY = 1 / 1.03
"""Size of a stitch without filling, of the gauge's, which is of stuffed fabric (docs/settling.md)."""

CUP_BELOW, RUFFLE_ABOVE = 0.85, 1.15
"""|dr| / h below which a round cups, and above which it ruffles; flat between."""


def _lies(radius: Vector, heights: Vector) -> tuple[Lie, ...]:
    """A growing round ruffles only when it outgrows the flat disc so far, not one step of it.

    Growth is judged over two rounds, because increases are often worked every second round.
    """
    lies: list[Lie] = []
    before = np.append(0.0, radius[:-1])
    for i, h in enumerate(heights):
        step = abs(radius[i] - before[i])
        if i and radius[i] > before[i]:
            two = radius[i] - (before[i - 1] if i > 1 else 0.0)
            step = min(step, max(two - heights[i - 1], two / 2))
        ratio = step / h
        if ratio < 0.15:
            lies.append(Lie.WALL)
        else:
            lies.append(Lie.CUP if ratio < CUP_BELOW else Lie.FLAT if ratio <= RUFFLE_ABOVE else Lie.RUFFLE)
    return tuple(lies)


def _given(counts: Sequence[int], gauge: Gauge, heights: Sequence[float] | None) -> tuple[Vector, Vector]:
    require(all(c >= 0 for c in counts), "A round has no stitches or more.")
    n = np.asarray(counts, float)
    h = gauge.round_mm * (np.ones_like(n) if heights is None else np.asarray(heights, float))
    return n, h


def quick_profile(
    counts: Sequence[int], gauge: Gauge, *, closed: bool = False, heights: Sequence[float] | None = None
) -> Profile:
    """Each round n stitches wide: r = n w / 2π, dz = sqrt(max(0, h² - dr²)).

    counts: live stitches of each round. heights: of each round in single crochets, 1 if not given.
    """
    n, h = _given(counts, gauge, heights)
    radius = n * gauge.stitch_mm / (2 * math.pi)
    dr = np.diff(radius, prepend=0.0)
    height = np.cumsum(np.sqrt(np.maximum(0.0, h**2 - dr**2)))
    return Profile(radius, height, _lies(radius, h), closed)


REFERENCE_FIRMNESS = 0.5
"""The firmness at which gauge is measured."""

_SLACK = 0.06
"""Stiffness of a stitch pushed together, as a share of one pulled apart."""

_NEWTON_STEPS, _ENOUGH = 60, 2e-3


def pressure_share(firmness: float) -> float:
    """Filling pressure as a share of k / r_max: 0.03 soft to 0.09 firm for firmness 0 to 1."""
    require(0 <= firmness <= 1, "Firmness lies between 0 and 1.", field="firmness")
    return 0.03 + 0.06 * firmness


def _rest(gauge: Gauge, h: Vector) -> tuple[float, Vector]:
    """Unstuffed stitch width and round heights: stuffed ones less the strain of reference pressure.

    At the equator of a ball both membrane stresses are p r / 2; h and w / that stress is the pull
    on one spring along and up the fabric.
    """
    share = pressure_share(REFERENCE_FIRMNESS) / 2
    w = gauge.stitch_mm
    mean = gauge.round_mm
    return w / (1 + share * mean / w), h / (1 + share * w / mean)


def _spring(length: Vector, rest: Vector | float) -> tuple[Vector, Vector]:
    """Force and stiffness of springs that give way under compression."""
    over = length - rest
    k = np.where(over > 0, 1.0, _SLACK)
    return k * over, k


def _steps(values: Vector) -> Vector:
    """From each value to the next, the first from 0."""
    steps = values.copy()
    steps[1:] -= values[:-1]
    return steps


@dataclass(slots=True)
class _Balloon:
    """Rings joined by meridians under pressure; unknowns are (r_i, z_i), the first pole is held at 0.

    turn: the angle of one stitch. between: meridians from each ring to the one below.
    """

    n: Vector
    w0: float
    h0: Vector
    pressure: float
    turn: Vector = field(init=False)
    between: Vector = field(init=False)

    def __post_init__(self) -> None:
        self.turn = 2 * math.pi / np.maximum(self.n, 1.0)
        self.between = (self.n + np.append(self.n[:1], self.n[:-1])) / 2

    def forces(self, x: Vector) -> tuple[Vector, Vector]:
        """Gradient of the energy and its positive part as an upper band matrix of width 4."""
        r, z = x[0::2], x[1::2]
        rings = len(r)
        band = np.zeros((4, 2 * rings))
        gradient = np.zeros(2 * rings)
        turn = self.turn
        force, k = _spring(turn * r, self.w0)
        gradient[0::2] = self.n * turn * force
        band[3, 0::2] = self.n * turn**2 * k
        dr, dz = _steps(r), _steps(z)
        length = np.maximum(np.hypot(dr, dz), 1e-9)
        many = self.between
        pull, k = _spring(length, self.h0)
        ur, uz = dr / length, dz / length
        across = np.maximum(pull, 0.0) / length
        krr = many * (k * ur * ur + across * (1 - ur * ur)) + 1e-6
        kzz = many * (k * uz * uz + across * (1 - uz * uz)) + 1e-6
        krz = many * (k - across) * ur * uz
        for axis, u in enumerate((ur, uz)):
            tug = many * pull * u
            gradient[axis::2] += tug
            gradient[axis:-2:2] -= tug[1:]
        band[3, 0::2] += krr
        band[3, 1::2] += kzz
        band[2, 1::2] += krz
        band[3, 0:-2:2] += krr[1:]
        band[3, 1:-2:2] += kzz[1:]
        band[2, 1:-2:2] += krz[1:]
        band[1, 2::2] -= krr[1:]
        band[1, 3::2] -= kzz[1:]
        band[2, 2::2] -= krz[1:]
        band[0, 3::2] -= krz[1:]
        self._push(gradient, r, dz)
        return gradient, band

    def _push(self, gradient: Vector, r: Vector, dz: Vector) -> None:
        """Subtract pressure times the gradient of the volume of the stacked cones."""
        p = self.pressure * math.pi / 3
        below = np.zeros_like(r)
        below[1:] = r[:-1]
        slab = r**2 + r * below + below**2
        gradient[0::2] -= p * dz * (2 * r + below)
        gradient[0:-2:2] -= (p * dz * (r + 2 * below))[1:]
        gradient[1::2] -= p * slab
        gradient[1:-2:2] += p * slab[1:]


def pressed_profile(
    counts: Sequence[int], gauge: Gauge, *, closed: bool = False, heights: Sequence[float] | None = None
) -> Profile:
    """A tube pressed flat, two layers on each other: half of how wide each round lies, and where its top does.

    The other way round from how such a piece is drafted: a round's height is parted between rising and following the edge.
    """
    n = np.asarray(counts, float)
    w = gauge.stitch_mm * EMPTY
    h = (np.ones(len(n)) if heights is None else np.asarray(heights, float)) * gauge.round_mm * EMPTY
    half = np.maximum(n - FOLDS, 1.0) * w / 4
    wider = np.diff(half, prepend=0.0)
    up, by = 1 - BY_EDGE, BY_EDGE
    # up · rise + by · sqrt(rise² + wider²) = h
    square = np.maximum((by * h) ** 2 + (up**2 - by**2) * (by * wider) ** 2, 0.0)
    rise = np.clip((up * h - np.sqrt(square)) / (up**2 - by**2), 0.0, h)
    rise[0] *= 1 - END
    return Profile(half, np.cumsum(rise), (Lie.FLAT,) * len(n), closed)


def inflated_profile(
    counts: Sequence[int],
    gauge: Gauge,
    *,
    closed: bool = False,
    firmness: float = 0.5,
    heights: Sequence[float] | None = None,
) -> Profile:
    """The quick profile stuffed: hoop and meridian springs in balance with the filling's pressure.

    firmness: 0 softly filled to 1 hard. A ball drafted for 10 cm comes out at 10 cm at firmness
    0.5, because rest lengths are taken without the strain of that pressure. Damped Newton steps on
    the axisymmetric energy; deterministic, and remembered for tubes of common length.
    """
    high = None if heights is None else tuple(map(float, heights))
    return _inflated(tuple(counts), gauge, closed, firmness, high)


MOST_REMEMBERED = 1_024
"""Profiles that are remembered, of tubes of up to a thousand rounds: some megabytes."""


@of_short(MOST_REMEMBERED)
def _inflated(
    counts: tuple[int, ...], gauge: Gauge, closed: bool, firmness: float, heights: tuple[float, ...] | None
) -> Profile:
    start = quick_profile(counts, gauge, closed=closed, heights=heights)
    if len(counts) < 2 or min(counts) < 1:
        return _shared(start)
    n, h = _given(counts, gauge, heights)
    w0, h0 = _rest(gauge, h)
    if closed:
        h0 = np.append(h0, h0[-1] * 0.35)
        n = np.append(n, n[-1])
    balloon = _Balloon(n, w0, h0, pressure_share(firmness) / float(start.radius.max()))
    r, z = _smooth_start(start.radius, h[: len(start.radius)])
    if closed:
        r, z = np.append(r, r[-1] * 0.2), np.append(z, z[-1] + 0.1 * h[-1])
    x = np.empty(2 * len(r))
    x[0::2], x[1::2] = r, z
    _relax(balloon, x, gauge.round_mm)
    rings = len(counts)
    radius, height = np.abs(x[0::2][:rings]), x[1::2][:rings].copy()
    return _shared(Profile(radius, height, start.lies, closed))


def _shared(profile: Profile) -> Profile:
    """A profile that is handed out more than once: nobody writes into it."""
    profile.radius.flags.writeable = profile.height.flags.writeable = False
    return profile


def _smooth_start(radius: Vector, h: Vector) -> tuple[Vector, Vector]:
    """A start near the balance: steps of whole stitches smoothed away, so that height is not lost to them."""
    wide = np.convolve(np.pad(radius, 3, mode="edge"), np.ones(7) / 7, mode="valid")
    dr = np.diff(wide, prepend=0.0)
    return radius.copy(), np.cumsum(np.sqrt(np.maximum((0.05 * h) ** 2, h**2 - dr**2)))


def _relax(balloon: _Balloon, x: Vector, h: float) -> None:
    damping, reach = 0.05, max(0.5 * h, 0.02 * float(np.abs(x).max()))
    gradient, band = balloon.forces(x)
    size = float(np.abs(gradient).max())
    for _ in range(_NEWTON_STEPS):
        damped = band.copy()
        damped[3] += damping * (np.abs(band[3]).mean())
        _, step, failed = dpbsv(damped, -gradient, overwrite_ab=True, overwrite_b=True)
        if failed:
            return  # no step leads downhill from here: the balance is as near as it comes
        longest = float(np.abs(step).max())
        if longest > reach:
            step *= reach / longest
        trial = x + step
        gradient_after, band_after = balloon.forces(trial)
        size_after = float(np.abs(gradient_after).max())
        x[:] = trial
        damping = max(damping * 0.4, 1e-4) if size_after < size else min(damping * 2.0, 2.0)
        gradient, band, size = gradient_after, band_after, size_after
        if longest < _ENOUGH * h:
            return
