"""Upgrades of a design's JSON: one pure step from each format to the next, tested on a frozen file of each."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from craft.formats import Upgrade


def _to_2(data: dict[str, Any]) -> dict[str, Any]:
    """A gauge from a 'sample' is one from a swatch."""
    gauge = data.get("gauge")
    if not isinstance(gauge, dict) or gauge.get("source") != "sample":
        return data
    return {**data, "gauge": {**gauge, "source": "swatch"}}


STEPS: Sequence[Upgrade] = (_to_2,)
"""STEPS[k] turns format k + 1 into k + 2."""

FORMAT = len(STEPS) + 1
"""The format that is written."""
