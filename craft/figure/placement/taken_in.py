"""Limbs that a part's own rounds took in: bent by the wire in them, or hanging because they are empty.

They are fabric of their host and have no place of their own, so a limb is known by its stitches, and by how many stitches
lie between each of them and the seam: a strip from the seam on, bent as one that is sewn on.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from craft.figure.body import Placed
from craft.figure.placement.bending import turns_at
from craft.figure.placement.drooping import DOWN, LEAST_ROUNDS, Strip, along, bending_length, laid_on, turns_of
from craft.figure.placement.seats import Bend
from craft.figure.placement.surface import Surface

Vector = NDArray[np.float64]

Bends = Mapping[tuple[str, str], Sequence[Bend]]
"""By the key of the host and the name of the limb's part."""


def limbs_posed(
    surfaces: Mapping[str, Surface],
    placed: Sequence[Placed],
    stitch_mm: float,
    bends: Bends,
    wired: Collection[str],
    floor: float | None = None,
) -> tuple[Placed, ...]:
    """The same pieces, the limbs that they took in bent where wire keeps them so, and hanging where they are empty.

    wired: names of parts with wire in them. floor: height in the scene that an empty limb lies on; None for none.
    """
    return tuple(_posed(surfaces.get(p.part), p, stitch_mm, bends, wired, floor) for p in placed)


def _posed(
    surface: Surface | None, piece: Placed, stitch_mm: float, bends: Bends, wired: Collection[str], floor: float | None
) -> Placed:
    if surface is None or surface.limb is None:
        return piece
    x = piece.in_scene(surface.x if piece.x is None else piece.x)
    before = x.copy()
    for number, limb in enumerate(surface.limbs, 1):
        name = re.sub(r" \d+$", "", limb.name)
        found = _strip(surface, x, number)
        if found is None:
            continue
        nodes, strip = found
        if name in wired:
            for bend in bends.get((piece.part, name), ()):
                x[nodes] = _bent(x[nodes], strip, bend)
                strip = Strip(_middles(x[nodes], strip), strip.round)
        elif limb.empty and (turns := turns_of(strip.steps[None], DOWN, bending_length(stitch_mm))) is not None:
            turn, axis = turns[0][0], turns[1][0]
            turn = turn if floor is None else laid_on(strip, turn, axis, floor)
            x[nodes] = along(x[nodes], strip, (turn, axis))
    return piece if np.array_equal(before, x) else replace(piece, x=piece.from_scene(x))


def _bent(x: Vector, strip: Strip, bend: Bend) -> Vector:
    """The nodes with a bend at a round of the limb, counted from its own first round, which is the farthest from the seam."""
    turns = turns_at(strip, max(len(strip.middles) - bend.round, 0), bend, side=float(strip.middles[0, 0]))
    return x if turns is None else along(x, strip, turns)


def _strip(surface: Surface, x: Vector, number: int) -> tuple[NDArray[np.int64], Strip] | None:
    """The nodes of a limb, and the limb as a strip from the seam on; None for one that has too few rounds.

    Nodes that are no stitches, in the middle of a ring, go with the limb where all around them does.
    """
    assert surface.limb is not None
    own = np.zeros(len(x), np.bool_)
    own[: len(surface.limb)] = surface.limb == number
    t = surface.triangles
    stitches = t < len(surface.limb)
    inner = np.unique(t[(~stitches).any(1) & (own[t] | ~stitches).all(1)])
    own[inner[inner >= len(surface.limb)]] = True
    seam = np.unique(t[own[t].any(1)][~own[t[own[t].any(1)]]])
    nodes = np.flatnonzero(own)
    if not len(nodes) or not len(seam):
        return None
    layer = _layers(t, own, seam)[nodes]
    reached = int(layer.max()) + 1
    if reached < LEAST_ROUNDS:
        return None
    middles = np.array([x[seam].mean(0), *(x[nodes[layer == k]].mean(0) for k in range(1, reached))])
    return nodes, Strip(middles, layer)


def _layers(triangles: NDArray[np.int64], own: NDArray[np.bool_], seam: NDArray[np.int64]) -> NDArray[np.int64]:
    """(n,) how many stitches every node of a limb is away from its seam, the fewest ways along its fabric; 0 elsewhere."""
    inside = own.copy()
    inside[seam] = True
    t = triangles[inside[triangles].all(1)]
    rows, columns = t[:, [0, 1, 2]].ravel(), t[:, [1, 2, 0]].ravel()
    many = len(own)
    web = coo_matrix((np.ones(len(rows)), (rows, columns)), shape=(many, many)).tocsr()
    away = dijkstra(web, directed=False, unweighted=True, indices=seam, min_only=True)
    far = np.where(np.isfinite(away), away, 0)
    out: NDArray[np.int64] = np.where(own, np.maximum(far, 1), 0).astype(np.int64)
    return out


def _middles(x: Vector, strip: Strip) -> Vector:
    """The middles of a strip whose nodes have moved; its seam stays."""
    return np.array([strip.middles[0], *(x[strip.round == k].mean(0) for k in range(1, len(strip.middles)))])
