"""The dry run: a worked part movement by movement, as a careful tester would make it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from craft.rounds.fabric.graph import KIND_KEYS, LOOP_ORDER
from craft.rounds.fabric.run import WorkedPart
from craft.rounds.stitches import Loops, stitch


@dataclass(frozen=True, slots=True)
class Movement:
    """One movement of the hook.

    stitch: registry key. into: numbers of the stitches it goes into, in `WorkedPart.graph`; makes: of
    those it makes. loops: where the hook goes in. colour: on the hook. front: the outside faces the maker.
    """

    stitch: str
    into: tuple[int, ...]
    makes: tuple[int, ...]
    loops: Loops
    colour: str
    front: bool


def movements(part: WorkedPart, at: int) -> tuple[Movement, ...]:
    """The movements of the worked round with index `at`; an increase is one movement that makes two."""
    return tuple(_movements(part, at))


def _movements(part: WorkedPart, at: int) -> Iterator[Movement]:
    graph = part.graph
    tally = part.rounds[at]
    i = tally.first
    while i < tally.end:
        key = KIND_KEYS[graph.kind[i]]
        into = graph.parents_of(i)
        end = min(i + max(stitch(key).gives, 1), tally.end)
        yield Movement(
            key,
            tuple(into),
            tuple(range(i, end)),
            LOOP_ORDER[graph.loops[i]],
            graph.colours[graph.colour[i]],
            bool(graph.front[i]),
        )
        i = end


def place_of(part: WorkedPart, number: int) -> tuple[str, int]:
    """Where a stitch stands: label of its round, and which of the round it is, from 1.

    A stitch of a chain or of a piece that was taken in has its piece's name, or 'chain'.
    """
    graph = part.graph
    if graph.piece[number]:
        first = int(np.flatnonzero(graph.piece == graph.piece[number])[0])
        return graph.pieces[graph.piece[number] - 1], number - first + 1
    for tally in part.rounds:
        if tally.first <= number < tally.end:
            return tally.label, number - tally.first + 1
    chains = np.flatnonzero((graph.piece == 0) & (graph.round == graph.round[number]))
    return "chain", int(np.searchsorted(chains, number)) + 1
