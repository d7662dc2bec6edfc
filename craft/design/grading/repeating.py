"""Motifs and colours that repeat: at another size they come again at the distance they had, instead of as often."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from craft.design.grading.painting import Motif, Paint, Vector
from craft.design.grading.report import State

EVEN = 1.01
"""Stitches by which two distances of repeating motifs may differ and still be one."""

AT_DISTANCE = "They repeat at the distance they had."

Row = tuple[State, str, str, str, str]
"""State, kind, before, after and why, of the report."""


@dataclass(frozen=True, slots=True)
class Repeated:
    """Motifs of every fresh round, and what the report says of them. apart: they keep their distance, as colours do."""

    motifs: tuple[tuple[Motif, ...], ...]
    rows: tuple[Row, ...]
    apart: bool = False


def at_distance(motifs: Sequence[Motif], at: Vector, before: Sequence[int], after: Sequence[int]) -> Repeated:
    """Motifs of a segment at another size: those that repeat as far from each other as they were, others where they were.

    at: (m,) height of each fresh round among the old ones, in rounds. before, after: stitches of the old and of the
    fresh rounds.
    """
    placed: list[list[Motif]] = [[] for _ in at]
    rows: list[Row] = []
    for stitch, alike in itertools.groupby(sorted(motifs, key=lambda m: m.what.stitch), key=lambda m: m.what.stitch):
        by_round = {
            k: tuple(found) for k, found in itertools.groupby(sorted(alike, key=lambda m: m.at), key=lambda m: m.at)
        }
        made = _rounds_again(tuple(by_round), at)
        for fresh, old in made:
            placed[fresh] += _around(by_round[old], before[old], after[fresh])
        was = sum(map(len, by_round.values()))
        now = sum(m.what.stitch == stitch for found in placed for m in found)
        if now != was:
            rows.append((State.CHANGED, stitch, str(was), str(now), AT_DISTANCE))
    return Repeated(tuple(map(tuple, placed)), tuple(rows), apart=True)


def _rounds_again(rounds: tuple[int, ...], at: Vector) -> list[tuple[int, int]]:
    """Fresh rounds with motifs, each with the old one that it looks like: every so many rounds where they came so."""
    nearest = [int(np.argmin(np.abs(at - (k + 1)))) for k in rounds]
    steps = {b - a for a, b in itertools.pairwise(rounds)}
    if len(steps) != 1:
        return list(dict(zip(nearest, rounds, strict=True)).items())
    step = steps.pop()
    return [(fresh, rounds[k % len(rounds)]) for k, fresh in enumerate(range(nearest[0], nearest[-1] + 1, step))]


def _around(motifs: Sequence[Motif], before: int, after: int) -> list[Motif]:
    """Motifs of a round: as many as find place at the distance they had, where they stood evenly around it."""
    gaps = np.diff([*(m.share for m in motifs), motifs[0].share + 1]) * before
    if len(motifs) < 2 or gaps.max() - gaps.min() > EVEN:
        return list(motifs)
    many = max(1, round(after * len(motifs) / before))
    return [replace(motifs[0], share=(motifs[0].share + k / many) % 1) for k in range(many)]


def tiled(paint: Paint, before: int, after: int) -> tuple[Paint, Row | None]:
    """A round's look with its repeating pattern of colours as wide as it was; a row of the report where it comes oftener.

    before, after: stitches of the round at both sizes.
    """
    times = _times(paint)
    many = max(1, round(after * times / before)) if times > 1 else 1
    if times < 2 or many == times:
        return paint, None
    one = len(paint.bases) // times
    ends = np.concatenate([(paint.ends[:one] * times + k) / many for k in range(many)])
    look = Paint(paint.fabric, ends, paint.bases[:one] * many, paint.loops[:one] * many, paint.colours[:one] * many)
    return look, (State.CHANGED, "colours around", f"{times} times", f"{many} times", AT_DISTANCE)


def repeats_upward(paints: Sequence[Paint]) -> int:
    """After how many rounds a picture of colours comes again, told by rounds of so many stitches each; 0 where it does
    not, or is not seen to."""
    looks = [(paint.bases, paint.loops, paint.colours) for paint in paints]
    if all(len(set(paint.colours)) < 2 for paint in paints):
        return 0
    for one in range(2, len(looks) // 2 + 1):
        if all(look == looks[k - one] for k, look in enumerate(looks) if k >= one):
            return one
    return 0


def _times(paint: Paint) -> int:
    """How often a pattern of colours comes around a round, 1 where it does not repeat."""
    many = len(paint.colours)
    if len(set(paint.colours)) < 2:
        return 1
    looks = tuple(zip(paint.bases, paint.loops, paint.colours, strict=True))
    for one in range(2, many // 2 + 1):
        if many % one == 0 and looks == looks[:one] * (many // one):
            return many // one
    return 1
