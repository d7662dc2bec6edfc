"""A figure put together, laid on its back or hung up."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.placement.balance import settling_down, weight_of
from craft.figure.placement.seats import Posable
from craft.figure.placement.surface import Surface

Vector = NDArray[np.float64]

ABOVE_TABLE_MM = 25.0
"""How high a hanging figure hangs."""

_ROLLS = 12
_FURTHEST_ROLL, _AT_REST = 60.0, 0.05
"""Degrees of one roll at most, and below which it rests."""

_TOP_MM = 3.0
"""Fabric within so much of the highest point is what a figure is hung up by."""


def laid_down(
    bodies: Mapping[str, Posable], surfaces: Mapping[str, Surface], placed: Sequence[Placed]
) -> tuple[Placed, ...]:
    """Every piece turned so that the figure lies on its back, what was in front up, what was up away from the viewer; and
    rolled from there until it rests, as far as its weight is known."""
    lying = _moved(bodies, placed, np.array([[1.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, -1.0, 0.0]]), 0.0)
    for _ in range(_ROLLS):
        weight = weight_of(surfaces, lying)
        if weight is None:
            break
        turn, lean = settling_down(_points(bodies, lying), weight, _FURTHEST_ROLL)
        if lean < _AT_REST:
            break
        lying = _moved(bodies, lying, turn, 0.0)
    return lying


def hung_up(
    bodies: Mapping[str, Posable], surfaces: Mapping[str, Surface], placed: Sequence[Placed]
) -> tuple[Placed, ...]:
    """Every piece turned so that the figure's weight hangs straight below its highest point; upright while nothing of it
    is settled, as its weight is not known then."""
    weight = weight_of(surfaces, placed)
    turn = np.eye(3)
    if weight is not None:
        down = weight - hung_by(bodies, placed)
        size = float(np.linalg.norm(down))
        if size > 1e-6:
            turn = _turn_onto(down / size, np.array([0.0, 0.0, -1.0]))
    return _moved(bodies, placed, turn, ABOVE_TABLE_MM)


def hung_by(bodies: Mapping[str, Posable], placed: Sequence[Placed]) -> Vector:
    """The point that a figure is hung up by: the middle of its highest fabric."""
    points = _points(bodies, placed)
    top: Vector = points[points[:, 2] > points[:, 2].max() - _TOP_MM].mean(0)
    return top


def _points(bodies: Mapping[str, Posable], placed: Sequence[Placed]) -> Vector:
    own = [bodies[p.part].points() @ p.matrix[:3, :3].T + p.matrix[:3, 3] for p in placed if bodies[p.part].rounds]
    return np.concatenate(own) if own else np.zeros((1, 3))


def _moved(bodies: Mapping[str, Posable], placed: Sequence[Placed], turn: Vector, floor: float) -> tuple[Placed, ...]:
    """Every piece turned together, and lifted or lowered until the lowest point lies at `floor`."""
    whole = np.eye(4)
    whole[:3, :3] = turn
    turned = [replace(p, matrix=whole @ p.matrix) for p in placed]
    whole = np.eye(4)
    whole[2, 3] = floor - float(_points(bodies, turned)[:, 2].min())
    return tuple(replace(p, matrix=whole @ p.matrix) for p in turned)


def _turn_onto(a: Vector, b: Vector) -> Vector:
    """The rotation by which unit vector `a` comes onto `b` by the shortest way."""
    axis, share = np.cross(a, b), float(a @ b)
    if share < -1 + 1e-9:  # straight up: over sideways, so that the front stays in front
        return np.diag([-1.0, 1.0, -1.0])
    k = np.array([[0.0, -axis[2], axis[1]], [axis[2], 0.0, -axis[0]], [-axis[1], axis[0], 0.0]])
    out: Vector = np.eye(3) + k + k @ k / (1 + share)
    return out
