"""Bands: runs of rounds of one look, and how many rounds each has at another size."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.rounds.stitches import Loops

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Look:
    """What rounds of a band share. base: the stitch most of it is made of. colour: where it is one only, else ''."""

    base: str
    loops: Loops
    colour: str
    joined: bool


@dataclass(frozen=True, slots=True)
class Band:
    """Rounds `first` to `last` (of the first size, from 0) with one look.

    ridge: a single round in one loop or of another stitch between others: it stays a single one at every size.
    """

    first: int
    last: int
    look: Look
    ridge: bool = False

    @property
    def many(self) -> int:
        """How many rounds it has."""
        return self.last - self.first + 1


def bands_of(looks: Sequence[Look]) -> list[Band]:
    """The bands of rounds with these looks."""
    found: list[Band] = []
    at = 0
    for look, run in itertools.groupby(looks):
        many = len(list(run))
        found.append(Band(at, at + many - 1, look))
        at += many
    return [Band(b.first, b.last, b.look, ridge=_is_ridge(b, found[k - 1] if k else None)) for k, b in enumerate(found)]


def _is_ridge(band: Band, above: Band | None) -> bool:
    if band.many != 1:
        return False
    special = band.look.loops is not Loops.BOTH or band.look.base != "sc"
    return special or (above is not None and band.look.base != above.look.base)


def shared_out(bands: Sequence[Band], total: int) -> list[int]:
    """Rounds of every band out of `total`: one of each ridge, of the others in proportion, none left without a round
    while there are enough; the first ones of what does not fit come to 0."""
    many = [1 if b.ridge else 0 for b in bands]
    left = total - sum(many)
    growing = [k for k, b in enumerate(bands) if not b.ridge]
    if left < len(growing):
        # Too few rounds for all: the tallest bands have one each.
        kept = sorted(range(len(bands)), key=lambda k: (-bands[k].many, k))[: max(total, 1)]
        return [1 if k in kept else 0 for k in range(len(bands))]
    weights = [bands[k].many for k in growing]
    ends = np.cumsum(weights) / max(sum(weights), 1) * left
    before = 0
    for at, k in enumerate(growing):
        after = max(before + 1, min(round(float(ends[at])), left - (len(growing) - 1 - at)))
        many[k], before = after - before, after
    return many


def sampled(bands: Sequence[Band], many: Sequence[int]) -> Vector:
    """(rounds,) where every new round lies among those of the first size: 1 at the top of the first, 2 of the second."""
    out: list[float] = []
    for band, n in zip(bands, many, strict=True):
        out += [band.first + (k + 1) * band.many / n for k in range(n)]
    return np.array(out)


def bands_at(bands: Sequence[Band], many: Sequence[int]) -> list[Band]:
    """The band that every new round belongs to."""
    return [band for band, n in zip(bands, many, strict=True) for _ in range(n)]
