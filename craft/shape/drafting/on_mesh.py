"""Drafting on a mesh: loops, their counts, and how each lies over the one before."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from craft.gauge import Gauge
from craft.shape.drafting.around import Growth, growth
from craft.shape.drafting.loops import Cutter, Field, aligned, field_of, length_of, levels
from craft.shape.drafting.rings import MOST_RINGS, Rings, workable
from craft.shape.target import Form, TriangleMesh

RAGGED = 2.2
"""How much longer than the closing the last loop may be before rounds are bent to close on a point."""

SLANT = 0.8
"""Round heights by which an opening may lie aslant before rounds are bent to run along it."""

_FINE = 2
"""Cuts a round height while the end is looked for."""


@dataclass(frozen=True, slots=True)
class Course:
    """Where rounds run on a mesh: rings, how each loop lies over the one before, and the field's unevenness."""

    rings: Rings
    growth: tuple[Growth, ...]
    mirrored: bool
    uneven: float


@lru_cache(maxsize=8)
def course_of(form: Form, gauge: Gauge, start: int) -> Course:
    """Lay rounds on a form's mesh. CraftError when it is too small or too large; BranchedError where it divides."""
    mesh = form.mesh
    even = _even_field(mesh)
    course = _run(form, even, gauge, start)
    if course is not None:
        return course
    course = _run(form, _blended_field(mesh), gauge, start, last_try=True)
    assert course is not None
    return course


@lru_cache(maxsize=8)
def _even_field(mesh: TriangleMesh) -> Field:
    return field_of(mesh)


@lru_cache(maxsize=8)
def _blended_field(mesh: TriangleMesh) -> Field:
    return field_of(mesh, even=False)


def _run(form: Form, field: Field, gauge: Gauge, start: int, *, last_try: bool = False) -> Course | None:
    """Rounds at equal steps of a field; None when its end is ragged and another field may do better."""
    h, w = gauge.round_mm, gauge.stitch_mm
    mesh = form.mesh
    if mesh.open and not last_try and float(np.ptp(field.value[mesh.rims[0]])) > SLANT * h:
        return None
    cutter = Cutter(field)
    far = float(field.value[mesh.rims[0]].min()) if mesh.open else float(field.value.max())
    if far / h > MOST_RINGS:
        workable(form, far / h, float(start), start)
    fine = np.arange(1, int(far * _FINE / h) + 2) * h / _FINE
    lines = _whole(levels(cutter, fine[fine < far * (1 - 1e-6)], w))
    if len(lines) < 3:
        workable(form, 0, 0, start)
    lengths = np.array([length_of(v) for v in lines])
    closing = start * w * 1.02
    last = far * (1 - 1e-4)
    if not mesh.open:
        widest = int(np.argmax(lengths))
        tail = np.flatnonzero(lengths[widest:] <= closing)
        last = _reached(fine, lengths, widest + int(tail[0]), closing) if len(tail) else float(fine[len(lines) - 1])
        if lengths[-1] > RAGGED * closing and not last_try:
            return None
    many = workable(form, last / h, float(lengths.max()) / w, start)
    s = np.linspace(min(h, last), last, many)
    loops = aligned([cutter.longest(float(at)) for at in s], mesh)
    mirrored = mesh.mirrored_sides
    over = tuple(growth(a, b, mirrored=mirrored) for a, b in itertools.pairwise(loops))
    length = np.array([loop.length for loop in loops])
    z = np.array([float(loop.points[:, 2].mean()) for loop in loops])
    rings = Rings(s, length / (2 * math.pi), z, length / w, float(s[1] - s[0]))
    return Course(rings, over, mirrored, field.uneven)


def _whole(lines: list[np.ndarray]) -> list[np.ndarray]:
    """Loops up to where the end breaks into pieces: there one is suddenly less than half as long."""
    for i in range(1, len(lines)):
        if i > 2 and length_of(lines[i]) < 0.45 * length_of(lines[i - 1]):
            return lines[:i]
    return lines


def _reached(steps: np.ndarray, lengths: np.ndarray, at: int, closing: float) -> float:
    """Where the loops have shrunk to the closing, between the step `at` and the one before."""
    before, after = float(lengths[at - 1]), float(lengths[at])
    share = (before - closing) / max(before - after, 1e-9) if at else 1.0
    return float(steps[at] - (1 - min(max(share, 0.0), 1.0)) * (steps[1] - steps[0]))
