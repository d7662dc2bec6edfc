"""Eyes: between which rounds and after which stitches, and what stands in their way.

A post goes through the hole after stitch k of the lower round; the stitches visible between are
those of that round between the two holes. Defaults are common practice from memory: a gap of a
sixth to a fifth of the round, on or just below the widest line, an eye of an eighth of the width.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray

from craft.errors import require
from craft.figure.placement.surface import Surface
from craft.figure.settling import OPENING_STRETCH

Vector = NDArray[np.float64]

SOLD_MM = (4, 5, 6, 7, 8, 9, 10, 12, 14, 15, 16, 18, 20, 24, 30)
"""Eyes as they are sold."""

WASHERS_MM: Mapping[int, float] = MappingProxyType(
    {4: 7, 5: 8, 6: 9, 7: 10, 8: 11, 9: 12, 10: 13, 12: 15, 14: 17, 15: 18, 16: 19, 18: 21, 20: 23, 24: 27, 30: 33}
)
"""Washer across by eye size (common practice, no source)."""


def washer_mm(eye_mm: float) -> float:
    """Washer of the nearest eye that is sold."""
    return WASHERS_MM[min(SOLD_MM, key=lambda sold: abs(sold - eye_mm))]


def post_mm(eye_mm: float) -> float:
    """How far a post reaches inside (about the eye's size and 6 mm; common practice, no source)."""
    return eye_mm + 6.0


@dataclass(frozen=True, slots=True)
class EyePlace:
    """Two eyes between round `round` (from 1) and the next, with `between` stitches visible between them."""

    round: int
    between: int
    eye_mm: float = 8.0

    def __post_init__(self) -> None:
        require(1 <= self.round <= 2_000, "Eyes lie above a round from 1 on.", field="round")
        require(1 <= self.between <= 1_000, "Between two eyes is at least one stitch.", field="between")
        require(1 <= self.eye_mm <= 60, "An eye is 1 to 60 mm across.", field="eye_mm")


@dataclass(frozen=True, slots=True)
class Warned:
    """Something to know about a place: a stable code and a sentence."""

    code: str
    message: str


@dataclass(frozen=True, slots=True)
class Eyes:
    """Two eyes in place.

    after: stitches of the lower round that the posts go through behind, the right one (as one looks
    at the figure) first. points, out: (2, 3) where they sit and which way they look. off_centre:
    stitches by which their middle misses the true front, positive to the viewer's left. words: as
    the pattern says it.
    """

    place: EyePlace
    after: tuple[int, int]
    points: Vector
    out: Vector
    off_centre: float
    words: str
    warnings: tuple[Warned, ...]


def propose(surface: Surface, eye_mm: float | None = None) -> EyePlace:
    """Eyes as they are mostly set: one round below the widest, a fifth to a sixth of it apart."""
    counts = [len(r) for r in surface.rings]
    widths = [float(np.ptp(surface.x[r][:, 0])) for r in surface.rings]
    widest = max(widths)
    at = max(i for i, w in enumerate(widths) if w > 0.985 * widest)
    gap = max(round(counts[at] / 5.5), 2)
    gap += gap % 2 if counts[at] % 2 == 0 else 0
    wanted = widest / 8 if eye_mm is None else eye_mm
    size = min(SOLD_MM, key=lambda sold: abs(sold - wanted))
    return EyePlace(min(at + 1, surface.rounds - 1) or 1, gap, float(size))


def place_eyes(
    surface: Surface,
    place: EyePlace,
    *,
    opening_mm: float | None = None,
    stitch_mm: float = 5.0,
    embroidered: bool = False,
    shows_above: float = 0.12,
) -> Eyes:
    """Put two eyes on a surface, symmetrical about its front, and say what is in the way.

    opening_mm: how wide the part is open when they go in, None when that is not known. embroidered:
    nothing goes inside. shows_above: strain from which filling shows.
    """
    at = min(place.round, surface.rounds) - 1
    count = surface.count_of(at)
    require(
        place.between < count, f"{surface.labels[at]} has {count} stitches; the eyes must fit into it.", field="between"
    )
    centre = surface.front_place(at)
    first = round(centre - place.between / 2 + 0.5)
    middle = first - 0.5 + place.between / 2
    spots = [_hole(surface, at, k) for k in (first, first + place.between)]
    points, out = np.array([s[0] for s in spots]), np.array([s[1] for s in spots])
    after = tuple((k - 1) % count + 1 for k in (first, first + place.between))
    above = surface.labels[at + 1] if at + 1 < surface.rounds else "the end"
    words = (
        f"between {surface.labels[at]} and {above}, after stitches {after[0]} and {after[1]} of {surface.labels[at]}, "
        f"with {place.between} stitch{'es' if place.between > 1 else ''} visible between"
    )
    warnings = (
        ()
        if embroidered
        else _warnings(
            surface,
            place,
            at=at,
            after=after,
            points=points,
            out=out,
            opening_mm=opening_mm,
            stitch_mm=stitch_mm,
            shows_above=shows_above,
        )
    )
    return Eyes(place, (after[0], after[1]), points, out, middle - centre, words, warnings)


def _hole(surface: Surface, at: int, k: int) -> tuple[Vector, Vector]:
    """The hole after stitch k (from 1) of a round: a little above its top, half way to the next stitch."""
    point = surface.at_place(at, k - 0.5)
    if at + 1 < surface.rounds:
        above = surface.x[surface.rings[at + 1]]
        near = above[np.argmin(np.linalg.norm(above - point, axis=1))]
        point = point + (near - point) * 0.25
    return point, surface.normal(point)


def _warnings(
    surface: Surface,
    place: EyePlace,
    *,
    at: int,
    after: tuple[int, ...],
    points: Vector,
    out: Vector,
    opening_mm: float | None,
    stitch_mm: float,
    shows_above: float,
) -> tuple[Warned, ...]:
    found: list[Warned] = []
    washer = washer_mm(place.eye_mm)
    if opening_mm is not None and opening_mm * OPENING_STRETCH < washer:
        found.append(
            Warned(
                "washer",
                f"When the eyes go in, the opening is about {opening_mm:.0f} mm: a washer of {washer:.0f} mm "
                f"no longer passes. Put them in by {_last_passing(surface, washer, stitch_mm)}.",
            )
        )
    reach = post_mm(place.eye_mm)
    gap = _nearest(points[0], points[0] - out[0] * reach, points[1], points[1] - out[1] * reach)
    if gap < washer * 0.8:
        found.append(
            Warned("posts-meet", "The posts or washers meet inside: set the eyes further apart, or take smaller ones.")
        )
    ring = surface.rings[at]
    beside = [int(ring[(k - 1 + d) % len(ring)]) for k in after for d in (0, 1)]
    if float(np.mean(surface.stretch[beside])) > shows_above:
        found.append(
            Warned("stretched", "The filling pulls the fabric here: a post widens the hole, and filling may show.")
        )
    over = surface.rings[at + 1] if at + 1 < surface.rounds else ring
    near = [int(over[np.argmin(np.linalg.norm(surface.x[over] - p, axis=1))]) for p in points]
    if any(surface.change[i] > 0 for i in (*beside, *near)):
        found.append(
            Warned("increase-line", "An increase lies at an eye: the hole there is larger. One stitch along is firmer.")
        )
    return tuple(found)


def _last_passing(surface: Surface, washer: float, stitch_mm: float) -> str:
    """The last round whose opening, pulled, lets a washer through, in words."""
    fits = [i for i in range(surface.rounds) if surface.count_of(i) * stitch_mm / math.pi * OPENING_STRETCH >= washer]
    return surface.labels[fits[-1]] if fits else "another way: no opening of this part is wide enough"


def _nearest(a: Vector, b: Vector, c: Vector, d: Vector) -> float:
    """Shortest distance in mm between two posts, looked up along both."""
    along = np.linspace(0, 1, 25)[:, None]
    p, q = a + (b - a) * along, c + (d - c) * along
    return float(np.linalg.norm(p[:, None] - q[None], axis=2).min())
