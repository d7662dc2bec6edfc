"""Row ends: the sides of a piece worked in rows, picked up for an edging."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from craft.rounds.fabric.edges import NOTHING
from craft.rounds.fabric.graph import KIND_NUMBER, Numbers
from craft.rounds.fabric.hook import Hook

ALL_AROUND = 1.5
"""Stitches a row from which picking up along the edge means the whole edge and not one side of it."""

_CHAIN = KIND_NUMBER["ch"]


@dataclass(frozen=True, slots=True)
class RowEnds:
    """The outline of a piece in rows, as indices in the graph.

    near: ends of its rows on the side where the last row ended, top to bottom. far: on the other side, bottom
    to top. bottom: the underside of where the rows began, from near to far. top: the last row, from far to near.
    """

    near: Numbers
    bottom: Numbers
    far: Numbers
    top: Numbers

    @property
    def around(self) -> Numbers:
        """The whole outline from the end of the last row on."""
        return np.concatenate([self.near, self.bottom, self.far, self.top])


def row_ends(hook: Hook) -> RowEnds | None:
    """The outline of the rows worked last, None when the last round was none."""
    rows = []
    for tally in reversed(hook.tallies):
        if not tally.flat or tally.section != hook.section:
            break
        rows.append(tally)
        if tally.start:
            break
    if not rows:
        return None
    graph = hook.graph.build()
    top = NOTHING
    near: list[int] = []
    far: list[int] = []
    bottom, same_way = NOTHING, True
    for tally in rows:
        made = np.arange(tally.first, tally.end)
        made = made[graph.live[made] & (graph.kind[made] != _CHAIN)]
        # A short row ends within the piece.
        if not len(made) or tally.rest:
            continue
        if not near:
            top = made
        same_way = tally.front == rows[0].front
        bottom = made[::-1] if same_way else made
        near.append(int(bottom[0]))
        far.append(int(bottom[-1]))
    if not near:
        return None
    chain = hook.chain
    if chain is not None and not chain.joined and not chain.under_used and rows[-1].start:
        under = chain.under(None)
        bottom = under if same_way else under[::-1]
    return RowEnds(np.array(near), bottom, np.array(far)[::-1], top)


def spread_over(spots: Numbers, many: int) -> Numbers:
    """`many` of the spots, evenly: some twice where there are fewer, some passed by where there are more."""
    return spots[((np.arange(many) + 0.5) * len(spots) / max(many, 1)).astype(np.int64)]
