"""What a draft settles to, and how far that lies from the shape aimed at."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.figure.settling import THICK, Settled, ShapeError, fit, settle
from craft.gauge import Gauge
from craft.problems import faulty
from craft.rounds.fabric import run_part
from craft.shape.drafting import Draft, Recipe, draft
from craft.shape.profile import REFERENCE_FIRMNESS
from craft.shape.target import Solid, TriangleMesh

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Outcome:
    """A draft, what it settles to, and how far that lies from the target.

    draft: the rounds with their counts. settled: the figure at rest. error: its distance from the target, as one
    number in mm and in stitch widths, and its volume as a share. gap: (n,) mm by which each node lies outside.
    """

    draft: Draft
    settled: Settled
    error: ShapeError
    gap: Vector


def aim_of(recipe: Recipe, gauge: Gauge) -> TriangleMesh:
    """The surface that a piece is held against: its shape's own, or that pressed flat to its layers where it takes no
    filling."""
    form = recipe.form
    if recipe.one_layer and isinstance(form.base, Solid):
        form = replace(form, base=replace(form.base, open=False))  # its last row is an edge, and no opening
    mesh = form.mesh
    if not recipe.empty:
        return mesh
    deep = float(np.ptp(mesh.x[:, 1]))
    thick = THICK * gauge.stitch_mm / (2 if recipe.one_layer else 1)
    return replace(mesh, x=mesh.x * [1.0, min(thick / max(deep, 1e-9), 1.0), 1.0])


def outcome(
    recipe: Recipe, gauge: Gauge, *, firmness: float = REFERENCE_FIRMNESS, watch: Callable[[int], bool] | None = None
) -> Outcome:
    """Draft, settle and compare with the recipe's own form. CraftError where it can't be drafted or settled."""
    made = draft(recipe, gauge)
    worked, problems = run_part(made.part)
    if faulty(problems):
        raise CraftError("The drafted rounds do not add up; please report this shape.")
    settled = settle(worked, gauge, firmness=firmness, watch=watch)
    laid = fit(settled, aim_of(recipe, gauge))
    return Outcome(made, settled, laid.error, laid.gap)
