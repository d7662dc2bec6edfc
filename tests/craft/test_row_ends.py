"""Row ends picked up for an edging: which stitches it goes into, and how the edged panel lies."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.text.check import check

GAUGE = Gauge(5.6, 5.15, 0.0)


def edged(width: int, rows: int, side: int) -> str:
    return (
        f"Ch {width + 1}\nRow 1: from 2nd ch, {width} sc [{width}]\nRows 2-{rows}: ch 1, turn, {width} sc [{width}]\n"
        f"R{rows + 1}: ch 1, turn, 3 sc in next st, {width - 2} sc, 3 sc in next st, along the edge, {side} sc, "
        f"on the underside, 3 sc in next st, {width - 2} sc, 3 sc in next st, along the edge, {side} sc "
        f"[{2 * width + 2 * side + 8}]\n"
    )


def places(part: WorkedPart, width: int) -> np.ndarray:
    """Column and row of what every stitch of the last round was worked into; the chain is row 0."""
    graph, last = part.graph, part.rounds[-1]
    where: dict[int, tuple[int, int]] = {}
    first = part.rounds[0].first
    for stitch in range(width):
        # The first row is worked back along the chain.
        chain = graph.parents_of(first + stitch)[0]
        where[chain] = (stitch, 0)
    for number, row in enumerate(part.rounds[:-1], 1):
        for at, stitch in enumerate(range(row.end - width, row.end)):
            where[stitch] = (at if number % 2 else width - 1 - at, number)
    return np.array([where[graph.parents_of(s)[0]] for s in range(last.first, last.end)])


@given(st.integers(4, 12), st.integers(2, 12), st.integers(1, 14))
def test_an_edging_goes_once_around(width: int, rows: int, side: int) -> None:
    """It never leaves the outline, never goes back, and runs the same way round whether rows are odd or even."""
    read = check(edged(width, rows, side))
    assert not read.problems
    at = places(read.parts[0], width)
    on_rim = (at[:, 0] == 0) | (at[:, 0] == width - 1) | (at[:, 1] == 0) | (at[:, 1] == rows)
    assert on_rim.all()
    steps = np.abs(np.diff(at, axis=0)).sum(1)
    assert steps.max() <= max(1, -(-rows // side) + 1)
    x, y = at.T.astype(float)
    area = float((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()) / 2
    inside = (width - 1) * rows
    assert abs(area) > 0.6 * inside
    # Rows that end on the other side are edged the other way around the grid, which is seen from its back.
    assert (area > 0) == (rows % 2 == 1)


def test_along_the_edge_alone_goes_all_the_way_around() -> None:
    text = (
        "Ch 11\nRow 1: from 2nd ch, 10 sc [10]\nRows 2-10: ch 1, turn, sc across [10]\nR1: along the edge, 38 sc [38]\n"
    )
    read = check(text)
    assert not read.problems
    part = read.parts[0]
    at = places(part, 10)
    assert len(at) == 38
    for column, row in ((0, None), (9, None), (None, 0), (None, 10)):
        on_side = at[:, 0] == column if row is None else at[:, 1] == row
        assert on_side.sum() >= 8
    assert not part.rounds[-1].flat


def test_along_the_edge_with_few_stitches_takes_one_side() -> None:
    text = (
        "Ch 11\nRow 1: from 2nd ch, 10 sc [10]\nRows 2-10: ch 1, turn, sc across [10]\nR1: along the edge, 9 sc [9]\n"
    )
    at = places(check(text).parts[0], 10)
    assert len(set(at[:, 0])) == 1
    assert (np.diff(at[:, 1]) < 0).all()


def test_stitches_are_still_counted_where_nothing_was_worked_in_rows() -> None:
    tube = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: along the edge, 9 sc [9]\n"
    assert check(tube).parts[0].counts[-1] == 9


@pytest.mark.parametrize(("width", "rows"), [(10, 10), (12, 15), (20, 14)])
def test_an_edged_panel_lies_in_one_piece_and_flat(width: int, rows: int) -> None:
    side = round((rows + 2) * GAUGE.round_mm / GAUGE.stitch_mm) - 3
    settled = settle(check(edged(width, rows, side)).parts[0], GAUGE)
    assert settled.converged
    assert settled.sheets.many == 1
    assert [len(rim) for rim in settled.sheets.rims] == [2 * width + 2 * side + 8]
    wide, deep, tall = np.ptp(settled.x, axis=0)
    assert wide == pytest.approx((width - 1) * GAUGE.stitch_mm + 2 * GAUGE.round_mm, rel=0.04)
    assert tall == pytest.approx((rows + 2) * GAUGE.round_mm, rel=0.04)
    assert deep < 2 * GAUGE.stitch_mm
