"""Compensation: stuffing rounds things out and straightens bends, so the drafted shape is drawn the other way."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csr_matrix, diags

from craft.errors import CraftError
from craft.fitting.outcome import Outcome, outcome
from craft.gauge import Gauge
from craft.shape.drafting import Recipe
from craft.shape.profile import REFERENCE_FIRMNESS
from craft.shape.target import TriangleMesh

Vector = NDArray[np.float64]

TURNS = 4
"""Times a target is redrawn at most."""

SHARE = 0.8
"""Share of what is missing that a turn adds."""

SMOOTH = 6
"""Times the change is averaged over neighbouring corners: rounds can't follow a dent of one stitch."""

_SHARES = (1.0, 0.5, 0.25)
"""Shares of a change that are tried, the first that can be drafted is taken."""

FARTHEST = 0.35
"""Share of the smallest size by which a corner may be moved in all."""


@dataclass(frozen=True, slots=True)
class Compensated:
    """The recipe with its target redrawn, or as it was when nothing better was found; errors before and after."""

    recipe: Recipe
    before: Outcome
    after: Outcome
    turns: int


def compensate(
    recipe: Recipe,
    gauge: Gauge,
    *,
    firmness: float = REFERENCE_FIRMNESS,
    turns: int = TURNS,
    watch: Callable[[float], bool] | None = None,
) -> Compensated:
    """Redraw the target a few times by what the settled figure misses, and keep the best.

    watch(share): called with the share of the work that is done; False stops, and the best so far comes back.
    """
    mesh = recipe.form.mesh
    going = True

    def seen(turn: int) -> Callable[[int], bool]:
        def step(_: int) -> bool:
            nonlocal going
            going = watch is None or watch(turn / (turns + 1))
            return going

        return step

    plain = replace(recipe, redrawn=None)
    first = outcome(plain, gauge, firmness=firmness, watch=seen(0))
    best, kept, now = first, plain, first
    even = _evening(mesh)
    moved = np.zeros_like(mesh.x)
    done = 0
    for turn in range(1, turns + 1):
        if not going:
            break
        step = SHARE * now.gap
        for _ in range(SMOOTH):
            step = even @ step
        most = FARTHEST * min(mesh.size_mm)
        for share in _SHARES:
            further = _within(moved + share * step, most)
            tried = replace(recipe, redrawn=mesh.with_corners(mesh.x + further))
            try:
                now = outcome(tried, gauge, firmness=firmness, watch=seen(turn))
            except CraftError:  # drawn too far: a smaller change may still be worked
                continue
            break
        else:
            break
        moved, done = further, turn
        if now.settled.converged and now.error.rms_w < best.error.rms_w:
            best, kept = now, tried
    return Compensated(kept, first, best, done)


def _evening(mesh: TriangleMesh) -> csr_matrix:
    """Each corner's mean with its neighbours, itself counted as all of them."""
    a, b = mesh.sides[:, 0], mesh.sides[:, 1]
    n = len(mesh.x)
    pairs = coo_matrix((np.ones(2 * len(a)), (np.append(a, b), np.append(b, a))), shape=(n, n)).tocsr()
    many = np.maximum(np.asarray(pairs.sum(1)).ravel(), 1.0)
    return csr_matrix(0.5 * diags(np.ones(n)) + 0.5 * diags(1 / many) @ pairs)


def _within(moved: Vector, most: float) -> Vector:
    size = np.linalg.norm(moved, axis=1)[:, None]
    held: Vector = moved * np.minimum(1.0, most / np.maximum(size, 1e-9))
    return held
