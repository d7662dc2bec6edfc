"""Sizes by her own samples: a yarn on a hook that she has measured needs no estimate; any other is corrected by them."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User

from craft.design.design import Size
from craft.errors import CraftError
from craft.gauge import Gauge, corrected_by_samples, estimate_gauge
from studio.designs.manifest import SizeEntry
from studio.designs.values import size_value, yarn_value
from studio.yarns.gauges import craft_yarn, swatch_gauge
from studio.yarns.policy import swatch_like, visible_swatches

MOST_SAMPLES = 50
"""Her newest samples, by which an estimate is corrected."""


def size_for(user: User, entry: SizeEntry) -> Size:
    """A size as it is asked for: by her own sample of its yarn on its hook where she has one, else by an estimate that
    the samples she has correct."""
    return size_value(entry, _gauge(user, entry))


def _gauge(user: User, entry: SizeEntry) -> Gauge | None:
    if entry.yarn is None or entry.hook_mm is None:
        return None
    swatch = swatch_like(user, entry.yarn.yarn_id, entry.hook_mm, entry.strands)
    if swatch is not None:
        return replace(swatch_gauge(swatch), how="measured on your swatch")
    samples = _samples(user)
    estimate = estimate_gauge(yarn_value(entry.yarn).strands(entry.strands), entry.hook_mm)
    return corrected_by_samples(estimate, samples) if samples else None


def _samples(user: User) -> list[tuple[Gauge, Gauge]]:
    """What she measured, each beside what it would have been estimated at."""
    found: list[tuple[Gauge, Gauge]] = []
    for swatch in visible_swatches(user).select_related("yarn")[:MOST_SAMPLES]:
        try:
            found.append(
                (swatch_gauge(swatch), estimate_gauge(craft_yarn(swatch.yarn, swatch.strands), swatch.hook_mm))
            )
        except CraftError:
            continue  # measures that make no gauge say nothing of others
    return found
