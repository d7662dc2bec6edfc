"""A mesh file as corners and faces; what is safe to mend is mended, and said."""

from __future__ import annotations

import io
from dataclasses import dataclass

import numpy as np
import trimesh
from numpy.typing import NDArray

from craft.errors import CraftError, require

ENDINGS = ("obj", "stl", "ply", "glb")
KEPT = 12_000
"""Faces of a mesh that is worked with; more are gathered into fewer."""

FARTHEST = 1e7
"""Units from the origin at which a corner may lie: no file means more."""

UNREADABLE = "This is no mesh that can be read; OBJ, STL, PLY and GLB are."


@dataclass(frozen=True)
class MeshRead:
    """x: (n, 3) corners in the file's units. faces: (t, 3). notes: what was mended, in words."""

    x: NDArray[np.float64]
    faces: NDArray[np.int64]
    notes: tuple[str, ...]


def read_mesh(raw: bytes, ending: str) -> MeshRead:
    """The mesh of a file's bytes; references to other files are not followed. CraftError when it holds none."""
    if ending not in ENDINGS:
        raise CraftError(UNREADABLE, field="file")
    try:
        loaded = trimesh.load(io.BytesIO(raw), file_type=ending, force="mesh", resolver=None, skip_materials=True)
    except Exception:
        raise CraftError(UNREADABLE, field="file") from None
    if not isinstance(loaded, trimesh.Trimesh) or not len(loaded.faces):
        raise CraftError("There are no faces in that file.", field="file")
    corners = np.asarray(loaded.vertices, float)
    require(bool(np.isfinite(corners).all()), "A corner of the mesh lies nowhere.", field="file")
    require(float(np.abs(corners).max()) <= FARTHEST, "A corner of the mesh lies too far away.", field="file")
    try:
        return _mended(trimesh.Trimesh(corners, np.asarray(loaded.faces), process=True))
    except CraftError:
        raise
    except Exception:
        raise CraftError(UNREADABLE, field="file") from None


def _mended(mesh: trimesh.Trimesh) -> MeshRead:
    notes: list[str] = []
    before = len(mesh.faces)
    mesh.merge_vertices()
    mesh.update_faces(mesh.nondegenerate_faces())
    mesh.update_faces(mesh.unique_faces())
    mesh.remove_unreferenced_vertices()
    require(len(mesh.faces) > 0, "Every face of that mesh is without area.", field="file")
    if len(mesh.faces) < before:
        notes.append(f"{before - len(mesh.faces)} faces without area or told twice were left out.")
    if not mesh.is_watertight and trimesh.repair.fill_holes(mesh):
        notes.append("Small holes were closed.")
    if not mesh.is_winding_consistent:
        trimesh.repair.fix_normals(mesh)
        notes.append("Faces that looked inwards were turned round.")
    if mesh.is_watertight and mesh.volume < 0:
        mesh.invert()
    if len(mesh.faces) > KEPT:
        fewer = mesh.simplify_quadric_decimation(face_count=KEPT)
        notes.append(f"{len(mesh.faces):,} faces were gathered into {len(fewer.faces):,}.")
        mesh = fewer
    return MeshRead(np.asarray(mesh.vertices, float), np.asarray(mesh.faces, np.int64), tuple(notes))
