"""A part at rest: settled as it is, then rolled up, pressed flat, or kept from lying in itself."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling.coil import Rolled, roll_up, upright
from craft.figure.settling.contact import Contact
from craft.figure.settling.frame import across, in_frame
from craft.figure.settling.held import Held, Plates, Threads
from craft.figure.settling.net import Net
from craft.figure.settling.sheets import Sheets
from craft.figure.settling.solve import ENOUGH, Fabric, Rest, settle_net
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import StepKind

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

ROUND_ENOUGH = 0.9
"""Share of its spread across that a piece has the other way when it counts as round."""

ENOUGH_TOUCHING = 1e-3
"""Longest step, in stitch widths, at which fabric that touches fabric is at rest."""

Seen = Callable[[int, Vector], bool]
"""Told the step and the positions every few steps; False stops the work."""


@dataclass(frozen=True, slots=True)
class Filled:
    """Fabric with its filling, before anything is sewn."""

    net: Net
    sheets: Sheets
    gauge: Gauge
    stuffed: NDArray[np.bool_]
    firmness: float

    def settled(self, x: Vector, held: Held, seen: Seen) -> Rest:
        """Where it comes to rest from `x`, held like that; what touches comes to rest slowly, and near enough counts."""
        fabric = Fabric(self.net, self.sheets, self.gauge, self.stuffed, self.firmness, held)
        return settle_net(fabric, x, seen, enough=ENOUGH if held.contact is None else ENOUGH_TOUCHING)


def at_rest(part: WorkedPart, filled: Filled, x: Vector, seen: Seen) -> tuple[Rest, Callable[[Vector], Vector]]:
    """Where it comes to rest from `x`, and what brings positions into its own frame.

    Fabric is let touch fabric where it would else lie in itself; what is rolled up settles as a tube first.
    """
    net, sheets = filled.net, filled.sheets
    held, up = Held(threads_in(net, part)), None
    rest = filled.settled(x, held, seen)
    disc = _disc(part, net)
    if len(disc) > 3:
        up = _normal(rest.x[disc])
        up = up if (rest.x.mean(0) - rest.x[disc].mean(0)) @ up > 0 else -up
        held = replace(held, plates=(Plates(disc, up, 0.0),))
        x = rest.x
        rest = rest.followed_by(filled.settled(x, held, seen))
    contact = Contact(net, filled.gauge.stitch_mm)
    rolled, outer = _rolled(part, net, rest.x)
    if rolled is not None:
        sewn = held.threads.with_seam(rolled.seam, contact.thick)
        rest = rest.followed_by(filled.settled(rolled.x, replace(held, threads=sewn, contact=contact), seen))
        return rest, lambda y: upright(net, y, outer)
    if part.pressed:
        start, thin = _pressed_flat(net, rest.x, contact.thick)
        plates = Plates(np.arange(net.size), thin, contact.thick)
        rest = rest.followed_by(
            filled.settled(start, replace(held, contact=contact, plates=(plates,), limp=True), seen)
        )
        return rest, lambda y: in_frame(net, sheets, y, forward=thin)
    if rest.converged and contact.through(rest.x):
        rest = rest.followed_by(filled.settled(x, replace(held, contact=contact), seen))
    return rest, lambda y: in_frame(net, sheets, y, up=up)


def _disc(part: WorkedPart, net: Net) -> Numbers:
    """Nodes that a disc laid into the start keeps flat: of the rounds that grew before the wall began; none without one."""
    step = next((s for s in part.steps if s.kind is StepKind.DISC), None)
    rounds = part.rounds[: step.after] if step is not None else ()
    if not rounds:
        return np.zeros(0, np.int64)
    counts = [t.live for t in rounds]
    grown = next((k for k in range(1, len(counts)) if counts[k] <= counts[k - 1]), len(counts))
    nodes = np.flatnonzero(net.stitch < rounds[grown - 1].end)
    return np.append(nodes, len(net.stitch)) if net.middles else nodes


def _normal(x: Vector) -> Vector:
    """The unit direction in which points are least spread."""
    centred = x - x.mean(0)
    normal: Vector = np.linalg.eigh(centred.T @ centred)[1][:, 0]
    return normal


def _pressed_flat(net: Net, x: Vector, thick: float) -> tuple[Vector, Vector]:
    """Positions unrolled to two layers `thick` mm apart, and the unit direction across them: that in which the piece is
    thinnest already, or front to back where it is round."""
    centred = x - x.mean(0)
    level = net.level - net.level.mean()
    rise = level @ centred
    size = float(np.linalg.norm(rise))
    rise = rise / size if size > 1e-9 else np.array([0.0, 0.0, 1.0])
    flat = centred - np.outer(centred @ rise, rise)
    spread, axes = np.linalg.eigh(flat.T @ flat)
    thin = axes[:, 1]  # the smallest is the rise itself
    if spread[1] > ROUND_ENOUGH * spread[2]:
        first = net.edges[0].nodes
        thin = across(centred[first[0]] - centred[first].mean(0), rise)
    wide = np.cross(rise, thin)
    deep, over = flat @ thin, flat @ wide
    around = np.hypot(deep, over) * np.arctan2(over, np.abs(deep))
    out: Vector = np.outer(level, rise) + np.outer(around, wide) + np.outer(np.sign(deep) * thick / 2, thin)
    return out, thin


def _rolled(part: WorkedPart, net: Net, x: Vector) -> tuple[Rolled | None, int]:
    """The part on its spiral, None when nothing is rolled up, and the ring at the coil's outer end."""
    if part.rolled is None:
        return None, 0
    node = np.full(len(part.graph), -1)
    node[net.stitch] = np.arange(len(net.stitch))
    rings = [set(e.nodes.tolist()) for e in net.edges if e.closed]
    at: list[int] = []
    for index in (part.rolled.inner, part.rolled.outer):
        tally = part.rounds[index]
        own = set(node[tally.first : tally.end].tolist())
        at.append(next((k for k, ring in enumerate(rings) if ring & own), len(rings) - 1))
    return roll_up(net, x, at[0], at[1]), at[1]


def threads_in(net: Net, part: WorkedPart) -> Threads:
    """The part's threads as pairs of the net's nodes; one through a stitch that is no node holds nothing."""
    node = np.full(len(part.graph), -1)
    node[net.stitch] = np.arange(len(net.stitch))
    ends = node[np.array([(t.first, t.last) for t in part.threads], np.int64).reshape(-1, 2)]
    there = (ends >= 0).all(1)
    return Threads(ends[there], np.array([t.length_mm for t in part.threads])[there])
