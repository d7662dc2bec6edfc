"""Where things lie. `SPIRREL_VAR` moves everything that is made at run time."""

from __future__ import annotations

import os
import shutil
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("SPIRREL_VAR") or ROOT / "var").resolve()
VENV = ROOT / ".venv"
FRONTEND = ROOT / "frontend"
DIST = FRONTEND / "dist"


def python() -> str:
    """The interpreter of the virtual environment."""
    return str(VENV / "bin" / "python")


def program(name: str) -> str:
    """Where a program lies, servers' folders included: Debian leaves those out of a user's PATH."""
    path = os.pathsep.join([os.environ.get("PATH", ""), "/usr/sbin", "/sbin"])
    return shutil.which(name, path=path) or name
