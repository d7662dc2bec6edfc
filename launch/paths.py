"""Where things lie. `SPIRREL_VAR` moves everything that is made at run time."""

from __future__ import annotations

import os
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("SPIRREL_VAR") or ROOT / "var").resolve()
VENV = ROOT / ".venv"
FRONTEND = ROOT / "frontend"
DIST = FRONTEND / "dist"


def python() -> str:
    """The interpreter of the virtual environment."""
    return str(VENV / "bin" / "python")
