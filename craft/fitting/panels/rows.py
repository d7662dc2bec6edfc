"""Rows and edgings of panels as rounds of a pattern."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from craft.rounds.pattern import Chain, Edge, FromHook, Instruction, Onto, Round, Turn, Way, Work
from craft.shape.drafting import Shaping, shaped_round

_CORNER = Work("inc3")
"""Three stitches into one, around a corner."""

_TURNED = (Chain(1), Turn())


def rows_of(counts: Sequence[int], *, domed: bool) -> list[Round]:
    """The starting chain and the rows on it, those alike folded."""
    rows = [
        Round(None, None, (Chain(counts[0] + 1),), way=Way.LINE),
        Round(1, 1, (FromHook(2), Work("sc", counts[0])), counts[0], way=Way.ROW),
    ]
    number = 2
    for same, run in itertools.groupby(enumerate(itertools.pairwise(counts)), key=lambda r: r[1][0] == r[1][1]):
        steps = list(run)
        if same:
            count = steps[0][1][1]
            rows.append(Round(number, number + len(steps) - 1, (*_TURNED, Work("sc", count)), count, way=Way.ROW))
            number += len(steps)
            continue
        for at, (before, after) in steps:
            work = shaped_round(before, after, Shaping()) if domed else _at_ends(before, after, late=bool(at % 2))
            rows.append(Round(number, number, (*_TURNED, *work), after, way=Way.ROW))
            number += 1
    return rows


def _at_ends(before: int, after: int, *, late: bool) -> tuple[Instruction, ...]:
    """Shaping at both ends of a row; a single one at the end when `late`, else at the beginning."""
    many, key = abs(after - before), "inc" if after > before else "dec"
    one, other = (many + (not late)) // 2, (many + late) // 2
    plain = before - many * (1 if key == "inc" else 2)
    return tuple(Work(k, n) for k, n in ((key, one), ("sc", plain), (key, other)) if n)


def edging(counts: Sequence[int], sides: Sequence[int]) -> Round:
    """A round of single crochet around a four-sided panel, three in every corner."""
    top, left, base, right = (n - 2 for n in sides)
    number = len(counts) + 1
    body: tuple[Instruction, ...] = (
        *_TURNED,
        *_with_corners(top),
        Onto(Edge.SIDE),
        Work("sc", left),
        Onto(Edge.CHAIN),
        *_with_corners(base),
        Onto(Edge.SIDE),
        Work("sc", right),
    )
    return Round(number, number, body, sum(sides) + 4)


def _with_corners(plain: int) -> tuple[Work, ...]:
    return (_CORNER, Work("sc", plain), _CORNER)


def edging_around(number: int, sides: Sequence[int], sharp: Sequence[bool], ahead: int) -> Round:
    """A round of single crochet around a panel of any outline, three in each sharp corner.

    ahead: how many stitches of the first side, its corner among them, lie before the round begins.
    """
    around: list[int] = []
    for k, corner in zip(sides, sharp, strict=True):
        around += [3 if corner else 1, *[1] * k]
    for at in [i for i, many in enumerate(around) if many == 3]:
        before, after = (at - 1) % len(around), (at + 1) % len(around)
        if around[before] == around[after] == 1:
            around[before] = around[after] = 0
        else:  # a side of one stitch has none to give to both its corners
            around[at] = 1
    around = around[ahead:] + around[:ahead]
    body: list[Instruction] = [Onto(Edge.SIDE)]
    for many, run in itertools.groupby(n for n in around if n):
        count = len(list(run))
        body += [_CORNER] * count if many == 3 else [Work("sc", count)]
    return Round(number, number, tuple(body), len(around))
