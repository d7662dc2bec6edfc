"""What is needed to draw every stitch of a settled part in its place, and to name it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling.measure import stretch_of
from craft.figure.settling.settle import Settled

Whole = NDArray[np.int32]


@dataclass(frozen=True, slots=True)
class Relief:
    """One row a stitch node, in stitch order.

    below: (s, 2) nodes that it stands between, the same twice where it has one, -1 for none. beside:
    (s, 2) its neighbours before and after, itself where it has none. round: index of its round, -1
    for a piece taken in. place: from 1 within its round. kind: into `KIND_KEYS`. colour: into the
    graph's colours. stretch: strain along its round.
    """

    below: Whole
    beside: Whole
    round: Whole
    place: Whole
    kind: NDArray[np.uint8]
    colour: NDArray[np.int16]
    stretch: NDArray[np.float64]


def relief_of(settled: Settled) -> Relief:
    """The relief of a settled part."""
    net, graph = settled.net, settled.graph
    many = len(net.stitch)
    below = np.full((many, 2), -1, np.int32)
    own = net.posts[~net.second]
    below[own[::-1, 0], 0] = own[::-1, 1]
    below[own[:, 0], 1] = own[:, 1]
    spokes = net.links[(net.links[:, 1] >= many) & (net.links[:, 1] < many + net.middles)]
    below[spokes[:, 0]] = spokes[:, 1:2]
    beside = np.repeat(np.arange(many, dtype=np.int32)[:, None], 2, axis=1)
    along = net.along[::-1]
    beside[along[:, 1], 0] = along[:, 0]
    beside[along[:, 0], 1] = along[:, 1]
    if settled.part.inside_out:  # the next stitch lies on the other side, seen from outside
        beside = beside[:, ::-1].copy()
    at = graph.round[net.stitch].astype(np.int32)
    place = np.ones(many, np.int32)
    for worked in np.unique(at):
        rows = np.flatnonzero(at == worked)
        place[rows] = np.arange(1, len(rows) + 1)
    return Relief(
        below, beside, at, place, graph.kind[net.stitch], graph.colour[net.stitch], stretch_of(settled)
    )  # fmt: skip
