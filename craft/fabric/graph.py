"""The stitch graph: every stitch made, what it was worked into, and in which order."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.stitches import STITCHES, Loops

KIND_KEYS: tuple[str, ...] = tuple(STITCHES)
"""Stitch keys by their number in `StitchGraph.kind`."""

KIND_NUMBER = {key: number for number, key in enumerate(KIND_KEYS)}
LOOP_ORDER: tuple[Loops, ...] = (Loops.BOTH, Loops.FRONT, Loops.BACK)


@dataclass(frozen=True, slots=True)
class StitchGraph:
    """Stitches in working order; all arrays are read-only.

    kind: (n,) number into `KIND_KEYS`. round: (n,) index of the worked round.
    colour: (n,) index into `colours`. loops: (n,) index into `LOOP_ORDER`, the loops worked into.
    parents of stitch i: `parents[first_parent[i]:first_parent[i + 1]]`, none for stitches of a start.
    """

    kind: NDArray[np.uint8]
    round: NDArray[np.int32]
    colour: NDArray[np.int16]
    loops: NDArray[np.uint8]
    first_parent: NDArray[np.int64]
    parents: NDArray[np.int64]
    colours: tuple[str, ...]

    def __len__(self) -> int:
        return len(self.kind)

    def parents_of(self, stitch: int) -> list[int]:
        """Indices of the stitches that `stitch` was worked into."""
        return [int(p) for p in self.parents[self.first_parent[stitch] : self.first_parent[stitch + 1]]]


class GraphBuilder:
    """Collects rounds of stitches into a graph."""

    def __init__(self) -> None:
        self._kind: list[NDArray[np.uint8]] = []
        self._colour: list[NDArray[np.int16]] = []
        self._loops: list[int] = []
        self._parent_counts: list[NDArray[np.int64]] = []
        self._parents: list[NDArray[np.int64]] = []
        self.colours: list[str] = []
        self._edge = (0, 0)

    @property
    def edge(self) -> int:
        """Stitches of the last round added."""
        return self._edge[1] - self._edge[0]

    def colour_number(self, name: str) -> int:
        """The number of a colour, given out when first used."""
        if name not in self.colours:
            self.colours.append(name)
        return self.colours.index(name)

    def add_round(
        self,
        kinds: NDArray[np.uint8],
        takes: NDArray[np.int64],
        gives: NDArray[np.int64],
        colours: NDArray[np.int16],
        loops: Loops,
        *,
        start: bool,
        live: int,
    ) -> None:
        """Add the stitches of one round.

        kinds, takes, gives, colours: one row per movement of the hook. live: stitches the round
        is reckoned on; when that is not what the last round made (a fault), parents are spread in
        proportion so that the fabric still holds together.
        """
        first, end = self._edge
        made = int(gives.sum())
        rows = np.repeat(np.arange(len(kinds)), gives)
        self._kind.append(kinds[rows])
        self._colour.append(colours[rows])
        self._loops.append(LOOP_ORDER.index(loops))
        if start or end == first:
            self._parent_counts.append(np.zeros(made, np.int64))
        else:
            counts = takes[rows]
            before = (np.cumsum(takes) - takes)[rows]
            offset = np.arange(int(counts.sum())) - np.repeat(np.cumsum(counts) - counts, counts)
            at = np.repeat(before, counts) + offset
            if live != end - first and live > 0:
                at = at * (end - first) // live
            self._parent_counts.append(counts)
            self._parents.append(np.minimum(first + at, end - 1))
        self._edge = (end, end + made)

    def build(self) -> StitchGraph:
        """The finished graph."""
        sizes = [len(k) for k in self._kind]
        counts = np.concatenate([np.zeros(0, np.int64), *self._parent_counts])
        arrays = (
            np.concatenate([np.zeros(0, np.uint8), *self._kind]),
            np.repeat(np.arange(len(sizes), dtype=np.int32), sizes),
            np.concatenate([np.zeros(0, np.int16), *self._colour]),
            np.repeat(np.array(self._loops, np.uint8), sizes),
            np.concatenate([[0], np.cumsum(counts)]).astype(np.int64),
            np.concatenate([np.zeros(0, np.int64), *self._parents]),
        )
        for array in arrays:
            array.setflags(write=False)
        return StitchGraph(*arrays, colours=tuple(self.colours))
