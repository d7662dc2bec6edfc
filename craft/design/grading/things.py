"""Things that a part is made to fit, by their girth: what stands on a kitchen table or comes from a shop.

Balls by the rules of their games, which say a least and a most: the middle is taken. Eggs, jars and bottles from
memory; one's own tape measure is better.
"""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Thing:
    """Something round to be fitted. girth_mm: around its widest place. source: where the measure comes from."""

    key: str
    name: str
    girth_mm: float
    source: str


def _across(key: str, name: str, mm: float, source: str) -> Thing:
    return Thing(key, name, round(math.pi * mm, 1), source)


THINGS: tuple[Thing, ...] = (
    _across("hen-egg", "a hen's egg, medium", 43, "about 43 mm across, from memory"),
    _across("duck-egg", "a duck's egg", 47, "about 47 mm across, from memory"),
    _across("table-tennis", "a table tennis ball", 40.3, "40.0 to 40.6 mm across, ITTF leaflet T3, from memory"),
    _across("golf", "a golf ball", 42.67, "at least 42.67 mm across, Rules of Golf, from memory"),
    _across("tennis", "a tennis ball", 67.0, "65.4 to 68.6 mm across, ITF Rules of Tennis, appendix I, from memory"),
    _across("small-jar", "a small jam jar", 65, "about 65 mm across, from memory"),
    _across("large-jar", "a large jam jar", 85, "about 85 mm across, from memory"),
    _across("mug", "a mug", 82, "about 82 mm across, from memory"),
    _across("bottle", "a small bottle", 65, "about 65 mm across, from memory"),
)
"""Things by name, smallest kinds first."""
