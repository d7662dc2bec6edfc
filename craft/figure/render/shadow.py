"""The soft shadow that a figure casts on the table: darker where it nearly touches, wide and faint where it is high."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import gaussian_filter

Vector = NDArray[np.float64]

CELLS = 128
BANDS = ((0.0, 0.06, 0.55), (0.06, 0.3, 0.30), (0.3, 1.0, 0.16))
"""Shares of the figure's height between which a band of it lies, and how dark its shadow is."""


def ground_shadow(points: Vector, floor: float) -> tuple[Vector, tuple[float, float, float]]:
    """Darkness (CELLS, CELLS) of 0 to 1 on a square of the table, rows along y; its corner x, y and its edge in mm.

    points: (n, 3) of the figure. floor: height of the table.
    """
    low, high = points[:, :2].min(0), points[:, :2].max(0)
    tall = max(float(points[:, 2].max()) - floor, 1.0)
    margin = 0.45 * max(tall, float((high - low).max()))
    edge = float((high - low).max()) + 2 * margin
    corner = (low + high) / 2 - edge / 2
    rise = (points[:, 2] - floor) / tall
    lit = np.ones((CELLS, CELLS))
    for least, most, dark in BANDS:
        own = points[(rise >= least) & (rise <= most)]
        if not len(own):
            continue
        # Light comes from the front, high on the left: what is high throws its shadow back to the right.
        away = own[:, :2] + (own[:, 2:3] - floor) * np.array([0.22, 0.28])
        at = np.clip(((away - corner) / edge * CELLS).astype(int), 0, CELLS - 1)
        spot = np.zeros((CELLS, CELLS))
        spot[at[:, 1], at[:, 0]] = 1.0
        wide = (0.5 * (least + most) * tall * 0.30 + 0.02 * edge) / edge * CELLS
        spread = gaussian_filter(gaussian_filter(spot, 1.6).clip(0, 0.25) * 4, wide)
        lit *= 1 - dark * spread.clip(0, 1)
    return 1 - lit, (float(corner[0]), float(corner[1]), edge)
