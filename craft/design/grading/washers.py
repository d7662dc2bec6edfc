"""Whether the washers of the eyes still pass at a size: the opening shrinks with the part, the washers only as eyes are sold."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from craft.design.grading.report import Feature, State
from craft.design.grading.sized import Sized, eye_at
from craft.figure.placement import washer_mm
from craft.figure.settling import OPENING_STRETCH
from craft.rounds.fabric import WorkedStep
from craft.rounds.pattern import StepKind


def washers_at(sized: Sized) -> Iterator[Feature]:
    """A row for every part into whose opening the washers no longer go where its eyes are put in, as they did before."""
    sold = eye_at(sized)
    before = sized.design.eyes.mm
    if sold is None or not before:
        return
    for part in sized.parts:
        was = (
            None
            if part.source.worked is None
            else _opening(part.source.worked.steps, sized.design.gauge_of(part.source.key).stitch_mm)
        )
        now = _opening(part.worked.steps, part.gauge.stitch_mm)
        if now is None or now * OPENING_STRETCH >= washer_mm(sold):
            continue
        if was is not None and was * OPENING_STRETCH < washer_mm(before):
            continue  # they did not pass at the first size either, which is told there
        why = (
            f"When the eyes go in, the opening is about {now:.0f} mm: a washer of {washer_mm(sold):.0f} mm no longer "
            "passes. Put them in some rounds earlier, take smaller eyes, or embroider them."
        )
        yield Feature(part.source.name, "washers", State.CHANGED, "", f"eyes of {sold} mm", why)


def _opening(steps: Sequence[WorkedStep], stitch_mm: float) -> float | None:
    """How wide the part is open, in mm, when its eyes are put in; None where no step puts any in."""
    step = next((s for s in steps if s.kind is StepKind.EYES), None)
    return None if step is None else step.live * stitch_mm / math.pi
