"""Rows and edgings of panels in words, in US terms."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from craft.drafting import Shaping, shaped_round
from craft.notation import print_body
from craft.stitches import Terms


def written_rows(counts: Sequence[int], *, domed: bool) -> list[str]:
    """Rows in US terms, those alike folded."""
    lines = [f"Ch {counts[0] + 1}", f"Row 1: from 2nd ch, {counts[0]} sc [{counts[0]}]"]
    number = 2
    for same, run in itertools.groupby(enumerate(itertools.pairwise(counts)), key=lambda r: r[1][0] == r[1][1]):
        steps = list(run)
        if same:
            label = f"Row {number}" if len(steps) == 1 else f"Rows {number}-{number + len(steps) - 1}"
            lines.append(f"{label}: ch 1, turn, {steps[0][1][1]} sc [{steps[0][1][1]}]")
            number += len(steps)
            continue
        for at, (before, after) in steps:
            work = _spread(before, after) if domed else _at_ends(before, after, late=bool(at % 2))
            lines.append(f"Row {number}: ch 1, turn, {work} [{after}]")
            number += 1
    return lines


def _at_ends(before: int, after: int, *, late: bool) -> str:
    """Shaping at both ends of a row; a single one at the end when `late`, else at the beginning."""
    many, op = abs(after - before), "inc" if after > before else "dec"
    one, other = (many + (not late)) // 2, (many + late) // 2
    plain = before - many * (1 if op == "inc" else 2)
    words = [_times(op, one), f"{plain} sc" if plain else "", _times(op, other)]
    return ", ".join(w for w in words if w)


def _times(op: str, many: int) -> str:
    return "" if not many else op if many == 1 else f"{op} x {many}"


def _spread(before: int, after: int) -> str:
    """Shaping all along a row: darts, of which each takes in or lets out one stitch."""
    return print_body(shaped_round(before, after, Shaping()), Terms.US)


def edging(counts: Sequence[int], sides: list[int]) -> str:
    """A round of single crochet around a four-sided panel, three in every corner."""
    top, left, base, right = sides
    return (
        f"R{len(counts) + 1}: ch 1, turn, 3 sc in next st, {top - 2} sc, 3 sc in next st, along the edge, {left - 2} sc, "
        f"on the underside, 3 sc in next st, {base - 2} sc, 3 sc in next st, along the edge, {right - 2} sc [{sum(sides) + 4}]"
    )


def edging_around(number: int, sides: list[int], sharp: list[bool], ahead: int) -> str:
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
    words: list[str] = []
    for many, run in itertools.groupby(n for n in around if n):
        count = len(list(run))
        words += ["3 sc in next st"] * count if many == 3 else [f"{count} sc"]
    return f"R{number}: along the edge, {', '.join(words)} [{len(around)}]"
