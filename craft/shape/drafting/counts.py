"""Counts: whole stitches for each ring, trading truth to the shape against simplicity of working.

A dynamic programme over (count before, count) pairs, so that "the same step again" can be cheap.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from craft.errors import require

Vector = NDArray[np.float64]
REACH = 5
"""Candidates to either side of a ring's true count, besides multiples of the start."""

SPAN = 24
"""Candidates to either side where a shape narrows so fast that the near ones make no run."""

MAKERS_DIFFER = 0.02
"""Share of a count below which an error is lost among makers' hands."""


def _costs(before: NDArray[np.int64], after: NDArray[np.int64], start: int) -> Vector:
    """How hard rounds from `before` to `after` are to say and remember, 0 (all plain) to about 1; infinite where one more
    than doubles or halves."""
    most = max(int(before[-1]), int(after[-1]))
    if most > MOST_REMEMBERED:
        return _reckoned(before, after, start)
    return _table(start, 1 << most.bit_length())[before[:, None], after[None, :]]


MOST_REMEMBERED = 255
"""Stitches of a round up to which the costs of all pairs of counts are remembered."""


@lru_cache(maxsize=32)
def _table(start: int, size: int) -> Vector:
    counts = np.arange(size)
    return _reckoned(counts, counts, start)


def _reckoned(before: NDArray[np.int64], after: NDArray[np.int64], start: int) -> Vector:
    one, two = before[:, None], after[None, :]
    step = np.abs(two - one)
    groups = np.gcd(one, step)
    steady = (one % start == 0) & (two % start == 0) & (step == start)
    uneven = 0.35 + 0.75 * (1 - groups / np.maximum(step, 1)) + np.where((step > start) & (step != one), 0.15, 0.0)
    effort = np.where(step == 0, 0.0, np.where(steady, 0.05, uneven))
    legal = (one <= 2 * two) & (two <= 2 * one)
    costs: Vector = np.where(legal, effort, np.inf)
    return costs


def _candidates(true: float, start: int, most: int) -> NDArray[np.int64]:
    near = range(math.floor(true) - REACH, math.ceil(true) + REACH + 1)
    found = {*near, start * math.floor(true / start), start * math.ceil(true / start)}
    least = min(start, 3)
    return np.array(sorted(n for n in found if least <= n <= most), np.int64)


def _miss(candidates: NDArray[np.int64], true: float) -> Vector:
    """Squared error in stitches, forgiving what makers' hands differ by."""
    over: Vector = np.maximum(np.abs(candidates - true) - MAKERS_DIFFER * true, 0.0)
    return np.square(over)


def best_counts(
    true: Sequence[float],
    start: int,
    simplicity: float,
    *,
    closed: bool,
    last: int | None = None,
    first: int | None = None,
) -> tuple[int, ...]:
    """Whole counts near `true` (one per ring).

    start: stitches of the first round, and the last one's of a closed piece. simplicity: 0 keeps to the
    shape, 1 to what is easy to work. last: stitches of the last round, where that has to fit another
    piece's. first: of the first round, where it goes on from other stitches. No round more than doubles or halves.
    """
    require(3 <= start <= 60, "A start has from 3 to 60 stitches.", field="start")
    require(0 <= simplicity <= 1, "Simplicity lies between 0 and 1.", field="simplicity")
    true = _no_dip(true, start)
    most = max(2 * start, 2 * math.ceil(max(true)))
    options = [_candidates(t, start, most) for t in true]
    options[0] = np.array([first or start])
    if closed or last is not None:
        options[-1] = np.array([start if closed or last is None else last])
    options = _reachable(options, start)
    found = _cheapest(options, true, start, simplicity)
    if found is None:
        found = _cheapest(_wide(options, true, start, most), true, start, simplicity)
    require(
        found is not None and (last is None or found[-1] == last),
        "This shape narrows faster than rounds can: make it longer there, or smoother.",
        field="form",
    )
    assert found is not None
    return found


