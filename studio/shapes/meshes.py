"""Meshes brought in: read in a process of its own with limits, stood up, scaled, begun at a pole of her choice."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from craft.shape.target import Form, Shell
from studio.errors import Refusal
from studio.shapes.limited import answer_of
from studio.shapes.schemas import MeshOut

MOST_BYTES = 20 * 2**20
ENDINGS = ("obj", "stl", "ply", "glb")
_REFUSED = "This is no mesh that can be read; OBJ, STL, PLY and GLB are."
_SLOW = "That mesh takes too long to read, or too much memory: simplify it first."

POLES = {
    "foot": (0, 0, -1),
    "top": (0, 0, 1),
    "front": (0, -1, 0),
    "back": (0, 1, 0),
    "left": (-1, 0, 0),
    "right": (1, 0, 0),
}
"""Where rounds may begin: the corner that reaches farthest that way."""


def _read(raw: bytes, name: str) -> dict[str, Any]:
    ending = name.rsplit(".", 1)[-1].lower() if "." in name else ""
    if ending not in ENDINGS:
        raise Refusal(422, "invalid", _REFUSED, field="file")
    if len(raw) > MOST_BYTES:
        raise Refusal(422, "invalid", f"A mesh is at most {MOST_BYTES // 2**20} MB.", field="file")
    return answer_of("read_mesh.py", raw, ending, memory_mb=2_000, refused=_SLOW)


def mesh(raw: bytes, name: str, *, up: str, pole: str, height_mm: float) -> MeshOut:
    """A mesh file as a form. up: 'z' or 'y', which way is up in the file. pole: where rounds begin.

    Refusal for what cannot be read; CraftError for what is no single skin.
    """
    if not 0 < height_mm <= 2_000:
        raise Refusal(422, "invalid", "A shape is more than 0 and up to 2,000 mm tall.", field="height_mm")
    answer = _read(raw, name)
    x, faces = np.asarray(answer["x"], float), np.asarray(answer["faces"], np.int64)
    if up == "y":
        x = np.column_stack([x[:, 0], -x[:, 2], x[:, 1]])
    tall = float(np.ptp(x[:, 2]))
    if tall <= 0:
        raise Refusal(422, "invalid", "The mesh is flat: it has no height.", field="file")
    x = x * (height_mm / tall)
    begin = int(np.argmax(x @ np.asarray(POLES[pole], float)))
    return _told(Shell(_stood(x, pole, begin), faces, begin), list(answer["notes"]))


def begun_at(given: dict[str, Any], corner: int) -> MeshOut:
    """A mesh begun at another of its corners. CraftError for what is no mesh, or no corner of it."""
    form = Form.from_json({**given, "modifiers": []})
    if not isinstance(form.base, Shell):
        raise Refusal(422, "invalid", "Only a mesh begins where it is pointed at.", field="form")
    return _told(form.base.begun_at(corner), [])


def _told(shell: Shell, notes: list[str]) -> MeshOut:
    width, depth, height = shell.size_mm
    return MeshOut(
        form=Form(shell).to_json(),
        size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
        faces=len(shell.faces),
        notes=notes,
    )


def _stood(x: NDArray[np.float64], pole: str, begin: int) -> NDArray[np.float64]:
    """Turned so that the pole is at the foot. What looked forward then has its front on top, as a snout's is."""
    turns = {
        "foot": np.eye(3),
        "top": np.diag([-1.0, 1.0, -1.0]),
        "front": np.array([[1.0, 0, 0], [0, 0, -1.0], [0, 1.0, 0]]),
        "back": np.array([[-1.0, 0, 0], [0, 0, -1.0], [0, -1.0, 0]]),
        "left": np.array([[0, -1.0, 0], [0, 0, -1.0], [1.0, 0, 0]]),
        "right": np.array([[0, 1.0, 0], [0, 0, -1.0], [-1.0, 0, 0]]),
    }
    turned = x @ turns[pole].T
    stood: NDArray[np.float64] = turned - [*turned.mean(0)[:2], turned[begin, 2]]
    return stood
