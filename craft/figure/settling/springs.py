"""Springs between nodes, and edges as they lay after a round."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Numbers = NDArray[np.int64]


Vector = NDArray[np.float64]


Flags = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Edge:
    """An edge as it lay after a round: nodes in working order."""

    nodes: Numbers
    closed: bool


def pairs_of(edge: Edge) -> Numbers:
    """(p, 2) neighbours along an edge, and over its end when it is closed."""
    a, b = edge.nodes[:-1], edge.nodes[1:]
    if edge.closed and len(edge.nodes) > 2:
        a, b = np.append(a, edge.nodes[-1]), np.append(b, edge.nodes[0])
    return np.column_stack([a, b])


@dataclass(frozen=True, slots=True)
class Springs:
    """Pairs of nodes with their rest lengths in mm and weights."""

    ends: Numbers
    rest: Vector
    weight: Vector

    @classmethod
    def alike(cls, ends: Numbers, rest: float | Vector, weight: float | Vector) -> Springs:
        """Springs that share a rest or a weight."""
        ones = np.ones(len(ends))
        return cls(ends, rest * ones, weight * ones)
