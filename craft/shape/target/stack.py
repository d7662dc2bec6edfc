"""Solids stacked into one piece, joined by necks."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from craft.errors import require
from craft.shape.target.solids import Outline, Solid

_FINE = 1_200


@dataclass(frozen=True, slots=True)
class Stack:
    """Solids one on the other, the first at the foot. neck: width of each neck as a share of the narrower
    of the two solids it joins, 0.2 to 0.95."""

    solids: tuple[Solid, ...]
    neck: float = 0.6

    def __post_init__(self) -> None:
        require(2 <= len(self.solids) <= 8, "A stack has 2 to 8 solids.", field="solids")
        require(0.2 <= self.neck <= 0.95, "A neck is 20 to 95 % as wide as what it joins.", field="neck")
        require(not any(s.open for s in self.solids[:-1]), "Only the last of a stack may be open.", field="solids")

    @property
    def open(self) -> bool:
        """Whether its end is left open."""
        return self.solids[-1].open

    @property
    def width_mm(self) -> float:
        """The widest solid's width."""
        return max(s.width_mm for s in self.solids)

    @property
    def height_mm(self) -> float:
        """Height over all."""
        return float(np.ptp(self.outline().z))

    def outline(self) -> Outline:
        """The outer line of all solids, each sunk into the one below until the neck has its width."""
        foot = 0.0
        parts: list[tuple[float, Outline]] = []
        for solid in self.solids:
            own = solid.outline()
            if parts:
                low_foot, low = parts[-1]
                wide = self.neck * min(float(low.r.max()), float(own.r.max()))
                foot = low_foot + _height_above(low, wide) - _height_below(own, wide)
            parts.append((foot, own))
        top = parts[-1][0] + float(parts[-1][1].z[-1])
        z = np.linspace(0.0, top, _FINE)
        r = np.max([np.interp(z - f, o.z, o.r, left=0.0, right=0.0) for f, o in parts], axis=0)
        if self.solids[-1].open:
            r[-1] = float(parts[-1][1].r[-1])
        return Outline.through(r, z)

    def scaled(self, factor: float) -> Stack:
        """The same stack at another size."""
        return Stack(tuple(s.scaled(factor) for s in self.solids), self.neck)


def _height_above(outline: Outline, wide: float) -> float:
    """Height at which an outline has narrowed to `wide` above its widest place."""
    widest = int(np.argmax(outline.r))
    tail = np.flatnonzero(outline.r[widest:] <= wide)
    return float(outline.z[widest + tail[0]] if len(tail) else outline.z[-1])


def _height_below(outline: Outline, wide: float) -> float:
    """Height at which an outline first is `wide`."""
    return float(outline.z[np.flatnonzero(outline.r >= wide)[0]])
