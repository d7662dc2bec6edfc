"""Edges picked up a second time: limbs worked in, and what braces and ties them to their host."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from craft.figure.settling.springs import Edge, Flags, Numbers, Springs, Vector, pairs_of
from craft.gauge import Gauge

BRACE = 0.3
"""Stiffness of what holds a limb off the body, as a share of one membrane stiffness."""

STRUT, STRUT_ROUNDS = 0.1, 3
"""Stiffness of what keeps a limb on the outside, and how many rounds down the limb it holds."""


def picked_up(posts: Numbers, second: Flags, edges: Sequence[Edge], size: int) -> Flags:
    """(n,) which stitches were picked up from row ends: they stand beside one worked into the row above or below."""
    parent = np.full(size, -1)
    parent[posts[~second, 0]] = posts[~second, 1]
    found = np.zeros(size, np.bool_)
    if not edges:
        return found
    pairs = np.concatenate([pairs_of(e) for e in edges])
    beside = set(map(tuple, np.sort(pairs, 1).tolist()))
    for upper, lower in (pairs.T, pairs.T[::-1]):
        high, low = parent[upper], parent[lower]
        known = (high >= 0) & (low >= 0) & (high != low)
        below = np.where(known, parent[high], -1)
        under = np.where(below >= 0, parent[below], -1)
        for at in np.flatnonzero(known & ((below == low) | (under == low))):
            # At a short row's step the higher stitch stands over a neighbour of the lower one.
            if tuple(sorted((int(high[at]), int(lower[at])))) not in beside:
                found[[upper[at], lower[at]]] = True
    return found


def out_of_rows(posts: Numbers, picked: Flags, edges: Sequence[Edge]) -> Numbers:
    """Picked up stitch, row end, and the stitch beside that in its row: an edging lies flat with the rows."""
    inward: dict[int, int] = {}
    for edge in edges:
        if not edge.closed:
            n = edge.nodes
            inward.setdefault(int(n[0]), int(n[1]))
            inward.setdefault(int(n[-1]), int(n[-2]))
    rows = [(c, e, inward[e]) for c, e in posts.tolist() if picked[c] and e in inward and inward[e] != c]
    return np.array(rows, np.int64).reshape(-1, 3)


def braces(posts: Numbers, second: Flags, size: int) -> tuple[Numbers, Vector]:
    """Springs that hold a limb worked in square to the fabric it is worked into, rests in rounds.

    From two rounds down the limb to as far above the seam and as far below it: filling presses a
    limb off the body, and nothing else in the net would.
    """
    if not second.any():
        return np.zeros((0, 2), np.int64), np.zeros(0)
    below, above = np.full(size, -1), np.full(size, -1)
    own = posts[~second]
    below[own[::-1, 0]] = own[::-1, 1]
    above[own[::-1, 1]] = own[::-1, 0]
    rows: list[tuple[int, int]] = []
    rests: list[float] = []
    for seam, limb in posts[second].tolist():
        tip, deep = _along(limb, below, 2)
        for way in (below, above):
            far, off = _along(seam, way, 2)
            if deep and off and seam != limb:
                rows.append((tip, far))
                rests.append(float(np.hypot(deep + 0.5, off)))
    return np.array(rows, np.int64).reshape(-1, 2), np.array(rests)


def struts(posts: Numbers, second: Flags, edges: Sequence[Edge], size: int, gauge: Gauge) -> Springs:
    """Springs from a limb worked in to the far side of the round it is worked into: they keep it outside."""
    none = Springs.alike(np.zeros((0, 2), np.int64), 0.0, 0.0)
    if not second.any():
        return none
    across, wide = np.full(size, -1), np.zeros(size)
    for edge in edges:
        n = len(edge.nodes)
        if edge.closed:
            across[edge.nodes] = np.roll(edge.nodes, -(n // 2))
            wide[edge.nodes] = n * gauge.stitch_mm / np.pi
    below = np.full(size, -1)
    own = posts[~second]
    below[own[::-1, 0]] = own[::-1, 1]
    rows: list[tuple[int, int]] = []
    rests: list[float] = []
    for seam, limb in posts[second].tolist():
        tip, deep = _along(limb, below, STRUT_ROUNDS)
        if deep and across[seam] >= 0:
            rows.append((tip, int(across[seam])))
            rests.append(wide[seam] + (deep + 0.5) * gauge.round_mm)
    if not rows:
        return none
    return Springs.alike(np.array(rows, np.int64), np.array(rests), STRUT)


def _along(node: int, way: Numbers, most: int) -> tuple[int, int]:
    """The node up to `most` steps along `way`, and how many steps there were."""
    for step in range(most):
        if way[node] < 0:
            return node, step
        node = int(way[node])
    return node, most


def ties(posts: Numbers, second: Flags) -> Numbers:
    """Pairs of stitches that one stitch goes through together."""
    if not second.any():
        return np.zeros((0, 2), np.int64)
    firsts: dict[int, list[int]] = {}
    ties: list[tuple[int, int]] = []
    for (upper, lower), other in zip(posts.tolist(), second.tolist(), strict=True):
        own = firsts.setdefault(upper, [])
        if other and own:
            ties.append((own[-1], lower))
        own.append(lower)
    return np.array(ties, np.int64).reshape(-1, 2)
