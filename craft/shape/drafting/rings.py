"""Rings: where rounds lie on an outline, and how many stitches each would truly have."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError, require
from craft.gauge import Gauge
from craft.shape.target import Form, Outline, Solid, as_form

Vector = NDArray[np.float64]
MOST_RINGS, MOST_RING_STITCHES = 600, 2_000


@dataclass(frozen=True, slots=True)
class Rings:
    """Tops of the rounds along an outline. s, radius, z in mm; stitches: 2πr / w, not rounded."""

    s: Vector
    radius: Vector
    z: Vector
    stitches: Vector
    spacing_mm: float


def _last_top(outline: Outline, closing_radius: float, *, is_open: bool) -> float:
    """Arc length at which the last round ends: at the opening, or where the closing ring has its radius."""
    if is_open:
        return outline.length
    widest = int(np.argmax(outline.r))
    tail = np.flatnonzero(outline.r[widest:] <= closing_radius)
    return float(outline.s[widest + tail[0]]) if len(tail) else outline.length


def rings_of(shape: Form | Solid, gauge: Gauge, start: int, drawn: Outline | None = None) -> Rings:
    """N = round(L / h) rings; the first lies one h from the pole, the last at the closing radius.

    start: stitches of the first round, and of the last one of a closed piece. CraftError when the
    shape is too small for two rounds at this gauge, or too large to work out. Only for bodies of revolution. drawn: the
    outline to lay rounds on in the place of the shape's own.
    """
    form = as_form(shape)
    outline = drawn or form.outline
    require(outline is not None, "Only a body of revolution has rings of one radius.")
    assert outline is not None
    h, w = gauge.round_mm, gauge.stitch_mm
    last = _last_top(outline, start * w / (2 * math.pi) * 1.02, is_open=form.open)
    many = workable(form, last / h, float(outline.r.max()) * 2 * math.pi / w, start)
    s = np.linspace(min(h, last), last, many)
    radius = outline.radius_at(s)
    return Rings(s, radius, outline.height_at(s), 2 * math.pi * radius / w, float(s[1] - s[0]))


def workable(form: Form, rounds: float, widest: float, start: int) -> int:
    """How many rounds, from how many there would truly be and the stitches of the widest. CraftError when none can be."""
    many = round(rounds)
    if many < 2 or widest < start * 0.75:
        raise CraftError(
            f"At this gauge the {form.name} has less than two rounds or {start} stitches: "
            "make it larger, or take a finer yarn.",
            field="height_mm",
        )
    if many > MOST_RINGS or widest > MOST_RING_STITCHES:
        raise CraftError(
            f"That would be more than {MOST_RINGS} rounds or {MOST_RING_STITCHES:,} stitches a round: make it smaller.",
            field="height_mm",
        )
    return many


def suggested_start(shape: Form | Solid, gauge: Gauge) -> int:
    """Stitches to start on: what the first ring truly has, from 3 for a long point to 8 for a flat end."""
    outline = as_form(shape).outline
    if outline is None:
        return 6
    ring = 2 * math.pi * float(outline.radius_at(np.array([gauge.round_mm]))[0]) / gauge.stitch_mm
    return int(min(8, max(3, round(ring)))) if ring < 5 or ring >= 7.5 else 6
