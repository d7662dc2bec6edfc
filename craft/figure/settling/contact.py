"""Fabric touches fabric: nodes that are far from each other along the fabric keep their distance in space.

Every node is a ball of fabric half as thick as the fabric is. Balls of nodes that are neighbours over a few
stitches are left alone; all others push each other away as soon as they touch. A list of pairs that may touch
is kept and made anew when anything has moved half its margin (Verlet, 1967, cited from memory), so no pair that
touches is ever missed and the energy has no jumps.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csr_matrix
from scipy.spatial import cKDTree

from craft.figure.settling.net import Net

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

THICK = 0.75
"""How thick the fabric is, in stitch widths: as near as the middles of two layers come (common practice, no source)."""

STIFF = 2.0
"""Stiffness of fabric pressed against fabric, in membrane stiffnesses."""

NEIGHBOURS = 3
"""Stitches over the fabric within which nodes are neighbours and may lie as they like."""

MARGIN = 1.0
"""By how much further than touching the list of pairs reaches, in stitch widths."""

THROUGH = 0.6
"""Share of the fabric's thickness below which two layers count as lying in each other."""


class Contact:
    """Which nodes of a net may touch, and what their touching costs."""

    def __init__(self, net: Net, stitch_mm: float) -> None:
        self.thick = THICK * stitch_mm
        self.margin = MARGIN * stitch_mm
        self._neighbours = _keys_within(net, NEIGHBOURS)
        self._size = net.size
        self._seen: Vector | None = None
        self._pairs: Numbers = np.zeros((0, 2), np.int64)

    def near(self, x: Vector, reach: float) -> Numbers:
        """(p, 2) nodes within `reach` mm of each other that are no neighbours over the fabric, low before high."""
        pairs = cKDTree(x).query_pairs(reach, output_type="ndarray").astype(np.int64)
        key = pairs[:, 0] * self._size + pairs[:, 1]
        at = np.minimum(np.searchsorted(self._neighbours, key), len(self._neighbours) - 1)
        own: Numbers = pairs[self._neighbours[at] != key]
        return own

    def through(self, x: Vector) -> int:
        """How many pairs lie in each other: nearer than fabric can, whatever presses it."""
        return len(self.near(x, THROUGH * self.thick))

    def add(self, x: Vector, slope: Vector) -> float:
        """Energy of what touches at positions `x` (n, 3); its gradient is added to `slope`."""
        if self._seen is None or float(np.abs(x - self._seen).max()) * np.sqrt(3) > self.margin / 2:
            self._seen, self._pairs = x.copy(), self.near(x, self.thick + self.margin)
        a, b = self._pairs[:, 0], self._pairs[:, 1]
        d = x[b] - x[a]
        length = np.sqrt(np.einsum("ij,ij->i", d, d)) + 1e-9
        touching = np.flatnonzero(length < self.thick)
        if not len(touching):
            return 0.0
        a, b, d, length = a[touching], b[touching], d[touching], length[touching]
        over = self.thick - length
        push = d * (STIFF * over / length)[:, None]
        for k in range(3):
            slope[:, k] += np.bincount(a, push[:, k], minlength=self._size)
            slope[:, k] -= np.bincount(b, push[:, k], minlength=self._size)
        return 0.5 * STIFF * float(np.dot(over, over))


def _keys_within(net: Net, hops: int) -> Numbers:
    """Pairs of nodes at most `hops` apart over links and posts, as sorted numbers low · size + high."""
    size = net.size
    pairs = np.concatenate([net.links, net.posts])
    ones = np.ones(2 * len(pairs))
    rows, columns = np.concatenate([pairs[:, 0], pairs[:, 1]]), np.concatenate([pairs[:, 1], pairs[:, 0]])
    step: csr_matrix = coo_matrix((ones, (rows, columns)), shape=(size, size)).tocsr()
    step.data[:] = 1.0
    reached = step.copy()
    for _ in range(hops - 1):
        reached = reached + reached @ step
        reached.data[:] = 1.0
    found = reached.tocoo()
    upper = found.row < found.col
    keys: Numbers = np.unique(found.row[upper].astype(np.int64) * size + found.col[upper])
    return keys
