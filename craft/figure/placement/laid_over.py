"""Two settled parts laid over each other where they start: how far one lies outside the other, and a picture of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.figure.picture import Faces
from craft.figure.placement.skin import Skin
from craft.figure.settling import signed_apart

Vector = NDArray[np.float64]

LEAST_MM = 2.0
"""The colours reach at least as far, so that what hardly differs looks so."""

_COLOURS = ("#1f4e79", "#4f83b5", "#9dbdd8", "#d6e2ea", "#f2ede0", "#f3dcbb", "#e8b06f", "#cf7a3a", "#9c4a1f")
"""From inside by way of alike to outside; told apart by lightness too."""


@dataclass(frozen=True)
class LaidOver:
    """A part held against an earlier or other one.

    apart: (n,) mm that every node of `skin` lies outside the other, negative inside. reach: mm at which colours end.
    """

    skin: Skin
    apart: Vector

    @property
    def reach(self) -> float:
        """Millimetres at which the colours end: all but the furthest fiftieth, up to a whole one."""
        return max(LEAST_MM, float(np.ceil(np.quantile(np.abs(self.apart), 0.98))))

    @property
    def out_mm(self) -> float:
        """Furthest outside."""
        return max(0.0, float(self.apart.max()))

    @property
    def in_mm(self) -> float:
        """Furthest inside."""
        return max(0.0, float(-self.apart.min()))

    @property
    def usual_mm(self) -> float:
        """Root mean square of all."""
        return float(np.sqrt(np.mean(self.apart**2)))

    def faces(self) -> Faces:
        """The part as it is, every stitch in the colour of its distance."""
        many = len(self.skin.colours)
        share = np.clip(self.apart[:many] / self.reach, -1, 1)
        level = np.round((share + 1) / 2 * (len(_COLOURS) - 1)).astype(np.int64)
        coloured = replace(self.skin, colours=level, yarns=_COLOURS)
        return coloured.faces(np.eye(4), _PALETTE)


_PALETTE: Mapping[str, str] = {c: c for c in _COLOURS}


def laid_over(now: Skin, was: Skin, spacing: float) -> LaidOver:
    """`now` held against `was`, both standing where their first round is. spacing: of samples on `was`, in mm."""
    return LaidOver(now, signed_apart(now.x, was.x, was.triangles, spacing))
