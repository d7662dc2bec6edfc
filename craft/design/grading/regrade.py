"""A part at another size in the same yarn: cut into segments by its events, each made anew by its own rule.

A part whose rounds are still the drafted ones is drafted again from its solid. Of any other, plain rounds are
resampled, short rows and whatever is more than plain follow in proportion; what could not be kept is told.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from craft.design.grading.edges import ALONE, Around
from craft.design.grading.inventory import unaccounted
from craft.design.grading.making import Making
from craft.design.grading.report import Feature, State
from craft.design.grading.source import SourcePart, source_of
from craft.errors import CraftError, require
from craft.fitting.panels import PanelRecipe
from craft.gauge import Gauge
from craft.problems import Severity
from craft.rounds.arithmetic import MOST_ROUNDS
from craft.rounds.fabric import WorkedPart, run_part
from craft.rounds.pattern import Part, folded
from craft.shape.drafting import Recipe, draft

LEAST_AROUND = 5
"""The fewest stitches a tube can be worked on with any comfort."""

LEAST_WISHED = 2.0
"""Stitches around below which a part is no tube any more."""

WIDER = 1.15
"""By how much a part may be wider than it was wished before that is said."""

NARROW = "It cannot be worked on fewer stitches; its length follows. At this size a chain, a cord or embroidery may look better."


@dataclass(frozen=True, slots=True)
class Regraded:
    """A part at another size. how: 'drafted' or 'resampled'. features: what became of what it holds. tops: the number of
    the round that stands for each of the first size."""

    part: Part
    worked: WorkedPart
    how: str
    features: tuple[Feature, ...]
    tops: Mapping[int, int] = field(default_factory=dict)


def regrade(
    part: Part,
    scale: float,
    gauge: Gauge,
    recipe: Recipe | PanelRecipe | None = None,
    around: Around = ALONE,
    source: SourcePart | None = None,
) -> Regraded:
    """`part` at `scale` times its size in the same yarn.

    recipe: how the part was drafted, while its rounds are still the drafted ones; None resamples. source: the part as
    it was run, where that is known. CraftError when the part would get too small or too large to work, or cannot be
    made so at all.
    """
    require(
        math.isfinite(scale) and 0.2 <= scale <= 5, "A size is from a fifth to five times the first.", field="scale"
    )
    if recipe is not None and (found := _drafted(part, scale, gauge, recipe, around)) is not None:
        return found
    return _resampled(source or source_of(part, around.colour, around.before), scale, around)


def _drafted(part: Part, scale: float, gauge: Gauge, recipe: Recipe | PanelRecipe, around: Around) -> Regraded | None:
    """The part drafted anew; None when its open end does not come out as it has to."""
    scaled = recipe.scaled(scale)
    if isinstance(scaled, PanelRecipe):
        made = scaled.part(gauge, part.name, part.make)
    else:
        made = draft(scaled, gauge, part.name, part.make).part
    worked, _ = run_part(made, around.colour, around.after)
    end = worked.rounds[-1].live if worked.rounds else 0
    if around.last is not None and not worked.closed and end != around.last:
        return None
    if around.even and not worked.closed and end % 2:
        return None
    return Regraded(made, worked, "drafted", unaccounted(part.name or "Part", part, made, ()))


def _resampled(source: SourcePart, scale: float, around: Around) -> Regraded:
    part = source.part
    name = part.name or "The part"
    if not any(r.tally is not None for r in source.rounds.values()):
        raise CraftError(f"{name} has no rounds to be resized.", field="scale")
    widest = max(source.worked.counts)
    wished = scale * widest
    if scale < 1 and wished < LEAST_WISHED:
        raise CraftError(
            f"{name} would have {wished:.1f} stitches around; it cannot get so small in this yarn. "
            "Make it a chain or a cord, embroider it, or leave it out.",
            field="scale",
        )
    making = Making(source, scale, around)
    making.make()
    made = Part(part.name, folded(tuple(making.items)), part.make)
    if sum(r.repeats for r in made.rounds) > MOST_ROUNDS:
        raise CraftError("That would be more rounds than one pattern may have.", field="scale")
    worked, problems = run_part(made, around.colour, around.after)
    faults = [p for p in problems if p.severity is Severity.FAULT]
    fresh = [p for p in faults if p.code not in source.told]
    if fresh:
        raise CraftError(f"{name} does not come out at this size: {fresh[0].message}", field="scale")
    rows = [Feature(part.name or "Part", kind, state, a, b, why) for state, kind, a, b, why in making.rows]
    rows += unaccounted(part.name or "Part", part, made, rows)
    if wished < LEAST_AROUND and max(worked.counts) > wished * WIDER:
        rows.append(
            Feature(
                part.name or "Part", "width", State.CHANGED, f"{widest} around", f"{max(worked.counts)} around", NARROW
            )
        )
    return Regraded(made, worked, "resampled", tuple(rows), dict(making.edges.tops))