def _cheapest(
    options: list[NDArray[np.int64]], true: Sequence[float], start: int, simplicity: float
) -> tuple[int, ...] | None:
    """The cheapest run through the options, None where no run keeps to legal rounds."""
    if any(not len(o) for o in options):
        return None
    rings = len(true)
    weight = 0.02 + 24 * simplicity**3.5
    turn = 0.1 * weight
    best = np.zeros((1, 1))
    links: list[NDArray[np.int64]] = []
    for i in range(1, rings):
        before, after = options[i - 1], options[i]
        step_cost = weight * _costs(before, after, start) + _miss(after, true[i])[None, :]
        if i == 1:
            best = step_cost
            continue
        earlier = options[i - 2]
        last_step = before[None, :] - earlier[:, None]
        this_step = after[None, :] - before[:, None]
        changed = last_step[:, :, None] != this_step[None, :, :]
        total = best[:, :, None] + turn * changed
        links.append(np.argmin(total, axis=0))
        best = np.min(total, axis=0) + step_cost
    return _trace(options, best, links) if np.isfinite(best).any() else None


def _no_dip(true: Sequence[float], start: int) -> list[float]:
    """Ring counts that never fall below the start on the way to the widest ring: a tip narrower
    than the start cannot be worked, so it comes out a little blunter."""
    widest = int(np.argmax(true))
    return [max(t, start) if i <= widest else t for i, t in enumerate(true)]


def _reachable(options: list[NDArray[np.int64]], start: int) -> list[NDArray[np.int64]]:
    """Candidates, in ascending order, widened where no legal ratio leads from one ring to the next."""
    for i in range(1, len(options)):
        least, most = int(options[i - 1][0]), int(options[i - 1][-1])
        if options[i][0] > 2 * most:
            options[i] = np.array([2 * most])
        elif options[i][-1] * 2 < least and i < len(options) - 1:
            options[i] = np.array([math.ceil(least / 2)])
    for i in range(len(options) - 2, 0, -1):
        least, most = int(options[i + 1][0]), int(options[i + 1][-1])
        if options[i][0] > 2 * most:
            options[i] = np.array([2 * most])
        elif 2 * options[i][-1] < least:
            options[i] = np.array([math.ceil(least / 2)])
    return options


def _wide(options: list[NDArray[np.int64]], true: Sequence[float], start: int, most: int) -> list[NDArray[np.int64]]:
    """Every count that can be come to from the first ring and from which the last can be reached."""
    low, high = [int(options[0].min())], [int(options[0].max())]
    for _ in range(1, len(options)):
        low.append(max(3, math.ceil(low[-1] / 2)))
        high.append(min(most, 2 * high[-1]))
    least, top = int(options[-1].min()), int(options[-1].max())
    wide = [options[-1]]
    for i in range(len(options) - 2, 0, -1):
        least, top = max(3, math.ceil(least / 2)), 2 * top
        a, b = max(low[i], least), min(high[i], top)
        near = round(min(max(true[i], a), b))
        wide.append(np.arange(max(a, near - SPAN), min(b, near + SPAN) + 1))
    return [options[0], *wide[::-1]]


def _trace(options: list[NDArray[np.int64]], best: Vector, links: list[NDArray[np.int64]]) -> tuple[int, ...]:
    rings = len(options)
    a, b = np.unravel_index(int(np.argmin(best)), best.shape)
    path = [int(b), int(a)]
    for link in reversed(links):
        path.append(int(link[path[-1], path[-2]]))
    return tuple(int(options[i][k]) for i, k in enumerate(reversed(path[:rings])))


def evened(counts: tuple[int, ...], true: Sequence[float], *, mirrored: bool) -> tuple[int, ...]:
    """The mirror-like version of nearly mirrored counts when the target is the same both ways up."""
    backwards = np.asarray(true)[::-1]
    if not mirrored or float(np.max(np.abs(np.asarray(true) - backwards))) > max(1.5, 0.06 * max(true)):
        return counts
    half = (len(counts) + 1) // 2
    either = [
        counts[:half] + counts[: len(counts) - half][::-1],
        counts[::-1][:half] + counts[::-1][: len(counts) - half][::-1],
    ]
    return min(either, key=lambda c: float(np.sum((np.asarray(c) - np.asarray(true)) ** 2)))
