"""How a picture is taken: from which side, how large, on which ground."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from craft.errors import require

Vector = NDArray[np.float64]

MOST_PIXELS = 4_096


class Side(StrEnum):
    """From where: square to the front, the side, the back or the top, or from between front and side, a little above."""

    FRONT = "front"
    LEFT = "left"
    RIGHT = "right"
    BACK = "back"
    TOP = "top"
    BETWEEN = "between"


_TURNED = {
    Side.FRONT: (0.0, 0.0),
    Side.LEFT: (-90.0, 0.0),
    Side.RIGHT: (90.0, 0.0),
    Side.BACK: (180.0, 0.0),
    Side.TOP: (0.0, 90.0),
    Side.BETWEEN: (-24.0, 16.0),
}


@dataclass(frozen=True, slots=True)
class Look:
    """A view of the figure, without perspective, so that what is equally large looks so.

    side: from where; around, above: degrees to add, around to the viewer's right and above the table. width, height: in
    pixels. mm_across: what of the scene the picture's smaller edge holds, None for the figure with a margin. ground:
    '#rrggbb' behind the figure, None for transparent. shadow: a soft one on the table.
    """

    side: Side = Side.BETWEEN
    around: float = 0.0
    above: float = 0.0
    width: int = 800
    height: int = 800
    mm_across: float | None = None
    ground: str | None = None
    shadow: bool = True

    def __post_init__(self) -> None:
        for name in ("width", "height"):
            require(
                16 <= getattr(self, name) <= MOST_PIXELS, f"A picture is 16 to {MOST_PIXELS} pixels wide.", field=name
            )
        require(self.mm_across is None or 1 <= self.mm_across <= 10_000, "1 to 10,000 mm.", field="mm_across")

    def axes(self) -> Vector:
        """(3, 3): unit vectors to the right, up, and towards the viewer, as rows."""
        around, above = _TURNED[self.side]
        a = math.radians(around + self.around)
        e = math.radians(max(-90.0, min(90.0, above + self.above)))
        towards = np.array([math.sin(a) * math.cos(e), -math.cos(a) * math.cos(e), math.sin(e)])
        right = np.array([math.cos(a), math.sin(a), 0.0])
        return np.stack([right, np.cross(towards, right), towards])
