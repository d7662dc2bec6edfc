"""What hangs on a settled part and is its own fabric: brims and skirts on its loops, limbs that its rounds took in."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling.settle import Settled


@dataclass(frozen=True, slots=True)
class Flap:
    """rounds: of a part from the one that is worked on its loops, counted from 0. name: the heading that they stand under,
    '' for none."""

    rounds: tuple[int, ...]
    name: str = ""


@dataclass(frozen=True, slots=True)
class Limb:
    """A piece that a part's rounds took in. name: numbered where there are several, 'Arm 2'. empty: without filling."""

    name: str
    empty: bool


def limbs_of(settled: Settled) -> tuple[tuple[Limb, ...], NDArray[np.int64]]:
    """The limbs of a settled part, and for every stitch node 1 and the number of the limb that it is of, 0 for the part's
    own. A limb holds filling where its sheet does."""
    graph, sheets = settled.graph, settled.sheets
    limb: NDArray[np.int64] = graph.piece[settled.net.stitch].astype(np.int64)
    filled = np.zeros(len(settled.x), np.bool_)
    filled[sheets.triangles[settled.stuffed[sheets.sheet]]] = True
    full = filled[: len(limb)]
    limbs = tuple(
        Limb(name, empty=name in settled.part.empty or not full[limb == k].any())
        for k, name in enumerate(graph.pieces, 1)
    )
    return limbs, limb


def flaps_of(settled: Settled) -> tuple[Flap, ...]:
    """The flaps of a settled part, in working order; none of one that holds no filling at all. A round belongs to a sheet
    that more than half of its stitches lie in and in no filled one."""
    if not settled.stuffed.any():
        return ()
    return tuple(
        flap
        for sheet in range(1, settled.sheets.many)
        if not settled.stuffed[sheet]
        for flap in _of_sheet(settled, sheet)
    )


def _of_sheet(settled: Settled, sheet: int) -> Iterator[Flap]:
    sheets, net, graph = settled.sheets, settled.net, settled.graph
    size = len(settled.x)
    own, filled = np.zeros(size, np.bool_), np.zeros(size, np.bool_)
    own[sheets.triangles[sheets.sheet == sheet]] = True
    filled[sheets.triangles[settled.stuffed[sheets.sheet]]] = True
    free = (own & ~filled)[: len(net.stitch)]
    at = graph.round[net.stitch]
    rounds = tuple(
        int(k) for k in np.unique(at[free]) if k >= 0 and 2 * int(free[at == k].sum()) > int((at == k).sum())
    )
    if rounds:
        yield Flap(rounds, settled.part.rounds[rounds[0]].section)
