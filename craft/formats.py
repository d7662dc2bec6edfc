"""Formats of stored and exported JSON: numbered, and upgraded from each to the next by pure steps."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from craft.errors import CraftError

Upgrade = Callable[[dict[str, Any]], dict[str, Any]]


def upgraded(data: Mapping[str, Any], steps: Sequence[Upgrade], what: str) -> dict[str, Any]:
    """`data` of any earlier format in the newest one: a file without a number is of format 1.

    steps: steps[k] turns format k + 1 into k + 2. CraftError for a format that is newer, or no number.
    """
    newest = len(steps) + 1
    given = data.get("format", 1)
    if not isinstance(given, int) or isinstance(given, bool) or given < 1:
        raise CraftError(f"{what} carries no format that can be read.", field="format")
    if given > newest:
        raise CraftError(
            f"{what} was written by a newer Spirrel (format {given}; this one reads up to {newest}).", field="format"
        )
    out = dict(data)
    for step in steps[given - 1 :]:
        out = step(out)
    return {**out, "format": newest}
