"""A flat shape in one layer: worked in rows, as wide in every row as the shape is there, and shaped at both ends alike.

The usual way to make leaves, petals, capes, fins and flags of a single thickness (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np
from numpy.typing import NDArray

from craft.gauge import Gauge
from craft.rounds.pattern import Chain, FromHook, Instruction, Item, Repeat, Round, Step, StepKind, Turn, Way, Work
from craft.shape.drafting.rings import Rings, workable
from craft.shape.profile import EMPTY
from craft.shape.target import Form

Vector = NDArray[np.float64]

LEAST_ROW = 2
"""Stitches of the narrowest row: one can neither be shaped at both ends nor be turned on."""

EASE = 0.25
"""Stitches by which the simplest rows may be off more than the truest."""

SEWN_ON = Step(StepKind.FASTEN_OFF, "Fasten off, and leave a long tail for sewing. It is a single layer.")


LEVELS = 240
"""Heights at which the width of a shape without a round outline is looked at."""


def one_layer(form: Form, gauge: Gauge, simplicity: float) -> tuple[Rings, tuple[int, ...]]:
    """Rows and their counts for a shape laid flat as it is seen from the front: as wide and as high as it is drawn.

    CraftError where it is too small or too large at this gauge.
    """
    z, half = _half_widths(form)
    h, w = gauge.round_mm * EMPTY, gauge.stitch_mm * EMPTY
    high = float(z[-1] - z[0])
    many = workable(form, high / h, 2 * float(half.max()) / w, LEAST_ROW)
    middle = z[0] + high * (np.arange(many) + 0.5) / many
    radius = np.interp(middle, z, half)
    true = 2 * radius / w
    return Rings(middle - z[0], radius, middle, true, high / many), _counts(true, simplicity)


def _half_widths(form: Form) -> tuple[Vector, Vector]:
    """Heights of a shape from its start, and half of how wide it is there, seen from the front."""
    outline = form.outline
    if outline is not None:
        return outline.z, outline.r
    x, edges = form.mesh.x, form.mesh.faces[:, [0, 1, 1, 2, 2, 0]].reshape(-1, 2)
    low, up = x[edges[:, 0]], x[edges[:, 1]]
    levels = np.linspace(x[:, 2].min(), x[:, 2].max(), LEVELS)
    half = np.zeros(LEVELS)
    for k, level in enumerate(levels):
        crosses = (low[:, 2] - level) * (up[:, 2] - level) <= 0
        a, b = low[crosses], up[crosses]
        rise = np.where(b[:, 2] == a[:, 2], 1.0, b[:, 2] - a[:, 2])
        across = a[:, 0] + np.clip((level - a[:, 2]) / rise, 0, 1) * (b[:, 0] - a[:, 0])
        half[k] = np.ptp(across) / 2 if len(across) else 0.0
    return levels, half


def _counts(true: Vector, simplicity: float) -> tuple[int, ...]:
    """Whole stitches of every row: alike at both ends, so that two come or go at once, and as many as the widest row truly
    has there; never more than doubled or halved.

    A row stays as the one below while that is off by less than a stitch, a little more the simpler it is to be.
    """
    odd = round(float(true.max())) % 2
    counts = [max(LEAST_ROW + odd, _alike(float(true[0]), odd))]
    for wide in map(float, true[1:]):
        below = counts[-1]
        if abs(wide - below) < 1 + simplicity * EASE:
            counts.append(below)
            continue
        least = below - 2 * (below // 4)
        counts.append(min(max(_alike(wide, odd), LEAST_ROW + odd, least), below + 2 * (below // 2)))
    return tuple(counts)


def _alike(wide: float, odd: int) -> int:
    """The even or odd number nearest to a width."""
    return odd + 2 * round((wide - odd) / 2)


def write_rows(counts: Sequence[int]) -> tuple[Item, ...]:
    """Items of a part in rows with these counts: the chain, the rows, equal plain ones in one, and what to do at the end."""
    first = counts[0]
    chain = Round(None, None, (Chain(first + 1),), None, way=Way.LINE)
    row = Round(1, 1, (FromHook(2), Work("sc", first)), first, way=Way.ROW)
    return (chain, row, *_rows_above(counts), SEWN_ON)


def _rows_above(counts: Sequence[int]) -> Iterator[Round]:
    at = 1
    while at < len(counts):
        last = at
        while counts[at] == counts[at - 1] and last + 1 < len(counts) and counts[last + 1] == counts[at]:
            last += 1
        yield Round(at + 1, last + 1, _row(counts[at - 1], counts[at]), counts[at], way=Way.ROW)
        at = last + 1


def _row(below: int, count: int) -> tuple[Instruction, ...]:
    """A row of so many stitches on so many: turned, and shaped as much at either end."""
    shaped = abs(count - below) // 2
    if not shaped:
        return Turn(), Chain(1), Repeat((Work("sc"),), None)
    name, takes = ("inc", 1) if count > below else ("dec", 2)
    between = below - 2 * shaped * takes
    middle = (Work("sc", between),) if between else ()
    return Turn(), Chain(1), Work(name, shaped), *middle, Work(name, shaped)
