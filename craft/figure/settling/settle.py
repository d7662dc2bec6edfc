"""Settling a part: from its stitch graph to the figure at rest, in the figure's own frame."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError, require
from craft.figure.settling.frame import area
from craft.figure.settling.net import Net, net_of
from craft.figure.settling.rest import Filled, at_rest
from craft.figure.settling.sheets import Sheets, sheets_of
from craft.figure.settling.solve import Fabric, settle_net
from craft.figure.settling.start import is_plain, start_of, volume_mm3
from craft.gauge import Gauge
from craft.rounds.fabric import StitchGraph, WorkedPart
from craft.shape.profile import REFERENCE_FIRMNESS

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

MOST_STITCHES = 30_000
"""Stitches of a part that settles: more would hold a worker for minutes."""

FLATTEST_STUFFED = 0.75
"""Share of its fabric that an opening's lid may have before a piece counts as flat and takes no filling."""


MOST_OPEN_POUCH, LEAST_POUCH = 0.3, 12
"""The same share for what hangs on a piece, a brim or a skirt; and the fewest triangles of a pouch."""

UNFOLDING_FIRMNESS, UNFOLDING_STEPS, UNFOLDED = 1.0, 120, 1e-2
"""How a piece that is no plain tube is unfolded before it settles: pressure, steps, longest last step."""

MIRROR = np.array([-1.0, 1.0, 1.0])
"""What turning a piece inside out does to its figure: same shape, left and right changed."""


@dataclass(frozen=True, slots=True)
class Settled:
    """A part at rest.

    x: (n, 3) positions in mm of every node, R1 at the foot, front at -y. frames: the same on the
    way there, the start first. stuffed: (sheets,) which sheets hold filling. steps: taken to rest.
    """

    part: WorkedPart
    gauge: Gauge
    firmness: float
    net: Net
    sheets: Sheets
    x: Vector
    frames: tuple[Vector, ...]
    stuffed: NDArray[np.bool_]
    steps: int
    converged: bool

    @property
    def graph(self) -> StitchGraph:
        """The part's stitches."""
        return self.part.graph

    @property
    def triangles(self) -> Numbers:
        """The fabric's triangles, (t, 3) nodes."""
        return self.sheets.triangles


def _stuffed_sheets(net: Net, sheets: Sheets, x: Vector, *, stuffed: bool) -> NDArray[np.bool_]:
    """The largest sheet unless it is flat, and pouches hung on it: brims and skirts hold nothing."""
    found = np.zeros(max(sheets.many, 1), np.bool_)
    if not stuffed:
        return found
    for sheet in range(sheets.many):
        own = sheets.triangles[sheets.sheet == sheet]
        rims = [r for r, of in zip(sheets.rims, sheets.rim_sheet, strict=True) if of == sheet]
        lid = sum(_fan_area(x[r]) for r in rims)
        most = FLATTEST_STUFFED if sheet == 0 else MOST_OPEN_POUCH
        found[sheet] = len(own) >= LEAST_POUCH and lid < most * area(x, own)
    return found


def _empty_sheets(part: WorkedPart, net: Net, sheets: Sheets) -> NDArray[np.bool_]:
    """Sheets that are pieces taken in without filling."""
    empty = np.zeros(max(sheets.many, 1), np.bool_)
    names = [k + 1 for k, name in enumerate(part.graph.pieces) if name in part.empty]
    if not names:
        return empty
    hollow = np.append(np.isin(part.graph.piece[net.stitch], names), np.zeros(net.middles + net.closings, np.bool_))
    for sheet in range(sheets.many):
        empty[sheet] = hollow[sheets.triangles[sheets.sheet == sheet]].mean() > 0.5
    return empty


def _unfolded(net: Net, sheets: Sheets, gauge: Gauge, x: Vector) -> Vector:
    """The map of distances blown up a little: thin limbs start as lines in it, and perhaps inside out."""
    blown = _stuffed_sheets(net, sheets, x, stuffed=True)
    if not blown.any():
        return x
    fabric = Fabric(net, sheets, gauge, blown, UNFOLDING_FIRMNESS)
    return settle_net(fabric, x, enough=UNFOLDED, most_steps=UNFOLDING_STEPS).x


def _fan_area(rim: Vector) -> float:
    return float(np.linalg.norm(np.cross(rim - rim.mean(0), np.roll(rim, -1, 0) - rim.mean(0)), axis=1).sum() / 2)


def settle(
    part: WorkedPart,
    gauge: Gauge,
    *,
    firmness: float = REFERENCE_FIRMNESS,
    watch: Callable[[int], bool] | None = None,
    frames: int = 0,
) -> Settled:
    """Bring a run part to rest.

    firmness: 0 softly filled to 1 hard; a part that takes no filling settles by its own stiffness.
    watch(step): called every few steps; False stops the work, and what is reached so far comes
    back as not converged. frames: about how many positions on the way to keep. CraftError when the
    part has no round to settle. Same input, same output on one machine with one thread.
    """
    require(0 <= firmness <= 1, "Firmness lies between 0 and 1.", field="firmness")
    require(
        len(part.graph) <= MOST_STITCHES,
        f"Settling takes parts of up to {MOST_STITCHES:,} stitches; this one has {len(part.graph):,}.",
    )
    net = net_of(part.graph, gauge)
    sheets = sheets_of(net, part.graph)
    if not sheets.many:
        raise CraftError(f"{part.name or 'The part'} has no fabric to settle: it needs two rounds or more.")
    x = start_of(net, sheets, gauge, firmness, stuffed=part.stuffed)
    if not is_plain(net):
        x = _unfolded(net, sheets, gauge, x)
    stuffed = _stuffed_sheets(net, sheets, x, stuffed=part.stuffed) & ~_empty_sheets(part, net, sheets)
    kept: list[Vector] = []

    def seen(step: int, now: Vector) -> bool:
        kept.append(now)
        return watch is None or watch(step)

    filled = Filled(net, sheets, gauge, stuffed, firmness)
    rest, frame = at_rest(part, filled, x, seen)
    chosen = [kept[i] for i in np.linspace(0, len(kept) - 1, frames).astype(int)] if kept and frames > 1 else []
    way = [frame(y) for y in [x, *chosen]] if frames else []
    end = frame(rest.x)
    if part.inside_out:
        sheets, end, way = sheets.mirrored(), end * MIRROR, [y * MIRROR for y in way]
    return Settled(
        part=part,
        gauge=gauge,
        firmness=firmness,
        net=net,
        sheets=sheets,
        x=end,
        frames=tuple(way),
        stuffed=stuffed,
        steps=rest.steps,
        converged=rest.converged,
    )


__all__ = ["Settled", "settle", "volume_mm3"]
