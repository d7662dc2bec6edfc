"""Limbs with wire in them, bent to a pose: the wire keeps what her hands make of it.

A bend turns all that lies beyond a round towards a side of the figure; the turn is spread over the rounds next to it, as
wire in a stuffed limb makes no corner. What sits on the limb goes with it. A geometric estimate: the fabric is not
settled anew, so that folds inside of a sharp bend are not shown.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.placement.drooping import Strip, along, strip_of
from craft.figure.placement.seats import Bend, Seat, Towards
from craft.figure.placement.surface import Foot, Surface

Vector = NDArray[np.float64]

SPREAD = (1 / 3, 2 / 3)
"""Shares of a bend that the two rounds before it have turned by."""

ON_CENTRE_MM = 1.0
"""From the figure's centre line, within which in and out say nothing."""


def bent(
    surfaces: Mapping[str, Surface], placed: Sequence[Placed], seats: Sequence[Seat], wired: Collection[str]
) -> tuple[Placed, ...]:
    """The same pieces; those with wire in them bent as their seats say, and what sits on them moved along. A bend at a round
    that the limb has not, or along the limb itself, bends nothing."""
    by_key = {s.key: s for s in seats}
    found = list(placed)
    first = {piece.part: at for at, piece in reversed([*enumerate(placed)])}
    for at, piece in enumerate(placed):
        seat, surface = by_key.get(piece.join), surfaces.get(piece.part)
        if seat is None or surface is None or piece.part not in wired or surface.foot is Foot.RIM:
            continue
        riders = _riders(piece.part, placed, by_key) if first[piece.part] == at else []
        for bend in seat.bends:
            _bend(found, at, surface, bend, from_start=seat.on_start or surface.foot is Foot.START, riders=riders)
    return tuple(found)


def _bend(
    found: list[Placed], at: int, surface: Surface, bend: Bend, *, from_start: bool, riders: Sequence[tuple[int, int]]
) -> None:
    piece = found[at]
    x = piece.in_scene(surface.x if piece.x is None else piece.x)
    strip = strip_of(replace(surface, x=x), from_start=from_start)
    if strip is None or not 1 <= bend.round <= surface.rounds:
        return
    where = bend.round - 1 if from_start else surface.rounds - bend.round
    turns = turns_at(strip, where, bend, side=float(strip.middles[0, 0]))
    if turns is None:
        return
    found[at] = replace(piece, x=piece.from_scene(along(x, strip, turns)))
    for rider, round_ in riders:
        carried = min(max(round_ - 1 if from_start else surface.rounds - round_, 0), len(strip.middles) - 1)
        move = _carried(strip, turns, carried)
        found[rider] = replace(found[rider], matrix=move @ found[rider].matrix)


def turns_at(strip: Strip, where: int, bend: Bend, side: float) -> tuple[Vector, Vector] | None:
    """By how much every step turns, and about which axis; None where the bend goes along the limb, or has no direction."""
    steps = strip.steps
    if not len(steps):
        return None
    at = min(where, len(steps) - 1)
    axis = np.cross(steps[at], _towards(bend.towards, side))
    size = float(np.linalg.norm(axis))
    if size < 0.05 * float(np.linalg.norm(steps[at])):
        return None
    turn = np.where(np.arange(len(steps)) >= at, 1.0, 0.0)
    for back, share in enumerate(reversed(SPREAD), 1):
        if at - back >= 0:
            turn[at - back] = share
    return turn * np.radians(bend.degrees), axis / size


def _towards(towards: Towards, side: float) -> Vector:
    """The unit direction in the scene; in and out as seen from the centre line. side: of the limb, x in mm."""
    outwards = np.sign(side) if abs(side) > ON_CENTRE_MM else 0.0
    ways = {
        Towards.FRONT: (0.0, -1.0, 0.0), Towards.BACK: (0.0, 1.0, 0.0), Towards.UP: (0.0, 0.0, 1.0),
        Towards.DOWN: (0.0, 0.0, -1.0), Towards.OUT: (outwards, 0.0, 0.0), Towards.IN: (-outwards, 0.0, 0.0),
    }  # fmt: skip
    return np.array(ways[towards])


def _riders(part: str, placed: Sequence[Placed], by_key: Mapping[str, Seat]) -> list[tuple[int, int]]:
    """Indices of all pieces that sit on a part, or on what sits on it, with the round of the part that carries each."""
    found: list[tuple[int, int]] = []
    carried: dict[str, int] = {}
    waiting = [(part, 0)]
    while waiting:
        host, round_ = waiting.pop()
        for at, piece in enumerate(placed):
            seat = by_key.get(piece.join)
            if seat is None or seat.on != host or any(at == k for k, _ in found):
                continue
            on = round_ or seat.round
            found.append((at, on))
            if piece.part not in carried:
                carried[piece.part] = on
                waiting.append((piece.part, on))
    return found


def _carried(strip: Strip, turns: tuple[Vector, Vector], at: int) -> Vector:
    """How a round moved, as a 4 × 4 matrix of the scene."""
    three = np.vstack([strip.middles[at], strip.middles[at] + np.eye(3)])
    own = Strip(strip.middles, np.full(4, at))
    moved = along(three, own, turns)
    out = np.eye(4)
    out[:3, :3] = (moved[1:] - moved[0]).T
    out[:3, 3] = moved[0] - out[:3, :3] @ strip.middles[at]
    return out
