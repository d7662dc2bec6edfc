"""The stitch graph: every stitch made, what it was worked into, and in which order."""

from __future__ import annotations

from dataclasses import dataclass, fields
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray

from craft.rounds.stitches import STITCHES, Loops

KIND_KEYS: tuple[str, ...] = tuple(STITCHES)
"""Stitch keys by their number in `StitchGraph.kind`."""

KIND_NUMBER = {key: number for number, key in enumerate(KIND_KEYS)}
LOOP_ORDER: tuple[Loops, ...] = tuple(Loops)
LOOP_NUMBER = {loops: number for number, loops in enumerate(LOOP_ORDER)}

Numbers = NDArray[np.int64]


class EdgeKind(IntEnum):
    """Whether an edge has two ends, runs round a tube, or runs round a tube that is drawn shut."""

    OPEN = 0
    ROUND = 1
    SHUT = 2


MOST_ON_EDGES = 400_000
"""Stitches noted along edges at most: many short rounds on a long edge would fill the memory."""


@dataclass(frozen=True, slots=True)
class StitchGraph:
    """Stitches in working order; all arrays are read-only.

    kind: (n,) number into `KIND_KEYS`. round: (n,) index of the worked round, -1 for stitches of a
    piece that was taken in. colour: (n,) index into `colours`. loops: (n,) index into `LOOP_ORDER`,
    where the hook went in. piece: (n,) 0 for this part's own stitches, else 1 + index into `pieces`.
    front: (n,) whether the outside faced the maker. live: (n,) whether the stitch joined the edge.
    parents of stitch i: `parents[first_parent[i]:first_parent[i + 1]]`, none for stitches of a start;
    second: as `parents`, whether that one lies on a second edge worked in with the first.
    joins: (m, 2) pairs of neighbours that no later stitch shows: ends of a joined round, of a ring.
    edges: the edge as it lay after every round, and every chain, one after the other: edge e is
    `edges[first_edge[e]:first_edge[e + 1]]` in working order; edge_kind: (e,) number into `EdgeKind`.
    """

    kind: NDArray[np.uint8]
    round: NDArray[np.int32]
    colour: NDArray[np.int16]
    loops: NDArray[np.uint8]
    piece: NDArray[np.int16]
    front: NDArray[np.bool_]
    live: NDArray[np.bool_]
    first_parent: Numbers
    parents: Numbers
    second: NDArray[np.bool_]
    joins: Numbers
    edges: Numbers
    first_edge: Numbers
    edge_kind: NDArray[np.uint8]
    colours: tuple[str, ...]
    pieces: tuple[str, ...]

    def __len__(self) -> int:
        return len(self.kind)

    @property
    def nbytes(self) -> int:
        """How many bytes its arrays take."""
        return sum(getattr(self, name).nbytes for name in ARRAYS)

    def parents_of(self, stitch: int) -> list[int]:
        """Indices of the stitches that `stitch` was worked into."""
        return [int(p) for p in self.parents[self.first_parent[stitch] : self.first_parent[stitch + 1]]]


ARRAYS = tuple(f.name for f in fields(StitchGraph) if f.name not in ("colours", "pieces"))
"""Names of the graph's arrays."""


