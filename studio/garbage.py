"""What a process that serves for long does about garbage: not look through all that it has loaded, over and over."""

from __future__ import annotations

import gc

SELDOM = 20_000
"""Objects more than were given back before Python looks for cycles; its own 700 are for small programs. A tenth of a
grading, with many small values, was spent on looking."""


def look_seldom() -> None:
    """What is loaded now stays and is not looked at again; the rest is looked through less often."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(SELDOM)
