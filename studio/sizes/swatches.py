"""Sizes with her own swatches: a yarn on a hook that she has measured needs no estimate."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User

from craft.design.design import Size
from craft.gauge import Gauge
from studio.designs.manifest import SizeEntry
from studio.designs.values import size_value
from studio.yarns.gauges import swatch_gauge
from studio.yarns.policy import swatch_like


def size_for(user: User, entry: SizeEntry) -> Size:
    """A size as it is asked for, by her own swatch of its yarn on its hook where she has one."""
    return size_value(entry, _measured(user, entry))


def _measured(user: User, entry: SizeEntry) -> Gauge | None:
    if entry.yarn is None:
        return None
    swatch = swatch_like(user, entry.yarn.yarn_id, entry.hook_mm, entry.strands)
    return None if swatch is None else replace(swatch_gauge(swatch), how="measured on your swatch")