class GraphBuilder:
    """Collects runs of stitches into a graph."""

    def __init__(self) -> None:
        self._runs: list[tuple[NDArray[np.uint8], int, NDArray[np.int16], NDArray[np.uint8], int, bool, bool]] = []
        self._counts: list[Numbers] = []
        self._parents: list[Numbers] = []
        self._second: list[NDArray[np.bool_]] = []
        self._joins: list[tuple[int, int]] = []
        self._edges: list[Numbers] = []
        self._edge_kinds: list[EdgeKind] = []
        self._on_edges = 0
        self.colours: list[str] = []
        self.pieces: list[str] = []
        self.size = 0

    def add(
        self,
        kinds: NDArray[np.uint8],
        colours: NDArray[np.int16],
        loops: NDArray[np.uint8],
        counts: Numbers,
        parents: Numbers,
        second: NDArray[np.bool_] | None,
        *,
        round_at: int,
        front: bool,
        live: bool = True,
    ) -> Numbers:
        """Add stitches and return their indices.

        counts: parents of each; parents: their indices, flat; second: which of them lie on a second
        edge, None for none. round_at: index of the worked round.
        """
        self._runs.append((kinds, round_at, colours, loops, 0, front, live))
        self._counts.append(counts)
        self._parents.append(parents)
        self._second.append(np.zeros(len(parents), np.bool_) if second is None else second)
        first = self.size
        self.size += len(kinds)
        return np.arange(first, self.size)

    def take_in(self, graph: StitchGraph, name: str) -> int:
        """Add the stitches of a finished piece; the index that its first one gets."""
        first = self.size
        self.pieces.append(name)
        number = {c: self._colour_number(c) for c in graph.colours}
        colours = np.array([number[c] for c in graph.colours] or [0], np.int16)[graph.colour]
        self._runs.append((graph.kind, -1, colours, graph.loops, len(self.pieces), True, True))
        self._counts.append(np.diff(graph.first_parent))
        self._parents.append(graph.parents + first)
        self._second.append(graph.second)
        self._joins += [(int(a) + first, int(b) + first) for a, b in graph.joins]
        for at, kind in enumerate(graph.edge_kind):
            self.edge(graph.edges[graph.first_edge[at] : graph.first_edge[at + 1]] + first, EdgeKind(kind))
        self.size += len(graph)
        return first

    def _colour_number(self, name: str) -> int:
        if name not in self.colours:
            self.colours.append(name)
        return self.colours.index(name)

    def colour_numbers(self, names: tuple[str, ...], many: int) -> NDArray[np.int16]:
        """Numbers for `names`, given out when first used; a single name stands for all `many`."""
        if len(names) == 1:
            return np.full(many, self._colour_number(names[0]), np.int16)
        number = {name: self._colour_number(name) for name in dict.fromkeys(names)}
        return np.array([number[name] for name in names], np.int16)

    def neighbours(self, a: int, b: int) -> None:
        """Say that two stitches lie side by side."""
        self._joins.append((a, b))

    def edge(self, spots: Numbers, kind: EdgeKind) -> None:
        """Note how an edge lies now; `spots` in working order, below 0 where the stitch is not known."""
        if len(spots) > 1 and self._on_edges + len(spots) <= MOST_ON_EDGES:
            self._on_edges += len(spots)
            self._edges.append(spots)
            self._edge_kinds.append(kind)

    def build(self) -> StitchGraph:
        """The finished graph."""
        sizes = np.array([len(run[0]) for run in self._runs], np.int64)

        def column(i: int, dtype: type) -> NDArray[np.generic]:
            return np.repeat(np.array([run[i] for run in self._runs], dtype), sizes)

        def flat(parts: list[NDArray[np.generic]], dtype: type) -> NDArray[np.generic]:
            return np.concatenate([np.zeros(0, dtype), *parts]).astype(dtype, copy=False)

        counts = flat(list(self._counts), np.int64)
        made = StitchGraph(
            kind=flat([run[0] for run in self._runs], np.uint8),  # type: ignore[arg-type]
            round=column(1, np.int32),  # type: ignore[arg-type]
            colour=flat([run[2] for run in self._runs], np.int16),  # type: ignore[arg-type]
            loops=flat([run[3] for run in self._runs], np.uint8),  # type: ignore[arg-type]
            piece=column(4, np.int16),  # type: ignore[arg-type]
            front=column(5, np.bool_),  # type: ignore[arg-type]
            live=column(6, np.bool_),  # type: ignore[arg-type]
            first_parent=np.concatenate([[0], np.cumsum(counts)]).astype(np.int64),
            parents=flat(list(self._parents), np.int64),  # type: ignore[arg-type]
            second=flat(list(self._second), np.bool_),  # type: ignore[arg-type]
            joins=np.array(self._joins, np.int64).reshape(-1, 2),
            edges=flat(list(self._edges), np.int64),  # type: ignore[arg-type]
            first_edge=np.cumsum([0, *(len(e) for e in self._edges)]).astype(np.int64),
            edge_kind=np.array(self._edge_kinds, np.uint8),
            colours=tuple(self.colours),
            pieces=tuple(self.pieces),
        )
        for name in ARRAYS:
            getattr(made, name).setflags(write=False)
        return made
