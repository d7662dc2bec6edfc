"""Ways to work one shape, side by side: from which end, on how many stitches, true or easy, and what each costs."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from craft.errors import CraftError
from craft.figure.materials import hours, yarn_use
from craft.figure.settling import ShapeError
from craft.fitting.outcome import outcome
from craft.gauge import Estimate, Gauge
from craft.shape.drafting import SIMPLICITY_PRESETS, Recipe
from craft.shape.profile import REFERENCE_FIRMNESS
from craft.shape.target import Form, TriangleMesh, cut, distance_from_pole

NARROW = 0.8
"""Width at a neck as a share of that beside it."""

STARTS = (6, 8)
"""Stitches to start on that are compared, besides the recipe's own."""


@dataclass(frozen=True, slots=True)
class Alternative:
    """A way to work a shape, and what it costs in all.

    end: 'foot' as it stands, 'top' begun at its far end, 'pieces' cut at its neck. cut_mm: height of that cut.
    error: of pieces the larger one.
    """

    recipe: Recipe
    end: Literal["foot", "top", "pieces"]
    simplicity_name: Literal["true", "balanced", "easy"]
    rounds: int
    stitches: int
    different: int
    error: ShapeError
    metres: Estimate
    hours: Estimate
    cut_mm: float | None = None


def turned(form: Form) -> Form:
    """A closed form begun at its far end, its front still in front. CraftError for an open one."""
    mesh = form.mesh
    if mesh.open:
        raise CraftError("An open shape is begun at its closed end.")
    end = int(np.argmax(distance_from_pole(mesh)))
    x = mesh.x * np.array([-1.0, 1.0, -1.0])
    return Form(replace(mesh, x=x - [0.0, 0.0, x[end, 2]], pole=end))


def alternatives(
    recipe: Recipe, gauge: Gauge, *, firmness: float = REFERENCE_FIRMNESS, watch: Callable[[float], bool] | None = None
) -> tuple[Alternative, ...]:
    """Every combination of end, start and simplicity that can be worked, and the shape cut at its neck; nearest first.

    watch(share): called before each with the share that is done; False stops, and what there is comes back.
    """
    ends: list[tuple[Literal["foot", "top"], Form]] = [("foot", recipe.form)]
    if not recipe.form.open and not recipe.form.mirrored_ends:
        ends.append(("top", turned(recipe.form)))
    starts = sorted({*STARTS, recipe.start})
    tried = list(itertools.product(ends, starts, SIMPLICITY_PRESETS))
    found: list[Alternative] = []
    for at, ((end, form), start, (name, simplicity)) in enumerate(tried):
        if watch is not None and not watch(at / len(tried)):
            break
        way = replace(
            recipe, shape=form, start=start, simplicity=simplicity, redrawn=recipe.redrawn if end == "foot" else None
        )
        try:
            made = outcome(way, gauge, firmness=firmness)
        except CraftError:
            continue
        part = made.settled.part
        uses = yarn_use([part], gauge)
        found.append(
            Alternative(
                recipe=way,
                end=end,
                simplicity_name=name,
                rounds=len(made.draft.counts),
                stitches=len(part.graph),
                different=made.draft.different_rounds,
                error=made.error,
                metres=uses[0].metres,
                hours=hours(uses),
            )
        )
    neck = None if recipe.form.open else neck_of(recipe.form.mesh)
    if neck is not None and (watch is None or watch(1.0)):
        found += _in_pieces(recipe, neck, gauge, firmness)
    return tuple(sorted(found, key=lambda a: a.error.rms_w))


def neck_of(mesh: TriangleMesh) -> float | None:
    """Height in mm of the narrowest place between two wider ones, None for a shape without a neck.

    Narrow is what has less than NARROW of the lesser girth beside it.
    """
    low, high = float(mesh.x[:, 2].min()), float(mesh.x[:, 2].max())
    heights = np.linspace(low, high, 82)[1:-1]
    a, b = mesh.x[mesh.sides[:, 0]], mesh.x[mesh.sides[:, 1]]
    wide = np.zeros(len(heights))
    for i, z in enumerate(heights):
        hit = (a[:, 2] < z) != (b[:, 2] < z)
        at = a[hit] + (b[hit] - a[hit]) * ((z - a[hit, 2]) / (b[hit, 2] - a[hit, 2]))[:, None]
        wide[i] = float(np.ptp(at[:, 0]) + np.ptp(at[:, 1]))
    beside = np.minimum(np.maximum.accumulate(wide), np.maximum.accumulate(wide[::-1])[::-1])
    at = int(np.argmin(wide / beside))
    return float(heights[at]) if wide[at] < NARROW * beside[at] else None


def _in_pieces(recipe: Recipe, neck: float, gauge: Gauge, firmness: float) -> list[Alternative]:
    """The shape cut at its neck, at every simplicity."""
    pieces = [Form(piece.mesh) for piece in cut(recipe.form.mesh, neck)]
    found = []
    for name, simplicity in SIMPLICITY_PRESETS:
        ways = [replace(recipe, shape=piece, start=STARTS[0], simplicity=simplicity, redrawn=None) for piece in pieces]
        try:
            made = [outcome(way, gauge, firmness=firmness) for way in ways]
        except CraftError:
            continue
        parts = [m.settled.part for m in made]
        uses = yarn_use(parts, gauge)
        found.append(
            Alternative(
                recipe=replace(recipe, simplicity=simplicity, start=STARTS[0]),
                end="pieces",
                simplicity_name=name,
                rounds=sum(len(m.draft.counts) for m in made),
                stitches=sum(len(p.graph) for p in parts),
                different=sum(m.draft.different_rounds for m in made),
                error=max((m.error for m in made), key=lambda e: e.rms_mm),
                metres=uses[0].metres,
                hours=hours(uses),
                cut_mm=neck,
            )
        )
    return found
