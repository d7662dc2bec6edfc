"""Bends worked with short rows: a straight body's rounds, with half rounds put in on the side that has to be longer.

A pair of short rows over half of a round is as high as a round on the mean, and tilts all that follows by 2 h over
the width of the tube; so pairs take the place of plain rounds, as many as the bend asks for.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from craft.gauge import Gauge
from craft.rounds.pattern import Chain, Instruction, Item, Repeat, Round, Shift, Turn, Work, folded
from craft.shape.drafting.directions import STUFF_AS_IT_GROWS, closing
from craft.shape.target import Form

GAIN = 1.2
"""How much more than its bare geometry a pair of short rows tilts a stuffed tube (measured, docs/drafting.md)."""

LEAST_AROUND = 8
"""Stitches of the narrowest round that takes short rows."""

_PLAIN = (Repeat((Work("sc"),), None),)


@dataclass(frozen=True, slots=True)
class Straightened:
    """A bent body laid straight, and by how many degrees it is bent; forward when positive."""

    form: Form
    degrees: float


def straightened(form: Form) -> Straightened | None:
    """A body of revolution under its one bend; None for any other form."""
    if len(form.modifiers) != 1 or form.modifiers[0].kind != "bend":
        return None
    straight = Form(form.base)
    if straight.outline is None:
        return None
    return Straightened(straight, float(form.modifiers[0].values["degrees"]))


def wedged_rounds(
    counts: Sequence[int], bodies: Sequence[tuple[Instruction, ...]], degrees: float, gauge: Gauge
) -> set[int]:
    """Which rounds, from 0, pairs of short rows take the place of: plain ones, never two side by side, spread evenly."""
    fit = [
        k
        for k in range(2, len(counts) - 1)
        if bodies[k - 1] == _PLAIN and counts[k] >= LEAST_AROUND and counts[k] == counts[k - 1]
    ]
    tilt = {k: GAIN * math.degrees(2 * gauge.round_mm * math.pi / (counts[k] * gauge.stitch_mm)) for k in fit}
    chosen: set[int] = set()
    left = abs(degrees)
    while True:
        free = [k for k in fit if not chosen & {k - 1, k, k + 1}]
        # What is left over is less than half a pair away, or there is no room.
        if not free or left < min(tilt[k] for k in free) / 2:
            return chosen
        away = [min((abs(k - c) for c in (*chosen, fit[0] - 2, fit[-1] + 2)), default=0) for k in free]
        at = free[int(np.argmax(away))]
        chosen.add(at)
        left -= tilt[at]


def write_short_rows(
    counts: Sequence[int],
    bodies: Sequence[tuple[Instruction, ...]],
    first: Round,
    degrees: float,
    gauge: Gauge,
    *,
    closed: bool,
) -> tuple[Item, ...]:
    """Items of a part: `first`, then all rounds with their short rows, folded."""
    wedges = wedged_rounds(counts, bodies, degrees, gauge)
    items: list[Item] = [first]
    number, start = 2, 0.0
    stuffed = False
    for k in range(1, len(counts)):
        before, after = counts[k - 1], counts[k]
        # Where the round begins, in stitches from the front; it falls back by the lean.
        start = (start * after / before - gauge.lean) % after
        half = Work("sc", after // 2)
        if k in wedges:
            items.append(Round(number, number, (half, Turn()), after))
            items.append(Round(number + 1, number + 1, (Chain(1), half, Turn())))
            number += 2
            continue
        shift = 0
        if k + 1 in wedges:
            # Forward bends are longer behind: the short rows begin a quarter of the way around.
            begin = (after / 4 if degrees > 0 else 3 * after / 4) % after
            shift = round(begin - start) % after
            shift = 0 if shift > after - 2 else shift
            start = (start + shift) % after
        led = (Shift(shift),) if shift else ()
        items.append(Round(number, number, (*bodies[k - 1], *led), after))
        number += 1
        if not stuffed and (k + 1 in wedges or after == max(counts)):
            items.append(STUFF_AS_IT_GROWS)
            stuffed = True
    if closed:
        items.append(closing(counts[-1]))
    return folded(items)
