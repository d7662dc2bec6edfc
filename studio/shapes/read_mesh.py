"""Run as a process of its own, with limits set by its parent: a mesh file in, corners and faces out.

Standard input: OBJ, STL, PLY or GLB. Argument: the ending. Standard output: one JSON object with `x`, `faces`,
`notes`, or `error`. Imports nothing of the studio; references to other files are not followed.
"""

import io
import json
import sys

import numpy as np
import trimesh

KEPT = 12_000


def main() -> int:
    """Read, mend what is safe to mend, and say so."""
    notes: list[str] = []
    try:
        loaded = trimesh.load(
            io.BytesIO(sys.stdin.buffer.read()), file_type=sys.argv[1], force="mesh", resolver=None, skip_materials=True
        )
        if not isinstance(loaded, trimesh.Trimesh) or not len(loaded.faces):
            return _say({"error": "There are no faces in that file."})
        loaded = trimesh.Trimesh(np.asarray(loaded.vertices, float), np.asarray(loaded.faces), process=True)
        if not np.isfinite(loaded.vertices).all():
            return _say({"error": "A corner of the mesh lies nowhere."})
        before = len(loaded.faces)
        loaded.merge_vertices()
        loaded.update_faces(loaded.nondegenerate_faces())
        loaded.update_faces(loaded.unique_faces())
        loaded.remove_unreferenced_vertices()
        if len(loaded.faces) < before:
            notes.append(f"{before - len(loaded.faces)} faces without area or told twice were left out.")
        if not loaded.is_watertight and trimesh.repair.fill_holes(loaded):
            notes.append("Small holes were closed.")
        if not loaded.is_winding_consistent:
            trimesh.repair.fix_normals(loaded)
            notes.append("Faces that looked inwards were turned round.")
        if loaded.is_watertight and loaded.volume < 0:
            loaded.invert()
        if len(loaded.faces) > KEPT:
            fewer = loaded.simplify_quadric_decimation(face_count=KEPT)
            notes.append(f"{len(loaded.faces):,} faces were gathered into {len(fewer.faces):,}.")
            loaded = fewer
    except Exception:
        return _say({"error": "This is no mesh that can be read; OBJ, STL, PLY and GLB are."})
    return _say({"x": loaded.vertices.tolist(), "faces": loaded.faces.tolist(), "notes": notes})


def _say(answer: dict[str, object]) -> int:
    json.dump(answer, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main())
