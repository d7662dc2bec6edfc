"""Adapter rounds: from the stitches that there are to those that are needed, no steeper than flat."""

from __future__ import annotations

import math
from collections.abc import Sequence

from craft.design.grading.shaping import manner_of
from craft.design.grading.source import SourceRound
from craft.errors import CraftError
from craft.gauge import Gauge
from craft.rounds.pattern import Round
from craft.shape.drafting import best_counts, shaped_rounds

MOST_ADAPTERS = 60


def flat_growth(gauge: Gauge) -> float:
    """Stitches by which a round of a flat disc grows: 2π h / w. More of them ruffle."""
    return 2 * math.pi * gauge.round_mm / gauge.stitch_mm


def adapter_counts(before: int, after: int, gauge: Gauge) -> tuple[int, ...]:
    """Counts after each adapter round, the last of them `after`; empty where the counts agree already."""
    if before == after:
        return ()
    many = max(1, math.ceil(abs(after - before) / max(1, round(flat_growth(gauge)))))
    many = max(many, math.ceil(abs(math.log2(after / before)) - 1e-9))
    if many > MOST_ADAPTERS:
        raise CraftError(
            f"From {before} to {after} stitches is too far for adapter rounds; grade the piece.", field="adapt"
        )
    true = [before + (after - before) * k / many for k in range(many + 1)]
    if many == 1:
        return (after,)
    start = min(60, max(3, math.gcd(before, after)))
    return tuple(best_counts(true, start, 0.6, closed=False, first=before, last=after)[1:])


def adapter_rounds(
    before: int, after: int, gauge: Gauge, number: int, like: Sequence[SourceRound]
) -> tuple[Round, ...]:
    """Rounds from `before` to `after` stitches, the first of them `number`, shaped in the manner of those below."""
    counts = adapter_counts(before, after, gauge)
    bodies = shaped_rounds([before, *counts], manner_of(tuple(like)))
    return tuple(
        Round(number + k, number + k, body, count) for k, (body, count) in enumerate(zip(bodies, counts, strict=True))
    )
