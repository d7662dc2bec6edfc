"""A flat shape in one layer: worked in rows, as wide in every row as the shape is there, and shaped at both ends alike.

The usual way to make leaves, petals, capes, fins and flags of a single thickness (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from craft.errors import CraftError
from craft.gauge import Gauge
from craft.rounds.pattern import Chain, FromHook, Instruction, Item, Repeat, Round, Step, StepKind, Turn, Way, Work
from craft.shape.drafting.rings import Rings, workable
from craft.shape.drafting.two_layers import EMPTY
from craft.shape.target import Form

LEAST_ROW = 2
"""Stitches of the narrowest row: one can neither be shaped at both ends nor be turned on."""

SEWN_ON = Step(
    StepKind.FASTEN_OFF, "Fasten off, and leave a long tail for sewing. It is one layer: there is nothing to stuff."
)


def one_layer(form: Form, gauge: Gauge, simplicity: float) -> tuple[Rings, tuple[int, ...]]:
    """Rows and their counts for the outline of a body of revolution laid flat: as wide and as high as it is drawn.

    CraftError where it has no such outline, or is too small or too large at this gauge.
    """
    outline = form.outline
    if outline is None:
        raise CraftError(
            "One layer is worked from an outline that is alike on both sides: choose a plain solid, or two layers.",
            field="one_layer",
        )
    h, w = gauge.round_mm * EMPTY, gauge.stitch_mm * EMPTY
    high = float(np.ptp(outline.z))
    many = workable(form, high / h, 2 * float(outline.r.max()) / w, LEAST_ROW)
    middle = high * (np.arange(many) + 0.5) / many
    radius = np.interp(middle, outline.z - outline.z[0], outline.r)
    true = 2 * radius / w
    counts = _counts(true, simplicity)
    return Rings(middle, radius, middle + outline.z[0], true, high / many), counts


def _counts(true: Sequence[float] | np.ndarray[tuple[int], np.dtype[np.float64]], simplicity: float) -> tuple[int, ...]:
    """Whole stitches of every row: alike at both ends, so that two come or go at once, never more than doubled or halved.

    A row stays as the one below while that is off by less than a stitch; by up to two the simpler it is to be.
    """
    counts = [max(LEAST_ROW, round(float(true[0])))]
    for wide in map(float, true[1:]):
        below = counts[-1]
        if abs(wide - below) < 1 + simplicity * 0.5:
            counts.append(below)
            continue
        wanted = below + 2 * round((wide - below) / 2)
        least = max(LEAST_ROW, below - 2 * (below // 4))
        counts.append(min(max(wanted, least), below + 2 * (below // 2)))
    return tuple(counts)


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
