"""A part at another size laid beside the first: which rounds stand for which, and where the report's rows lie."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from craft.design.grading.report import Feature, State
from craft.design.grading.sized import PartAtSize
from craft.rounds.fabric import Tally

MOST_LINKS = 24
"""Pairs of rounds that are told: more of them are a hatching, and no help."""

_ROUNDS = re.compile(r"\bR(?:ow )?(\d{1,4})(?:\s*-\s*R?(\d{1,4}))?")
"""The rounds that a row of the report names."""


@dataclass(frozen=True, slots=True)
class Reported:
    """A row of the report at its round. at: place of the round in the ladder, from 0; first: in the first size's."""

    at: int
    first: bool
    state: State
    words: str


@dataclass(frozen=True, slots=True)
class Phases:
    """links: places of rounds of the first size, each with that of the round that stands for it at the other."""

    before: tuple[int, ...]
    after: tuple[int, ...]
    links: tuple[tuple[int, int], ...]
    marks: tuple[Reported, ...]


def phases_of(part: PartAtSize) -> Phases:
    """Both ladders of a part (stitches of its rounds), aligned by what each round stands for, with the report on them."""
    source = part.source.worked
    first = tuple(source.trunk) if source is not None else ()
    fresh = tuple(part.worked.trunk)
    links = tuple(_links(part, first, fresh))
    apart = max(1, -(-len(links) // MOST_LINKS))
    marks = tuple(m for row in part.features if row.state is not State.KEPT for m in _marks(row, first, fresh))
    return Phases(tuple(t.live for t in first), tuple(t.live for t in fresh), links[::apart], marks)


def _links(part: PartAtSize, first: tuple[Tally, ...], fresh: tuple[Tally, ...]) -> Iterator[tuple[int, int]]:
    """Rounds that stand for each other: as they were sampled, else in proportion to the height."""
    at = _places(fresh)
    if part.tops:
        for k, tally in enumerate(first):
            top = part.tops.get(tally.number) if tally.number is not None else None
            if top is not None and top in at:
                yield k, at[top]
        return
    for k in range(len(first) if fresh else 0):
        yield k, round(k * (len(fresh) - 1) / max(len(first) - 1, 1))


def _places(tallies: tuple[Tally, ...]) -> dict[int, int]:
    return {t.number: k for k, t in enumerate(tallies) if t.number is not None}


def _marks(row: Feature, first: tuple[Tally, ...], fresh: tuple[Tally, ...]) -> Iterator[Reported]:
    """Where a row lies: at the rounds that it names at this size, else at those of the first; a row without rounds
    belongs to the whole part, and has no place on the ladder."""
    for said, tallies, is_first in ((row.after, fresh, False), (row.before, first, True)):
        at = _places(tallies)
        named = [n for m in _ROUNDS.finditer(said) for n in {int(m[1]), int(m[2] or m[1])} if n in at]
        if named:
            for number in dict.fromkeys(named):
                yield Reported(at[number], is_first, row.state, row.words)
            return
