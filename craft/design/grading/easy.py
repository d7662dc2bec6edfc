"""Easy numbers near a size."""

from __future__ import annotations

import math

EASY = 0.06
"""By how large a share a shared count may miss its size for the sake of an easy number."""


def shared_count(count: int, scale: float, start: int) -> int:
    """The count that two edges of `count` stitches both come to: near its size, and easy to work."""
    wanted = count * scale
    least = max(3, math.floor(wanted * (1 - EASY)))
    near = range(least, max(least, math.ceil(wanted * (1 + EASY))) + 1)

    def cost(n: int) -> float:
        easy = 0.0 if n % max(start, 2) == 0 else EASY / 2 if n % 2 == 0 else EASY
        return abs(n - wanted) / wanted + easy

    return min(near, key=cost)
