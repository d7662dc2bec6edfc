"""Sizes by her own samples: a yarn on a hook that she has measured needs no estimate; any other is corrected by them."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User

from craft.design.grading import first_size, girth_around
from craft.design.size import Size
from craft.errors import CraftError
from craft.gauge import Gauge, corrected_by_samples, estimate_gauge, estimate_together
from studio.designs.manifest import RoleYarnEntry, SizeEntry
from studio.designs.policy import visible_designs
from studio.designs.reading import read_design
from studio.designs.values import size_value, yarn_value
from studio.yarns.gauges import craft_yarn, swatch_gauge
from studio.yarns.policy import swatch_like, visible_swatches

GONE = "-"
"""The key of no part."""

MOST_SAMPLES = 50
"""Her newest samples, by which an estimate is corrected."""


def size_for(user: User, entry: SizeEntry) -> Size:
    """A size as it is asked for: by her own sample of its yarn on its hook where she has one, else by an estimate that
    the samples she has correct."""
    roles = {r.role: _gauge(user, r) for r in entry.others}
    size = size_value(entry, _gauge(user, entry), roles)
    return size if entry.fits_design is None else _fitting(user, entry.fits_design, size)


def _fitting(user: User, pk: int, size: Size) -> Size:
    """A size that is to fit a part of another of her designs, by that part's girth as it is now; where it is gone, the
    size names a part that no design has, and says so."""
    design = visible_designs(user).filter(pk=pk).first()
    if design is None:
        return replace(size, fits=GONE)
    other = read_design(design)
    first = first_size(other.value, other.parts)
    part = next((p for p in first.parts if p.source.key == size.fits), None)
    if part is None:
        return replace(size, fits=GONE)
    return replace(size, fits=None, girth_mm=girth_around(part))


def _gauge(user: User, entry: SizeEntry | RoleYarnEntry) -> Gauge | None:
    if entry.yarn is None or entry.hook_mm is None:
        return None
    alone = entry.yarn.yarn_id if entry.second is None else None
    swatch = swatch_like(user, alone, entry.hook_mm, entry.strands)
    if swatch is not None:
        return replace(swatch_gauge(swatch), how="measured on your swatch")
    samples = _samples(user)
    second = None if entry.second is None else yarn_value(entry.second).strands(1)
    estimate = estimate_together(yarn_value(entry.yarn).strands(entry.strands), second, entry.hook_mm)
    if samples:
        return corrected_by_samples(estimate, samples)
    return None if second is None else estimate


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
