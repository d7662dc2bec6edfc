"""Sizes with her own samples: a yarn on a hook that she has measured needs no estimate."""

from __future__ import annotations

from dataclasses import replace

from django.contrib.auth.models import User

from craft.design.design import Size
from craft.gauge import Gauge
from studio.designs.manifest import SizeEntry
from studio.designs.values import size_value
from studio.yarns.gauges import sample_gauge
from studio.yarns.policy import sample_like


def size_for(user: User, entry: SizeEntry) -> Size:
    """A size as it is asked for, by her own sample of its yarn on its hook where she has one."""
    return size_value(entry, _measured(user, entry))


def _measured(user: User, entry: SizeEntry) -> Gauge | None:
    if entry.yarn is None:
        return None
    sample = sample_like(user, entry.yarn.yarn_id, entry.hook_mm, entry.strands)
    return None if sample is None else replace(sample_gauge(sample), how="measured on your swatch")
