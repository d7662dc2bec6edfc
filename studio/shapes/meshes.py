"""Meshes brought in: read in a process of its own with limits, stood up, scaled, begun at a pole of her choice."""

from __future__ import annotations

from typing import Any

import numpy as np

from craft.shape.intake import ENDINGS, mesh_form
from craft.shape.intake.mesh import UNREADABLE
from craft.shape.stored import form_json, form_of
from craft.shape.target import Form, TriangleMesh
from studio.designs.recipes import MeshForm
from studio.errors import Refusal
from studio.shapes.limited import answer_of
from studio.shapes.schemas import MeshOut

MOST_BYTES = 20 * 2**20
_SLOW = "That mesh takes too long to read, or too much memory: simplify it first."


def _read(raw: bytes, name: str) -> dict[str, Any]:
    ending = name.rsplit(".", 1)[-1].lower() if "." in name else ""
    if ending not in ENDINGS:
        raise Refusal(422, "invalid", UNREADABLE, field="file")
    if len(raw) > MOST_BYTES:
        raise Refusal(422, "invalid", f"A mesh is at most {MOST_BYTES // 2**20} MB.", field="file")
    return answer_of("mesh", raw, ending, memory_mb=2_000, refused=_SLOW)


def mesh(raw: bytes, name: str, *, up: str, pole: str, height_mm: float) -> MeshOut:
    """A mesh file as a form. up: 'z' or 'y', which way is up in the file. pole: where rounds begin.

    Refusal for what cannot be read; CraftError for what is no single skin.
    """
    answer = _read(raw, name)
    x, faces = np.asarray(answer["x"], float), np.asarray(answer["faces"], np.int64)
    form = mesh_form(x, faces, height_mm, up=up, pole=pole)
    assert isinstance(form.base, TriangleMesh)
    return _mesh_out(form.base, list(answer["notes"]))


def begun_at(given: MeshForm, corner: int) -> MeshOut:
    """A mesh begun at another of its corners. CraftError for one that is damaged, or has no such corner."""
    base = form_of(given.model_dump(mode="json")).base
    assert isinstance(base, TriangleMesh)
    return _mesh_out(base.begun_at(corner), [])


def _mesh_out(mesh: TriangleMesh, notes: list[str]) -> MeshOut:
    width, depth, height = mesh.size_mm
    return MeshOut(
        form=MeshForm.model_validate(form_json(Form(mesh))),
        size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
        faces=len(mesh.faces),
        notes=notes,
    )
