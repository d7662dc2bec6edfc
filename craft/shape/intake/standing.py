"""A mesh stood up, scaled, and begun at a pole of her choice."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.shape.target import Form, TriangleMesh
from craft.units import positive

POLES = {
    "foot": (0, 0, -1),
    "top": (0, 0, 1),
    "front": (0, -1, 0),
    "back": (0, 1, 0),
    "left": (-1, 0, 0),
    "right": (1, 0, 0),
}
"""Where rounds may begin: the corner that reaches farthest that way."""

_TURNS = {
    "foot": np.eye(3),
    "top": np.diag([-1.0, 1.0, -1.0]),
    "front": np.array([[1.0, 0, 0], [0, 0, -1.0], [0, 1.0, 0]]),
    "back": np.array([[-1.0, 0, 0], [0, 0, -1.0], [0, -1.0, 0]]),
    "left": np.array([[0, -1.0, 0], [0, 0, -1.0], [1.0, 0, 0]]),
    "right": np.array([[0, 1.0, 0], [0, 0, -1.0], [-1.0, 0, 0]]),
}
"""Turned so that the pole is at the foot. What looked forward then has its front on top, as a snout's is."""


def mesh_form(
    x: NDArray[np.float64], faces: NDArray[np.int64], height_mm: float, *, up: str = "z", pole: str = "foot"
) -> Form:
    """Corners and faces as a form so many mm tall. up: 'z' or 'y', which way is up in the file.

    CraftError for a mesh that is flat or no single skin.
    """
    positive(height_mm, "A shape's height", most=2_000, field="height_mm")
    if up == "y":
        x = np.column_stack([x[:, 0], -x[:, 2], x[:, 1]])
    tall = float(np.ptp(x[:, 2]))
    if tall <= 1e-9 * max(float(np.abs(x).max()), 1e-300):
        raise CraftError("The mesh is flat: it has no height.", field="file")
    x = x * (height_mm / tall)
    begin = int(np.argmax(x @ np.asarray(POLES[pole], float)))
    turned = x @ _TURNS[pole].T
    return Form(TriangleMesh(turned - [*turned.mean(0)[:2], turned[begin, 2]], faces, begin))
