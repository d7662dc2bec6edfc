"""Drafting a shape that divides, in one piece: a trunk of rounds, whose stitches are shared out among limbs.

Where a level of the distance from the pole falls into several loops, each has its arc of the trunk's last round;
the stitches on that arc are the limb's first round, so the counts on both sides are the same.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.gauge import Gauge
from craft.rounds.pattern import (
    Edge,
    Instruction,
    Item,
    Join,
    Leave,
    Onto,
    Round,
    Section,
    Shift,
    Skip,
    Step,
    StepKind,
    Way,
    folded,
)
from craft.shape.drafting.around import growth, laid_rounds
from craft.shape.drafting.counts import best_counts
from craft.shape.drafting.directions import closing
from craft.shape.drafting.loops import (
    LEAST_STITCHES,
    BranchedError,
    Cutter,
    Field,
    Loop,
    aligned,
    evenly,
    field_of,
    length_of,
    levels,
)
from craft.shape.drafting.rings import Rings, workable
from craft.shape.drafting.spread import Shaping
from craft.shape.target import Form

Vector = NDArray[np.float64]

MOST_LIMBS = 5
NAMES = ("First", "Second", "Third", "Fourth", "Fifth")

_FINE = 4
"""Cuts a round height while the place is looked for where a shape divides."""

_STRAY = 2.5
"""Rounds by which the middle of a limb's loop may move from one round to the next."""


@dataclass(frozen=True, slots=True)
class Limb:
    """A limb: stitches it takes over from the trunk, and its rounds. first: in which stitch of the trunk's last round,
    as worked, its first one lies."""

    taken: int
    first: int
    counts: tuple[int, ...]
    bodies: tuple[tuple[Instruction, ...], ...]


@dataclass(frozen=True, slots=True)
class SplitCourse:
    """Rounds of a trunk and of the limbs on it, in the order in which the trunk's last round comes to them."""

    counts: tuple[int, ...]
    bodies: tuple[tuple[Instruction, ...], ...]
    limbs: tuple[Limb, ...]
    rings: Rings


def split_course(form: Form, gauge: Gauge, start: int, simplicity: float, shaping: Shaping) -> SplitCourse | None:
    """Lay a trunk and its limbs on a closed form that divides once; None for one that does not divide.

    CraftError when a limb divides again, or when the limbs do not each have one arc of the trunk.
    """
    mesh = form.mesh
    field = field_of(mesh)
    cutter = Cutter(field)
    h, w = gauge.round_mm, gauge.stitch_mm
    at = _divides_at(cutter, field, gauge)
    if at is None:
        return None
    if mesh.open:
        raise CraftError("A shape that is worked as a split is closed: its limbs are its ends.", field="form")
    rounds = workable(form, at / h, float(start), start)
    s = np.linspace(at / rounds, at, rounds)
    loops = aligned([cutter.longest(float(v)) for v in s], mesh)
    limbs = [_limb_loops(cutter, first, at, field, gauge, start) for first in _limb_starts(cutter, at, gauge)]
    arcs = _arcs(loops[-1], [limb[0] for limb in limbs])
    true = [loop.length / w for loop in loops]
    symmetric = mesh.mirrored_sides
    last = _shared_count(true[-1], len(arcs), symmetric=symmetric)
    counts = best_counts(true, start, simplicity, closed=False, last=last)
    grown = [growth(a, b, mirrored=symmetric) for a, b in itertools.pairwise(loops)]
    laid = laid_rounds(counts, grown, shaping, gauge.lean, mirrored=symmetric)
    taken = _stitches_of(arcs, laid.places[-1])
    made = [
        _limb(
            loops[-1],
            arc,
            limbs[arc.limb],
            first=first,
            taken=many,
            gauge=gauge,
            start=start,
            simplicity=simplicity,
            shaping=shaping,
        )
        for arc, (first, many) in zip(arcs, taken, strict=True)
    ]
    length = np.array([loop.length for loop in loops])
    z = np.array([float(loop.points[:, 2].mean()) for loop in loops])
    rings = Rings(s, length / (2 * math.pi), z, length / w, float(s[0]))
    made.sort(key=lambda limb: limb.first)
    bodies = list(laid.bodies)
    if made[0].first:
        # The first limb's arc begins where the trunk's last round is led on to.
        bodies[-1] = (*bodies[-1], Shift(made[0].first))
    return SplitCourse(counts, tuple(bodies), tuple(made), rings)


def _divides_at(cutter: Cutter, field: Field, gauge: Gauge) -> float | None:
    """The last distance at which the shape is one loop still, None when it never divides."""
    h = gauge.round_mm
    steps = np.arange(1, int(field.value.max() * _FINE / h)) * h / _FINE
    try:
        levels(cutter, steps, gauge.stitch_mm)
    except BranchedError as error:
        found = error.branches[0]
        if len(found.middles) > MOST_LIMBS:
            raise CraftError(f"A split has up to {MOST_LIMBS} limbs.", field="form") from None
        return found.distance_mm - h / _FINE
    return None


def _limb_starts(cutter: Cutter, at: float, gauge: Gauge) -> list[Vector]:
    """The loops of the first round of the limbs."""
    least = LEAST_STITCHES * gauge.stitch_mm
    return [v for v in cutter.loops(at + gauge.round_mm) if length_of(v) >= least]


