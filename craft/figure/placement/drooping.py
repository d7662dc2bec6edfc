"""Empty limbs, ears and flaps under their own weight: what holds no filling and no wire hangs from where it is sewn on.

A heavy strip clamped at one end (Peirce, The "handle" of cloth as a measurable quantity, 1930, from memory): its
bending stiffness, over its weight for each mm, is the third power of its bending length, so a strip much shorter than
that stands as it is sewn, and a much longer one hangs. The strip is cut into its rounds, each turns about the level
axis across it, and the least of bending and weight is looked for. A geometric estimate: a piece bends as a whole and is
not creased, and what sits on a piece holds it where it is.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize

from craft.figure.body import Placed
from craft.figure.placement.seats import Seat
from craft.figure.placement.surface import Foot, Surface

Vector = NDArray[np.float64]

BENDING_LENGTH_MM, OF_STITCH_MM = 35.0, 5.6
"""Bending length of single crochet in worsted cotton, whose stitches are so wide: an estimate. Stiffness grows with the
third power of the yarn's thickness and weight with the first, so it grows with the two-thirds power of the stitch."""

LEAST_ROUNDS = 3
"""Rounds of a piece that bends at all."""

LEAST_TURN = 0.02
"""Radians below which a piece stays as it is sewn on."""

DOWN = np.array([0.0, 0.0, -1.0])


@dataclass(frozen=True, slots=True)
class Strip:
    """A piece from its seam on. middles (k, 3) of its rounds in the scene, the sewn one first; round: of each node, which
    of them it goes with."""

    middles: Vector
    round: NDArray[np.int64]

    @property
    def steps(self) -> Vector:
        """(k - 1, 3) from each round to the next."""
        out: Vector = np.diff(self.middles, axis=0)
        return out


def bending_length(stitch_mm: float) -> float:
    """Of fabric in stitches so wide, in mm."""
    return BENDING_LENGTH_MM * float((stitch_mm / OF_STITCH_MM) ** (2 / 3))


def droop(
    surfaces: Mapping[str, Surface],
    placed: Sequence[Placed],
    seats: Sequence[Seat],
    stitch_mm: float,
    held: Collection[str] = (),
    floor: float | None = None,
) -> tuple[Placed, ...]:
    """The same pieces; those that are empty and sewn on by an end bent as they hang. held: parts that wire keeps as they
    are sewn on. floor: height in the scene of what the figure stands on, where a longer limb lies; None where it hangs."""
    by_key = {s.key: s for s in seats}
    hosts = {s.on for s in seats}
    found = []
    for piece in placed:
        surface, seat = surfaces.get(piece.part), by_key.get(piece.join)
        free = surface is not None and seat is not None and not seat.laid and not seat.swings
        if not free or surface is None or seat is None or surface.filled or piece.part in held or piece.part in hosts:
            found.append(piece)
            continue
        x = piece.in_scene(surface.x)
        strip = strip_of(replace(surface, x=x), from_start=seat.on_start or surface.foot is Foot.START)
        turns = (
            None
            if strip is None or surface.foot is Foot.RIM
            else turns_of(strip.steps[None], DOWN, bending_length(stitch_mm))
        )
        if strip is None or turns is None:
            found.append(piece)
            continue
        turn, axis = turns[0][0], turns[1][0]
        turn = turn if floor is None else laid_on(strip, turn, axis, floor)
        found.append(replace(piece, x=piece.from_scene(along(x, strip, (turn, axis)))))
    return tuple(found)


def strip_of(surface: Surface, *, from_start: bool) -> Strip | None:
    """A piece as a strip from its first round on, or from its last; None where it has too few rounds. Positions: those of
    the surface."""
    rings = surface.rings if from_start else surface.rings[::-1]
    if len(rings) < LEAST_ROUNDS:
        return None
    x = surface.x
    middles = np.array([x[ring].mean(0) for ring in rings])
    round_of = np.full(len(x), -1, np.int64)
    for k, ring in enumerate(rings):
        round_of[ring] = k
    loose = np.flatnonzero(round_of < 0)
    if len(loose):
        round_of[loose] = np.argmin(np.linalg.norm(x[loose][:, None] - middles[None], axis=2), axis=1)
    return Strip(middles, round_of)


