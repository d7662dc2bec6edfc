"""Ways to work one shape, side by side: from which end, on how many stitches, true or easy, and what each costs."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from craft.drafting import EASE_PRESETS, Recipe
from craft.errors import CraftError
from craft.fitting.compensate import outcome
from craft.gauge import Estimate, Gauge
from craft.materials import hours, yarn_use
from craft.profile import REFERENCE_FIRMNESS
from craft.settling import ShapeError
from craft.target import Form, distance_from_pole

STARTS = (6, 8)
"""Stitches to start on that are compared, besides the recipe's own."""


@dataclass(frozen=True, slots=True)
class Alternative:
    """A way to work a shape. end: 'foot' as it stands, 'top' begun at its far end. metres, hours: for one piece."""

    recipe: Recipe
    end: str
    ease_name: str
    rounds: int
    stitches: int
    different: int
    error: ShapeError
    metres: Estimate
    hours: Estimate


def turned(form: Form) -> Form:
    """A closed form begun at its far end, its front still in front. CraftError for an open one."""
    shell = form.shell
    if shell.open:
        raise CraftError("An open shape is begun at its closed end.")
    end = int(np.argmax(distance_from_pole(shell)))
    x = shell.x * np.array([-1.0, 1.0, -1.0])
    return Form(replace(shell, x=x - [0.0, 0.0, x[end, 2]], pole=end))


def alternatives(
    recipe: Recipe, gauge: Gauge, *, firmness: float = REFERENCE_FIRMNESS, watch: Callable[[float], bool] | None = None
) -> tuple[Alternative, ...]:
    """Every combination of end, start and ease that can be worked, nearest first.

    watch(share): called before each with the share that is done; False stops, and what there is comes back.
    """
    ends = [("foot", recipe.form)]
    if not recipe.form.open and not recipe.form.mirrored_ends:
        ends.append(("top", turned(recipe.form)))
    starts = sorted({*STARTS, recipe.start})
    tried = list(itertools.product(ends, starts, EASE_PRESETS))
    found: list[Alternative] = []
    for at, ((end, form), start, (name, ease)) in enumerate(tried):
        if watch is not None and not watch(at / len(tried)):
            break
        way = replace(recipe, shape=form, start=start, ease=ease, redrawn=recipe.redrawn if end == "foot" else None)
        try:
            made = outcome(way, gauge, firmness=firmness)
        except CraftError:
            continue
        part = made.settled.part
        uses = yarn_use([part], gauge)
        found.append(
            Alternative(
                way,
                end,
                name,
                len(made.draft.counts),
                len(part.graph),
                made.draft.different_rounds,
                made.error,
                uses[0].metres,
                hours(uses),
            )
        )
    return tuple(sorted(found, key=lambda a: a.error.rms_w))