def _limb_loops(cutter: Cutter, first: Vector, at: float, field: Field, gauge: Gauge, start: int) -> list[Vector]:
    """A limb's loops from round to round, down to its closing. CraftError when it divides again."""
    h, w = gauge.round_mm, gauge.stitch_mm
    loops = [first]
    far = float(field.value.max())
    closing = start * w * 1.02
    while at + (len(loops) + 1) * h < far:
        middle = loops[-1].mean(0)
        near = [
            v
            for v in cutter.loops(at + (len(loops) + 1) * h)
            if np.linalg.norm(v.mean(0) - middle) < max(_STRAY * h, length_of(loops[-1]) / math.pi)
        ]
        worth = [v for v in near if length_of(v) >= LEAST_STITCHES * w]
        if len(worth) > 1 and length_of(worth[1]) > 0.5 * length_of(worth[0]):
            raise CraftError("A limb of this shape divides again: cut it off and draft it by itself.", field="form")
        if not near:
            break
        nearest = min(near, key=lambda v: float(np.linalg.norm(v.mean(0) - middle)))
        loops.append(nearest)
        if length_of(nearest) <= closing:
            break
    return loops


@dataclass(frozen=True, slots=True)
class _Arc:
    """The part of the trunk's last round, in shares from the front, that goes on as a limb; last may be over 1."""

    limb: int
    first: float
    last: float


def _arcs(trunk: Loop, limbs: Sequence[Vector]) -> list[_Arc]:
    """The arc of every limb, in working order. CraftError when one has none or several."""
    apart = np.array([np.linalg.norm(trunk.points[:, None] - limb[None], axis=2).min(1) for limb in limbs])
    whose = np.argmin(apart, axis=0)
    n = len(whose)
    changes = np.flatnonzero(whose != np.roll(whose, 1))
    if len(changes) != len(limbs) or len(set(whose[changes])) != len(limbs):
        raise CraftError("The limbs of this shape do not share out the trunk's last round: cut it there.", field="form")
    ends = [*changes[1:], changes[0] + n]
    return [_Arc(int(whose[a]), a / n, b / n) for a, b in zip(changes, ends, strict=True)]


def _shared_count(true: float, limbs: int, *, symmetric: bool) -> int:
    """Stitches of the trunk's last round: what limbs on both sides can share alike where the shape is."""
    step = 2 * limbs if symmetric else limbs
    return max(step * round(true / step), step)


def _stitches_of(arcs: Sequence[_Arc], places: Vector) -> list[tuple[int, int]]:
    """First stitch and number of stitches of every arc, as the round is worked; every stitch belongs to one."""
    n = len(places)
    # The shares at which stitches begin, from the front on, and how those are numbered in working order.
    order = np.argsort(places)
    share = places[order]
    width = np.array([arc.last - arc.first for arc in arcs])
    many = np.floor(width * n).astype(int)
    for at in np.argsort(-(width * n - many))[: n - int(many.sum())]:
        many[at] += 1
    if len(arcs) == 2 and abs(width[0] - width[1]) < 1.5 / n:
        many[:] = n // 2
        many[0] += n - int(many.sum())
    begin = int(np.searchsorted(share, arcs[0].first % 1.0))
    found = []
    for count in many:
        found.append((int(order[begin % n]), int(count)))
        begin += int(count)
    return found


def _limb(
    trunk: Loop,
    arc: _Arc,
    lines: Sequence[Vector],
    *,
    first: int,
    taken: int,
    gauge: Gauge,
    start: int,
    simplicity: float,
    shaping: Shaping,
) -> Limb:
    """Rounds of a limb, from the arc of the trunk that it takes over to its closing."""
    n = len(trunk.points)
    a, b = int(arc.first * n), int(arc.last * n)
    own = evenly(trunk.points[np.arange(a, b) % n])
    loops = [own]
    for line in lines:
        plain = evenly(line)
        nearest = int(np.argmin(np.linalg.norm(plain.points - loops[-1].points[0], axis=1)))
        loops.append(evenly(line, nearest / len(plain.points) * plain.length))
    true = [float(taken), *(loop.length / gauge.stitch_mm for loop in loops[1:])]
    counts = best_counts(true, start, simplicity, closed=True, first=taken)
    grown = [growth(x, y, mirrored=False) for x, y in itertools.pairwise(loops)]
    laid = laid_rounds(counts, grown, shaping, gauge.lean, mirrored=False)
    return Limb(taken, first, counts[1:], laid.bodies)


def write_split(course: SplitCourse, trunk: Sequence[Item]) -> tuple[Item, ...]:
    """Items of a part: its trunk's rounds as given, then every limb under a heading of its own."""
    items: list[Item] = [*trunk, Step(StepKind.STUFF, "Stuff as you go from here on, each limb before it is closed.")]
    number, last = len(course.counts) + 1, len(course.limbs) - 1
    left = course.counts[-1]
    for at, limb in enumerate(course.limbs):
        items.append(Section(f"{NAMES[at]} limb"))
        left -= limb.taken
        if at:
            items.append(Round(None, None, (Onto(Edge.HELD, rejoin=True),), way=Way.LINE))
        # The first limb passes over what the others take, those between leave it, the last one uses it up.
        rest: tuple[Instruction, ...] = () if at == last else (Leave(None), Join()) if at else (Skip(left), Join())
        items.append(Round(number, number, (*limb.bodies[0], *rest), limb.counts[0]))
        rounds = [
            Round(number + k, number + k, work, count)
            for k, (work, count) in enumerate(zip(limb.bodies[1:], limb.counts[1:], strict=True), 1)
        ]
        items += [*folded(rounds), closing(limb.counts[-1])]
    return tuple(items)
