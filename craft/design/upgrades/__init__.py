"""Upgrades of a design's JSON: one pure step from each format to the next, tested on a frozen file of each."""

from __future__ import annotations

from collections.abc import Sequence

from craft.formats import Upgrade

STEPS: Sequence[Upgrade] = ()
"""STEPS[k] turns format k + 1 into k + 2."""

FORMAT = len(STEPS) + 1
"""The format that is written."""
