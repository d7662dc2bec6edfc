"""Around: where in a round increases and decreases go when a shape is not the same all the way around.

A stitch of one round lies over a piece of the next; where that piece is longer than a stitch, stitches
come in, where it is shorter they go. Positions follow the fabric's lean, so that a belly stays in front.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.rounds.pattern import Instruction, Repeat, Work
from craft.shape.drafting.loops import SAMPLES, Loop, nearest_along
from craft.shape.drafting.spread import STAGGER_FROM, Shaping, shaped_round

Vector = NDArray[np.float64]

EVEN_WITHIN = 0.55
"""Stitches by which a round's growth may differ from an even one and still be written evenly."""

CHANGE = 1.2
"""What an increase or decrease costs, in squared stitches of displacement: fewer, and rounds get fussy."""

RELAXED = 0.12
"""How far stitches of a round slide towards even widths before the next is worked."""

BAND = 3
"""How many stitches a place may lie off while places are weighed against each other."""

_PLAIN, _INC, _DEC = 0, 1, 2
_TAKES, _GIVES = (1, 1, 2), (1, 2, 1)


@dataclass(frozen=True, slots=True)
class Growth:
    """How one loop lies over the one before: (SAMPLES + 1,) share of the next loop up to each share of this one.

    From the front to the front, 0 to 1, never falling.
    """

    share: Vector

    def at(self, place: Vector) -> Vector:
        """Shares of the next loop at shares of this one, also beyond one turn."""
        turns = np.floor(place)
        out: Vector = turns + np.interp(place - turns, np.linspace(0, 1, SAMPLES + 1), self.share)
        return out


def growth(before: Loop, after: Loop, *, mirrored: bool) -> Growth:
    """How `after` lies over `before`. mirrored: left and right are alike, and are made so."""
    at = nearest_along(after, before.points)
    steps = np.diff(at, append=at[:1])
    steps = (steps + 0.5) % 1.0 - 0.5
    share = np.concatenate([[0.0], np.cumsum(steps)])
    share = np.maximum.accumulate(share)
    share = share / max(float(share[-1]), 1e-9)
    if mirrored:
        share = (share + 1.0 - share[::-1]) / 2
    # Over a loop of few samples steps are coarse: a running mean of a fortieth of the round evens them.
    wide = 7
    padded = np.concatenate([share[-wide - 1 : -1] - 1.0, share, share[1 : wide + 1] + 1.0])
    evened = np.convolve(padded, np.ones(wide) / wide, mode="same")[wide:-wide]
    evened = evened - np.linspace(evened[0], evened[-1] - 1.0, len(evened))
    return Growth(np.maximum.accumulate(evened))


@dataclass(frozen=True, slots=True)
class _Edge:
    """A worked round from the front: (n + 1,) shares of its loop at which its stitches lie, and where it begins.

    Stitches keep their place over those below, so that small differences of many rounds add up until
    a stitch comes in. start: stitches from the front to the round's beginning, negative to the other side.
    """

    at: Vector
    start: float

    @property
    def count(self) -> int:
        return len(self.at) - 1

    @property
    def places(self) -> Vector:
        """(n,) share of the loop at which the middle of each stitch lies, in the order in which they are worked."""
        middle = (self.at[:-1] + self.at[1:]) / 2
        out: Vector = np.roll(middle, -round(self.start)) % 1.0
        return out

    def worked(self, ops: Sequence[int], grown: Growth, first: int, lean: float) -> _Edge:
        """The edge after a round of `ops` from the front that was begun at its op number `first`."""
        takes = np.cumsum([0, *(_TAKES[op] for op in ops)])
        gives = np.cumsum([0, *(_GIVES[op] for op in ops)])
        over = grown.at(self.at)[takes]
        many = int(gives[-1])
        even = np.arange(many + 1) / many
        at = (1 - RELAXED) * np.interp(np.arange(many + 1), gives, over) + RELAXED * even
        off = self.start - int(takes[first])
        rest = (off + self.count / 2) % self.count - self.count / 2
        return _Edge(at, _around(int(gives[first]), many) + rest - lean)


def _around(place: int, count: int) -> int:
    """A place from the front as the nearer way there: up to half the round either way."""
    return place - count if place > count / 2 else place


