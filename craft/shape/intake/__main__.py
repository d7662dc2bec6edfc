"""Run as a process of its own, with limits set by its parent: `mesh ENDING` or `drawing`, a file on standard input.

Prints one JSON object: what was read, or `error` with a sentence.
"""

from __future__ import annotations

import json
import sys
from collections.abc import Sequence
from typing import Any

from craft.errors import CraftError
from craft.shape.intake.drawing import read_drawing
from craft.shape.intake.mesh import read_mesh


def _mesh(raw: bytes, ending: str) -> dict[str, Any]:
    found = read_mesh(raw, ending)
    return {"x": found.x.tolist(), "faces": found.faces.tolist(), "notes": list(found.notes)}


def _drawing(raw: bytes) -> dict[str, Any]:
    found = read_drawing(raw)
    sides = {name: [round(v, 3) for v in getattr(found, name).tolist()] for name in ("rows", "left", "right")}
    return {**sides, "section": found.section, "mm": found.mm, "notes": list(found.notes)}


def main(words: Sequence[str]) -> int:
    """Read standard input as it is said to be."""
    raw = sys.stdin.buffer.read()
    try:
        answer = _mesh(raw, words[1]) if words[0] == "mesh" else _drawing(raw)
    except CraftError as error:
        answer = {"error": error.message}
    json.dump(answer, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