def turns_of(steps: Vector, down: Vector, bending: float) -> tuple[Vector, Vector] | None:
    """By how much every step turns of strips that are clamped at their beginnings, (strips, k), and about which level axis
    each, (strips, 3); None where all stay as they are.

    steps: (strips, k, 3) mm; down: the unit direction of weight; bending: their bending length in mm. The strips have
    nothing to do with each other, and are looked for at once.
    """
    long = np.maximum(np.linalg.norm(steps, axis=2), 1e-9)
    out = steps.sum(1)
    axis = np.cross(out, down)
    size = np.linalg.norm(axis, axis=1)
    level = size >= 1e-6 * np.maximum(np.linalg.norm(out, axis=1), 1e-9)
    # One that stands upright or hangs already falls to the front, if at all.
    axis = np.where(level[:, None], axis / np.maximum(size, 1e-12)[:, None], [1.0, 0.0, 0.0])
    up, over = -steps @ down, -np.cross(axis[:, None], steps) @ down
    # Beyond a step lies half of itself and all that follows: by so much weight its rise counts.
    beyond = np.cumsum(long[:, ::-1], axis=1)[:, ::-1] - long / 2

    def energy(flat: Vector) -> tuple[float, Vector]:
        turn = flat.reshape(long.shape)
        bend = np.diff(turn, axis=1, prepend=0.0) / long
        rise = np.cos(turn) * up + np.sin(turn) * over
        falls = -np.sin(turn) * up + np.cos(turn) * over
        slope = bending**3 * bend
        slope[:, :-1] -= bending**3 * bend[:, 1:]
        total = 0.5 * bending**3 * np.sum(bend**2 * long) + np.sum(beyond * rise)
        return float(total), (slope + beyond * falls).ravel()

    start = np.full(long.size, 1e-3)
    turn = np.asarray(minimize(energy, start, jac=True, method="L-BFGS-B").x).reshape(long.shape)
    return (turn, axis) if float(np.abs(turn).max()) > LEAST_TURN else None


def laid_on(strip: Strip, turn: Vector, axis: Vector, floor: float) -> Vector:
    """The turns of a strip that comes down to the floor: from there on it lies level, away from where it is sewn on."""
    out = turn.copy()
    height = float(strip.middles[0, 2])
    outwards = (strip.middles[-1] - strip.middles[0]) * [1, 1, 0]
    for at, step in enumerate(strip.steps):
        across = np.cross(axis, step)
        falls = np.cos(turn[at]) * step[2] + np.sin(turn[at]) * across[2]
        if height + falls >= floor:
            height += falls
            continue
        level = float(np.arctan2(-step[2], across[2]))
        ways = [a for a in (level, level + np.pi, level - np.pi) if abs(a) <= np.pi]
        out[at] = max(ways, key=lambda a: float((np.cos(a) * step + np.sin(a) * across) @ outwards))
    return out


def along(x: Vector, strip: Strip, turns: tuple[Vector, Vector]) -> Vector:
    """The nodes of a strip whose steps have turned, (k,) radians about an axis (3,); each node goes with its round, which
    turns by the mean of its two steps."""
    turn, axis = turns
    moved = np.vstack([strip.middles[:1], strip.middles[0] + np.cumsum(turned(strip.steps, turn, axis), axis=0)])
    of_round = np.concatenate([[0.0], (turn[:-1] + turn[1:]) / 2, turn[-1:]])
    out: Vector = moved[strip.round] + turned(x - strip.middles[strip.round], of_round[strip.round], axis)
    return out


def turned(v: Vector, angle: Vector, axis: Vector) -> Vector:
    """(n, 3) directions turned, each by its own angle, about one axis (3,) or each about its own (n, 3) (Rodrigues'
    formula)."""
    axis = np.broadcast_to(axis, v.shape)
    cos, sin = np.cos(angle)[:, None], np.sin(angle)[:, None]
    out: Vector = v * cos + np.cross(axis, v) * sin + axis * np.sum(v * axis, axis=1)[:, None] * (1 - cos)
    return out
