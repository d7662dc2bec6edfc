"""The fabric's surface: triangles between stitches, the sheets they form, and lids over openings."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from craft.figure.settling.net import Net
from craft.rounds.fabric import StitchGraph

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Sheets:
    """The surface of a net.

    triangles: (t, 3) nodes, wound so that the outside of the fabric faces outward. sheet: (t,) which sheet each belongs to,
    the largest first. lids: (l, 3) triangles over the holes and openings of each sheet, their third
    corner a number from `size` on that stands for the middle of the opening's rim. lid_sheet: (l,).
    rims: nodes around each opening, one array for each middle.
    """

    triangles: Numbers
    sheet: Numbers
    lids: Numbers
    lid_sheet: Numbers
    rims: tuple[Numbers, ...]
    rim_sheet: Numbers

    @property
    def many(self) -> int:
        """Number of sheets."""
        return int(self.sheet.max()) + 1 if len(self.sheet) else 0

    def mirrored(self) -> Sheets:
        """The surface wound the other way round, for positions that are mirrored."""
        return replace(
            self,
            triangles=self.triangles[:, ::-1],
            lids=self.lids[:, [1, 0, 2]],
            rims=tuple(rim[::-1] for rim in self.rims),
        )


def _between(pairs: Numbers, size: int, first: Numbers, last: Numbers) -> Numbers:
    """Triangles between every pair of neighbours and what they were worked into, where that is closed.

    first, last: (size,) the first and the last node that each was worked into, -1 for none.
    """
    keys = np.sort(pairs.min(1) * size + pairs.max(1))
    found: list[Numbers] = []
    open_pairs = np.ones(len(pairs), np.bool_)
    a, b = pairs[:, 0], pairs[:, 1]
    for pa, pb in ((last[a], first[b]), (first[a], last[b])):
        known = open_pairs & (pa >= 0) & (pb >= 0)
        key = np.minimum(pa, pb) * size + np.maximum(pa, pb)
        at = np.minimum(np.searchsorted(keys, key), len(keys) - 1)
        beside = known & (pa != pb) & (keys[at] == key)
        same = known & (pa == pb)
        found.append(np.column_stack([a[same], b[same], pa[same]]))
        found += _split(a[beside], b[beside], pb[beside], pa[beside])
        open_pairs &= ~(beside | same)
    # A stitch hung on the edge it stands beside: the step at the end of a short row.
    for upper, lower in ((a, b), (b, a)):
        for p in (first, last):
            key = np.minimum(p[upper], lower) * size + np.maximum(p[upper], lower)
            at = np.minimum(np.searchsorted(keys, key), len(keys) - 1)
            step = open_pairs & (p[upper] >= 0) & (p[upper] != lower) & (keys[at] == key)
            found.append(np.column_stack([upper[step], lower[step], p[upper][step]]))
            open_pairs &= ~step
    found += _beside_row_ends(a[open_pairs], b[open_pairs], last)
    return np.concatenate(found)


def _beside_row_ends(a: Numbers, b: Numbers, parent: Numbers) -> list[Numbers]:
    """Triangles under neighbours picked up from the ends of rows: one row above the other, or one passed by between."""
    found: list[Numbers] = []
    for upper, lower in ((a, b), (b, a)):
        high, low = parent[upper], parent[lower]
        known = (high >= 0) & (low >= 0)
        below = np.where(known, parent[high], -1)
        under = np.where(below >= 0, parent[below], -1)
        next_row = known & (below == low)
        found += _split(upper[next_row], lower[next_row], low[next_row], high[next_row])
        passed = known & (under == low) & ~next_row & (below != low)
        found += _split(upper[passed], lower[passed], low[passed], below[passed])
        found.append(np.column_stack([upper[passed], below[passed], high[passed]]))
    return found


def _split(a: Numbers, b: Numbers, c: Numbers, d: Numbers) -> list[Numbers]:
    """Four-sided cells as two triangles."""
    return [np.column_stack([a, b, c]), np.column_stack([a, c, d])]


def _under_one(posts: Numbers) -> Numbers:
    """Triangles under a stitch that draws several together."""
    if len(posts) < 2:
        return np.zeros((0, 3), np.int64)
    same = posts[1:, 0] == posts[:-1, 0]
    under: Numbers = np.column_stack([posts[1:, 0], posts[1:, 1], posts[:-1, 1]])[same]
    return under


def _ends(posts: Numbers, size: int) -> tuple[Numbers, Numbers]:
    first, last = np.full(size, -1), np.full(size, -1)
    first[posts[::-1, 0]] = posts[::-1, 1]
    last[posts[:, 0]] = posts[:, 1]
    return first, last


def _fans(net: Net, graph: StitchGraph) -> Numbers:
    """Triangles into the middle of rings, and where a tube is drawn shut."""
    rows: list[Numbers] = []
    node = np.full(len(graph), -1)
    node[net.stitch] = np.arange(len(net.stitch))
    spokes = net.links[net.links[:, 1] >= len(net.stitch)]
    rims: dict[int, Numbers] = {}
    for middle in np.unique(spokes[:, 1]):
        rims[int(middle)] = spokes[spokes[:, 1] == middle, 0]
    closed = {frozenset(e.nodes.tolist()) for e in net.edges if e.closed}
    for middle, rim in rims.items():
        around = frozenset(rim.tolist()) in closed or middle >= len(net.stitch) + net.middles
        a, b = (rim, np.roll(rim, -1)) if around else (rim[:-1], rim[1:])
        rows.append(np.column_stack([a, b, np.full(len(a), middle)]))
    return np.concatenate(rows) if rows else np.zeros((0, 3), np.int64)


def _rank(triangles: Numbers, net: Net, hung: Numbers) -> Numbers:
    """Order in which triangles were made: by their last stitch; middles of rings first, closings last."""
    many = len(net.stitch)
    when = np.concatenate([np.arange(many), np.full(net.middles, -1), np.full(net.closings, many)])
    rank: Numbers = when[triangles].max(1) + hung * (10 * many + 10)
    return rank


def _wound_alike(triangles: Numbers, outward: Vector, rank: Numbers, size: int) -> tuple[Numbers, Numbers]:
    """Triangles turned so that neighbours agree, and the sheet of each.

    outward: 1 for a triangle that was worked with the outside to the maker, -1 for one worked from
    the inside; most of a sheet decides how all of it is wound.

    Where three meet along one edge the two that were made first go on as one sheet. Every triangle
    stands for two, one of each winding; those that agree across an edge are connected.
    """
    many = len(triangles)
    corner = triangles[:, [0, 1, 2]]
    starts, ends = corner.ravel(), np.roll(corner, -1, axis=1).ravel()
    owner = np.repeat(np.arange(many), 3)
    key = np.minimum(starts, ends) * size + np.maximum(starts, ends)
    order = np.lexsort((rank[owner], key))
    key, owner, up = key[order], owner[order], (starts < ends)[order]
    place, _ = _places(key)
    second = np.flatnonzero(place == 1)
    t, u = owner[second], owner[second - 1]
    agree = up[second] != up[second - 1]
    rows = np.concatenate([2 * t, 2 * t + 1])
    columns = np.concatenate([np.where(agree, 2 * u, 2 * u + 1), np.where(agree, 2 * u + 1, 2 * u)])
    link = coo_matrix((np.ones(len(rows)), (rows, columns)), shape=(2 * many, 2 * many))
    label = connected_components(link, directed=False)[1].reshape(-1, 2)
    turned = label[:, 1] < label[:, 0]
    wound = np.where(turned[:, None], triangles[:, ::-1], triangles)
    vote = np.bincount(label.min(1), np.where(turned, -outward, outward), minlength=2 * many)
    wound = np.where(vote[label.min(1)][:, None] < 0, wound[:, ::-1], wound)
    _, sheet = np.unique(label.min(1), return_inverse=True)
    size_of = np.bincount(sheet)
    by_size = np.argsort(-size_of, kind="stable")
    new = np.empty_like(by_size)
    new[by_size] = np.arange(len(by_size))
    return wound, new[sheet]


def _places(key: Numbers) -> tuple[Numbers, Numbers]:
    starts = np.flatnonzero(np.concatenate([[True], key[1:] != key[:-1]]))
    lengths = np.diff(np.append(starts, len(key)))
    return np.arange(len(key)) - np.repeat(starts, lengths), lengths


def _rims(triangles: Numbers, sheet: Numbers, size: int) -> tuple[list[Numbers], list[int]]:
    """Closed walks along the open sides of every sheet, against its winding: with lids on them it is closed.

    A side is open by how much more often it is run one way than the other, whatever meets there.
    """
    starts, ends = triangles.ravel(), np.roll(triangles, -1, axis=1).ravel()
    of = np.repeat(sheet, 3)
    key = (of * size + np.minimum(starts, ends)) * size + np.maximum(starts, ends)
    sides, place = np.unique(key, return_inverse=True)
    open_by = np.bincount(place, np.where(starts < ends, 1, -1), minlength=len(sides)).astype(int)
    after: dict[tuple[int, int], list[int]] = {}
    for side in np.flatnonzero(open_by).tolist():
        s, pair = divmod(int(sides[side]), size * size)
        low, high = divmod(pair, size)
        a, b = (low, high) if open_by[side] > 0 else (high, low)
        after.setdefault((s, b), []).extend([a] * abs(open_by[side]))
    rims: list[Numbers] = []
    owners: list[int] = []
    for begin in list(after):
        for walk in _loops(after, begin):
            # Two nodes there and back enclose nothing.
            if len(walk) > 2:
                rims.append(np.array(walk, np.int64))
                owners.append(begin[0])
    return rims, owners


def _loops(after: dict[tuple[int, int], list[int]], begin: tuple[int, int]) -> list[list[int]]:
    """Ways round from a node, using up their edges; where one comes by a node again, a loop of its own is cut off."""
    s, at = begin
    path = [at]
    loops: list[list[int]] = []
    while after.get((s, at)):
        at = after[s, at].pop()
        if at in path:
            cut = path.index(at)
            loops.append(path[cut:])
            del path[cut + 1 :]
        else:
            path.append(at)
    return loops


def sheets_of(net: Net, graph: StitchGraph) -> Sheets:
    """The surface of a net."""
    size = net.size
    own, other = net.posts[~net.second], net.posts[net.second]
    parts = [_fans(net, graph), _under_one(own), _under_one(other)]
    hung = [np.zeros(len(p), np.int64) for p in parts]
    for posts, late in ((own, 0), (other, 1)):
        if len(posts) and len(net.along):
            made = _between(net.along, size, *_ends(posts, size))
            parts.append(made)
            hung.append(np.full(len(made), late))
    triangles = np.concatenate(parts)
    if not len(triangles):
        empty = np.zeros((0, 3), np.int64)
        return Sheets(empty, empty[:, 0], empty, empty[:, 0], (), empty[:, 0])
    keys = np.sort(triangles, 1)
    _, first = np.unique(keys, axis=0, return_index=True)
    first.sort()
    triangles = triangles[first]
    seen = np.append(np.where(graph.front, 1.0, -1.0)[net.stitch], np.ones(net.middles + net.closings))
    triangles, sheet = _wound_alike(
        triangles, seen[triangles[:, 0]], _rank(triangles, net, np.concatenate(hung)[first]), size
    )
    rims, owners = _rims(triangles, sheet, size)
    lids = [np.column_stack([r, np.roll(r, -1), np.full(len(r), size + i)]) for i, r in enumerate(rims)]
    many = [len(r) for r in rims]
    return Sheets(
        triangles, sheet, np.concatenate(lids) if lids else np.zeros((0, 3), np.int64),
        np.repeat(np.array(owners, np.int64), many), tuple(rims), np.array(owners, np.int64),
    )  # fmt: skip
