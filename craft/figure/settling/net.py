"""The fabric as a net of springs, made from the stitch graph.

Nodes are the tops of stitches, with one more at the middle of every ring and where a tube is drawn
shut. Links run along the edges; posts run from a stitch to what it was worked into, stiff in
height and soft in slant. Weights: a membrane of stiffness 1 per width, so a link along the round
carries h / w and a post w / h.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from craft.figure.settling.picked_up import BRACE, braces, out_of_rows, picked_up, struts, ties
from craft.figure.settling.springs import Edge, Flags, Numbers, Springs, Vector, pairs_of
from craft.gauge import Gauge
from craft.rounds.fabric import KIND_KEYS, LOOP_ORDER, EdgeKind, StitchGraph
from craft.rounds.stitches import STITCHES, Loops

ONE_LOOP_TALLER = 1.1
"""Height of a round worked into one loop only (5 to 15 % taller, from memory)."""

POST_SHORTER = 0.75
"""Height of a stitch worked around a post: it starts half way down the stitch below."""

SHUT_SPOKE, SHUT_ALONG = 0.6, 0.8
"""Rest lengths where a tail draws the last round shut, as shares of h and of w."""

SEAM_GAP = 0.35
"""Distance, in stitch widths, between two edges that one stitch goes through."""

STEP_WEIGHT = 0.3
"""Stiffness of a link across the step that a short row leaves, against one along a round."""

BEND_UP = 0.15
"""Bending stiffness up the fabric, as a share of that along a round: rows hinge on each other."""

FREE_KINDS = frozenset({"ch"} | {key for key, entry in STITCHES.items() if entry.foundation})
"""Stitches that make a strip of their own and no ring."""


@dataclass(frozen=True, slots=True)
class Net:
    """Springs in mm, unstrained lengths at the gauge.

    stitch: (s,) graph index of each stitch node; nodes from s on are middles, then closings.
    links: (m, 2) nodes with `link_rest`, `link_weight`. posts: (p, 2) upper, lower node with
    `post_rest` (height), `post_slant` (rest offset along the upper one's working direction, in mm)
    and `post_weight`. triples: (t, 3) neighbours, whose second difference is `bend_rest` mm long at
    rest: a round keeps its own circle, fabric up and across a ring's middle lies straight.
    bend_weight: as a share of the bending stiffness. edges: of the graph.
    level: (n,) height of each node above its start, in mm of fabric. middles, closings: how many.
    """

    stitch: Numbers
    middles: int
    closings: int
    links: Numbers
    link_rest: Vector
    link_weight: Vector
    posts: Numbers
    post_rest: Vector
    post_slant: Vector
    post_weight: Vector
    triples: Numbers
    bend_rest: Vector
    bend_weight: Vector
    edges: tuple[Edge, ...]
    level: Vector
    along: Numbers
    second: Flags

    @property
    def size(self) -> int:
        """Number of nodes."""
        return len(self.stitch) + self.middles + self.closings


def _useful_edges(graph: StitchGraph) -> list[tuple[Numbers, EdgeKind]]:
    """Edges without stitches that nothing holds: a turning chain's tail."""
    many = len(graph)
    held = np.zeros(many, np.bool_)
    held[graph.parents] = True
    held |= np.diff(graph.first_parent) > 0
    times = np.bincount(graph.edges[graph.edges >= 0], minlength=many)
    found: list[tuple[Numbers, EdgeKind]] = []
    lying = np.zeros(0, np.int64)
    for at, number in enumerate(graph.edge_kind):
        kind = EdgeKind(number)
        spots = graph.edges[graph.first_edge[at] : graph.first_edge[at + 1]]
        spots = spots[spots >= 0]
        if kind is EdgeKind.OPEN:
            lying = spots = _as_it_lies(graph, spots, lying)
            anchored = np.flatnonzero(held[spots] | (times[spots] > 1))
            spots = spots[anchored[0] : anchored[-1] + 1] if len(anchored) else spots[:0]
        if len(spots) > 1:
            found.append((spots, kind))
    return found


def _as_it_lies(graph: StitchGraph, spots: Numbers, before: Numbers) -> Numbers:
    """An edge with two ends as it lies in the fabric.

    After a short row the hook's order begins with what it made last; in the fabric that stands in
    the place of what it was worked into, between the stitches that wait. before: the edge then.
    """
    waiting = np.isin(spots, before)
    if waiting.all() or not waiting.any():
        return spots
    place = {int(s): i for i, s in enumerate(before)}
    fresh = spots[~waiting]
    first, last = graph.first_parent[fresh], graph.first_parent[fresh + 1]
    below = np.array([place.get(int(graph.parents[a]), -1) if b > a else -1 for a, b in zip(first, last, strict=True)])
    if (below < 0).any():
        return spots
    backwards = below[-1] < below[0]
    rest = np.sort(np.array([place[int(s)] for s in spots[waiting]]))
    earlier = rest < below.min()
    return np.concatenate([before[rest[earlier]], fresh[::-1] if backwards else fresh, before[rest[~earlier]]])


def _forward(spots: Numbers) -> Numbers:
    """The edge in the order in which its stitches were made."""
    return spots[::-1] if np.count_nonzero(np.diff(spots) < 0) * 2 > len(spots) - 1 else spots


def _once(pairs: Numbers, size: int) -> Numbers:
    """Indices of the pairs without those that came before in either direction."""
    low, high = pairs.min(1), pairs.max(1)
    _, first = np.unique(low * size + high, return_index=True)
    return np.sort(first)


def _levels(graph: StitchGraph, height: Vector) -> Vector:
    """How far up the fabric each stitch's top lies: its own height on the mean of what it was worked into."""
    level = height.copy()
    first, parents = graph.first_parent.tolist(), graph.parents.tolist()
    known = height.tolist()
    for i in range(len(graph)):
        a, b = first[i], first[i + 1]
        if b > a:
            known[i] += sum(known[p] for p in parents[a:b]) / (b - a)
    level[:] = known
    return level


def _heights(graph: StitchGraph) -> Vector:
    """Height of every stitch in single crochets."""
    height = np.array([STITCHES[k].height for k in KIND_KEYS])[graph.kind]
    factor = {Loops.FRONT: ONE_LOOP_TALLER, Loops.BACK: ONE_LOOP_TALLER}
    factor |= {Loops.FRONT_POST: POST_SHORTER, Loops.BACK_POST: POST_SHORTER}
    taller = np.array([factor.get(loops, 1.0) for loops in LOOP_ORDER])[graph.loops]
    free = np.diff(graph.first_parent) == 0
    chain = free & np.isin(graph.kind, [KIND_KEYS.index(k) for k in FREE_KINDS])
    return np.where(chain, 0.05, height * taller)


def _ranks(groups: Numbers) -> tuple[Numbers, Numbers]:
    """Place of each entry within its run of equal values, and the length of that run."""
    starts = np.flatnonzero(np.concatenate([[True], groups[1:] != groups[:-1]]))
    lengths = np.diff(np.append(starts, len(groups)))
    return np.arange(len(groups)) - np.repeat(starts, lengths), np.repeat(lengths, lengths)


def _slants(child: Numbers, parent: Numbers) -> Vector:
    """Rest offset of each child from each parent, in stitch widths along the round.

    Children that share a parent stand side by side over it, and so do parents under one child. A
    stitch hung on the same parent later, on its other loop, is no neighbour.
    """
    if not len(child):
        return np.zeros(0)
    among, of = _ranks(child)
    order = np.lexsort((child, parent))
    c, p = child[order], parent[order]
    run = np.cumsum(np.concatenate([[False], (p[1:] != p[:-1]) | (c[1:] - c[:-1] > 1)]))
    rank, total = _ranks(run)
    sibling = np.empty(len(child))
    sibling[order] = rank - (total - 1) / 2
    return sibling - (among - (of - 1) / 2)


def _ring_edges(graph: StitchGraph, edges: list[tuple[Numbers, EdgeKind]]) -> list[Numbers]:
    """Edges whose stitches all go into the middle of a ring."""
    free = np.diff(graph.first_parent) == 0
    strip = np.isin(graph.kind, [KIND_KEYS.index(k) for k in FREE_KINDS])
    rings: list[Numbers] = []
    for spots, kind in edges:
        if kind is not EdgeKind.SHUT and free[spots].all() and not strip[spots].any():
            rings.append(spots)
    return rings


def _triples(edges: list[Edge], up: Numbers, up_rest: Vector, w: float) -> tuple[Numbers, Vector, Vector]:
    """Neighbours of three along every edge and up the fabric, with their rest and their weight."""
    rows, rests, weights = [up], [up_rest], [np.full(len(up), BEND_UP)]
    for edge in edges:
        n = edge.nodes
        round_rest = 2 * np.pi * w / len(n) if edge.closed else 0.0
        if edge.closed and len(n) > 3:
            n = np.concatenate([n, n[:2]])
        rows.append(np.column_stack([n[:-2], n[1:-1], n[2:]]))
        rests.append(np.full(len(n) - 2, round_rest))
        weights.append(np.ones(len(n) - 2))
    return np.concatenate(rows), np.concatenate(rests), np.concatenate(weights)


def _across_middles(rings: list[Numbers], node: Numbers, size: int, gauge: Gauge) -> tuple[Numbers, Vector]:
    """Opposite stitches of a ring with its middle between them, and how far their second difference is from 0 at rest: a
    few stitches are too tall for the circle that they make, and stand as a cone."""
    rows = [
        np.column_stack(
            [node[s[: len(s) // 2]], np.full(len(s) // 2, size + at), node[s[len(s) // 2 :][: len(s) // 2]]]
        )
        for at, s in enumerate(rings)
    ]
    tall = [2 * np.sqrt(max(gauge.round_mm**2 - (len(s) * gauge.stitch_mm / (2 * np.pi)) ** 2, 0.0)) for s in rings]
    rest = np.repeat(np.array(tall), [len(s) // 2 for s in rings])
    return (np.concatenate(rows), rest) if rows else (np.zeros((0, 3), np.int64), np.zeros(0))


def _straight_up(posts: Numbers, folds: Flags, size: int) -> Numbers:
    """Child, stitch, parent where each has one; not at a fold, where a single loop turns a corner."""
    lower = posts[:, 1]
    many = np.bincount(posts[:, 0], minlength=size)
    parent = np.full(size, -1)
    parent[posts[:, 0]] = lower
    parent[many != 1] = -1
    keep = (many[posts[:, 0]] == 1) & (parent[lower] >= 0) & ~folds
    return np.column_stack([posts[keep, 0], lower[keep], parent[lower[keep]]])


def _along_rounds(
    graph: StitchGraph,
    gauge: Gauge,
    stitch: Numbers,
    edges: list[Edge],
    height: Vector,
    rise: Vector,
    drawn: Flags,
    picked: Flags,
) -> Springs:
    """Links between neighbours of every edge, each pair once. rise: (s,) level of each stitch node.

    picked: (s,) which stitches were picked up from row ends, where the edge runs up the fabric.
    """
    w, h = gauge.stitch_mm, gauge.round_mm
    if not edges:
        return Springs.alike(np.zeros((0, 2), np.int64), 0.0, 0.0)
    pairs = np.concatenate([pairs_of(e) for e in edges])
    pairs = pairs[_once(pairs, len(stitch) + 1)]
    width = np.array([STITCHES[k].width for k in KIND_KEYS])[graph.kind][stitch]
    rest = w * width[pairs].mean(1)
    rest = np.where(drawn[pairs].all(1), rest * SHUT_ALONG, rest)
    step = np.abs(np.diff(rise[pairs], axis=1))[:, 0] * ~picked[pairs].any(1)
    tall = np.maximum(height[stitch][pairs].min(1), 0.5)
    return Springs(pairs, rest, np.where(step < 0.6, tall, STEP_WEIGHT) * h / w)


def net_of(graph: StitchGraph, gauge: Gauge) -> Net:
    """The net of a run part; lengths in mm at `gauge`. Empty when the graph has no edge."""
    w, h = gauge.stitch_mm, gauge.round_mm
    raw = _useful_edges(graph)
    on_edge = np.zeros(len(graph), np.bool_)
    for spots, _ in raw:
        on_edge[spots] = True
    stitch = np.flatnonzero(on_edge)
    size = len(stitch)
    node = np.full(len(graph), -1)
    node[stitch] = np.arange(size)
    height = _heights(graph)
    levels = _levels(graph, height)
    rings = _ring_edges(graph, raw)
    shuts = [spots for spots, kind in raw if kind is EdgeKind.SHUT]
    edges = [Edge(node[_forward(s)], k is not EdgeKind.OPEN) for s, k in raw if k is not EdgeKind.SHUT]
    drawn = np.zeros(size, np.bool_)
    for spots in shuts:
        drawn[node[spots]] = True
    child = np.repeat(np.arange(len(graph)), np.diff(graph.first_parent))
    slant = _slants_of(graph, child)
    keep = on_edge[child] & on_edge[graph.parents]
    child, second = child[keep], graph.second[keep]
    posts = np.column_stack([node[child], node[graph.parents[keep]]])
    picked = picked_up(posts, second, edges, size)
    along = _along_rounds(graph, gauge, stitch, edges, height, levels[stitch], drawn, picked)
    tall = np.maximum(height[child], 0.15)
    single = np.array([loops in (Loops.FRONT, Loops.BACK) for loops in LOOP_ORDER])[graph.loops]

    springs = [along]
    for at, spots in enumerate(rings):
        ends = np.column_stack([node[spots], np.full(len(spots), size + at)])
        springs.append(Springs(ends, h * height[spots], w / h / height[spots]))
    for at, spots in enumerate(shuts):
        ends = np.column_stack([node[spots], np.full(len(spots), size + len(rings) + at)])
        springs.append(Springs.alike(ends, SHUT_SPOKE * h, w / h))
    springs.append(Springs.alike(ties(posts, second), SEAM_GAP * w, 1.0))
    ends, off = braces(posts, second, size)
    springs.append(Springs.alike(ends, off * h, BRACE))
    springs.append(struts(posts, second, edges, size, gauge))

    folds = single[child] | picked[posts[:, 0]]
    straight, rows = _straight_up(posts, folds, size), out_of_rows(posts, picked, edges)
    across, peaked = _across_middles(rings, node, size, gauge)
    up = np.concatenate([straight, across, rows])
    up_rest = np.concatenate([np.zeros(len(straight)), peaked, np.zeros(len(rows))])
    level = np.concatenate([levels[stitch], np.zeros(len(rings)), [levels[s].max() + 0.3 for s in shuts]]) * h
    return Net(
        stitch, len(rings), len(shuts),
        np.concatenate([s.ends for s in springs]), np.concatenate([s.rest for s in springs]),
        np.concatenate([s.weight for s in springs]),
        posts, tall * h, (slant[keep] - gauge.lean) * w, w / h / tall,
        *_triples(edges, up, up_rest, w), tuple(edges), level, along.ends, second,
    )  # fmt: skip


def _slants_of(graph: StitchGraph, child: Numbers) -> Vector:
    """Slants of all stitches, each layer of a seam by itself."""
    slant = np.zeros(len(child))
    for layer in (False, True):
        rows = np.flatnonzero(graph.second == layer)
        slant[rows] = _slants(child[rows], graph.parents[rows])
    return slant
