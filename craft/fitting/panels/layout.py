"""The panels laid out flat, joined along as many seams as lie free: how they are drawn."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.fitting.panels.draft import Panel, Panels

Vector = NDArray[np.float64]

GAP = 6.0
"""Millimetres between panels that are not laid edge to edge."""

_CLEAR = 0.5


@dataclass(frozen=True, slots=True)
class Placed:
    """A panel on the plane, y upwards: (n, 2) its outline in mm, counter-clockwise; lines: of every edge, in its order."""

    outline: Vector
    lines: tuple[Vector, ...]


def laid_out(panels: Panels) -> tuple[Placed, ...]:
    """Every panel: beside one that it is sewn to where there is room, else to the right of all."""
    flat = [_flattened(p) for p in panels.panels]
    placed: dict[int, list[Vector]] = {}
    order = sorted(range(len(flat)), key=lambda k: -panels.panels[k].patch.area_mm2)
    waiting = [*order]
    while waiting:
        for k in waiting:
            lines = _beside_a_placed_one(k, panels, flat, placed)
            if lines is not None:
                break
        else:
            k, lines = waiting[0], _to_the_right(flat[waiting[0]], placed)
        placed[k] = lines
        waiting.remove(k)
    return tuple(Placed(np.concatenate([line[:-1] for line in placed[k]]), tuple(placed[k])) for k in range(len(flat)))


def _flattened(panel: Panel) -> list[Vector]:
    """The panel's edges on the plane that it lies in, the one its edging begins with first."""
    patch = panel.patch
    right = np.cross(patch.up, patch.out)
    many = len(patch.edges)
    lines = [patch.edges[(panel.begun + i) % many].evened for i in range(many)]
    return [np.column_stack([line @ right, line @ patch.up]) for line in lines]


def _beside_a_placed_one(
    k: int, panels: Panels, flat: Sequence[list[Vector]], placed: dict[int, list[Vector]]
) -> list[Vector] | None:
    """The panel turned so that one of its edges meets its mate, None where it would lie over another."""
    for at, edge in enumerate(panels.panels[k].edges):
        if edge.other not in placed:
            continue
        mate = placed[edge.other][edge.mate]
        moved = _moved_onto(flat[k], flat[k][at], mate)
        if not any(_overlap(_outline(moved), _outline(other)) for other in placed.values()):
            return moved
    return None


def _moved_onto(lines: list[Vector], own: Vector, mate: Vector) -> list[Vector]:
    """Turned and shifted so that `own` runs along `mate` the other way."""
    a, b = own[-1] - own[0], mate[0] - mate[-1]
    turn = np.arctan2(b[1], b[0]) - np.arctan2(a[1], a[0])
    c, s = np.cos(turn), np.sin(turn)
    matrix = np.array([[c, -s], [s, c]])
    shift = (mate[0] + mate[-1]) / 2 - matrix @ ((own[0] + own[-1]) / 2)
    return [line @ matrix.T + shift for line in lines]


def _to_the_right(lines: list[Vector], placed: dict[int, list[Vector]]) -> list[Vector]:
    own = _outline(lines)
    right = max((float(_outline(o)[:, 0].max()) for o in placed.values()), default=-GAP)
    shift = np.array([right + GAP - own[:, 0].min(), -own[:, 1].min()])
    return [line + shift for line in lines]


def _outline(lines: Sequence[Vector]) -> Vector:
    return np.concatenate([line[:-1] for line in lines])


def _overlap(a: Vector, b: Vector) -> bool:
    """Whether two outlines lie over each other: a point of one, drawn in a little, is inside the other."""
    for one, other in itertools.permutations((a, b)):
        drawn_in = one + (one.mean(0) - one) * (_CLEAR / max(float(np.ptp(one)), 1.0))
        if _inside(np.vstack([drawn_in, one.mean(0)]), other).any():
            return True
    return False


def _inside(points: Vector, outline: Vector) -> NDArray[np.bool_]:
    """Even-odd rule."""
    x, y = points[:, 0][:, None], points[:, 1][:, None]
    a, b = outline, np.roll(outline, -1, 0)
    crossed = (a[:, 1] > y) != (b[:, 1] > y)
    with np.errstate(divide="ignore", invalid="ignore"):
        at = a[:, 0] + (y - a[:, 1]) / (b[:, 1] - a[:, 1]) * (b[:, 0] - a[:, 0])
    hits: NDArray[np.bool_] = (crossed & (x < at)).sum(1) % 2 == 1
    return hits