def _laid(edge: _Edge, after: int, grown: Growth, *, mirrored: bool) -> list[int]:
    """What each stitch becomes, from the front in working direction: plain, increase or decrease."""
    before = edge.count
    wanted = after * grown.at(edge.at)
    if mirrored and before % 2 == 0 and after % 2 == 0:
        half = _fitted(before // 2, after // 2, wanted[: before // 2 + 1])
        if half is not None:
            return half + half[::-1]
    whole = _fitted(before, after, wanted)
    if whole is None:
        raise CraftError("A round can't be laid on this shape: make it smoother, or take a finer yarn.", field="form")
    return whole


def _fitted(before: int, after: int, wanted: Vector) -> list[int] | None:
    """The cheapest run of stitches from `before` to `after` whose tops lie nearest to `wanted`; None without any.

    Only tops within reach of where they are wanted are looked at: a dozen of each stitch, for which plain numbers are
    faster than arrays.
    """
    reach = BAND + 0.5 * abs(after - before)
    rows: list[tuple[int, list[float], list[int]]] = [(0, [0.0], [-1])]
    for k in range(1, before + 1):
        top = float(wanted[k])
        low, high = max(0, math.ceil(top - reach)), min(after, math.floor(top + reach))
        costs, how = [], []
        for t in range(low, high + 1):
            cheapest, chosen = math.inf, -1
            off = (t - top) ** 2
            for op in (_PLAIN, _INC, _DEC):
                takes = _TAKES[op]
                if k < takes:
                    continue
                least, earlier, _ = rows[k - takes]
                at = t - _GIVES[op] - least
                if 0 <= at < len(earlier):
                    cost = earlier[at] + off * takes + (CHANGE if op else 0.0)
                    if cost < cheapest:
                        cheapest, chosen = cost, op
            costs.append(cheapest)
            how.append(chosen)
        rows.append((low, costs, how))
    low, costs, _ = rows[before]
    if not low <= after < low + len(costs) or costs[after - low] == math.inf:
        return None
    out: list[int] = []
    k, t = before, after
    while k:
        low, _, how = rows[k]
        op = how[t - low]
        out.append(op)
        k, t = k - _TAKES[op], t - _GIVES[op]
    return out[::-1]


def _first_op(ops: Sequence[int], start: float, count: int) -> int:
    """The op at which the round begins: nearest to its start, and cutting no decrease in two."""
    takes = np.cumsum([0, *(_TAKES[op] for op in ops)])[:-1]
    off = np.abs((takes - start + count / 2) % count - count / 2)
    return int(np.argmin(off))


def _is_even(edge: _Edge, after: int, grown: Growth) -> bool:
    """Whether an evenly spread round does as well."""
    off = after * np.abs(grown.at(edge.at) - np.linspace(0, 1, edge.count + 1))
    return float(off.max()) < EVEN_WITHIN


def said(ops: Sequence[int], shaping: Shaping) -> tuple[Instruction, ...]:
    """Stitches in the fewest words: runs counted, and the shortest repeat that makes the whole."""
    if not any(ops):
        return (Repeat((Work("sc"),), None),)
    keys = ("sc", "inc", shaping.decrease)
    runs = [(op, len(list(group))) for op, group in itertools.groupby(ops)]
    if len(runs) > 1 and runs[0][0] == runs[-1][0]:
        period = _period(list(ops))
        if period < len(ops):
            runs = [(op, len(list(group))) for op, group in itertools.groupby(ops[:period])]
            return (Repeat(tuple(Work(keys[op], n) for op, n in runs), len(ops) // period),)
    period = _period(runs)
    body = tuple(Work(keys[op], n) for op, n in runs[:period])
    if period == len(runs) or len(runs) // period < 2:
        return tuple(Work(keys[op], n) for op, n in runs)
    return (Repeat(body, len(runs) // period),)


def _period(items: Sequence[object]) -> int:
    n = len(items)
    return next(p for p in range(1, n + 1) if n % p == 0 and list(items) == list(items[:p]) * (n // p))


@dataclass(frozen=True, slots=True)
class Laid:
    """Rounds laid on a shape: the work of each after the first, and of each the share of its loop, from the front
    on, at which every stitch lies."""

    bodies: tuple[tuple[Instruction, ...], ...]
    places: tuple[Vector, ...]


def laid_rounds(
    counts: Sequence[int], grown: Sequence[Growth], shaping: Shaping, lean: float, *, mirrored: bool
) -> Laid:
    """Every round after the first. lean: stitches by which each round's start falls back."""
    rounds: list[tuple[Instruction, ...]] = []
    edge, shifted = _Edge(np.linspace(0, 1, counts[0] + 1), 0.0), False
    places = [edge.places]
    for after, over in zip(counts[1:], grown, strict=True):
        before = edge.count
        if _is_even(edge, after, over):
            shifted = shifted != (before != after and max(before, after) > STAGGER_FROM)
            rounds.append(shaped_round(before, after, shaping, shifted=shifted and before != after))
            ops = _evenly(before, after)
            first = _first_op(ops, edge.start, before)
        else:
            ops = _laid(edge, after, over, mirrored=mirrored)
            first = _first_op(ops, edge.start, before)
            rounds.append(said([*ops[first:], *ops[:first]], shaping))
        edge = edge.worked(ops, over, first, lean)
        places.append(edge.places)
    return Laid(tuple(rounds), tuple(places))


def _evenly(before: int, after: int) -> list[int]:
    """Ops of an evenly spread round."""
    places, op = abs(after - before), _INC if after > before else _DEC
    plain = before - places * _TAKES[op]
    if not places:
        return [_PLAIN] * before
    out: list[int] = []
    for i in range(places):
        out += [_PLAIN] * ((i + 1) * plain // places - i * plain // places) + [op]
    return out
