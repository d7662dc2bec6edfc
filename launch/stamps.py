"""What is installed or built already: a stamp file beside it holds the digest of what it was made from."""

from __future__ import annotations

import hashlib
import sys
from collections.abc import Iterable
from pathlib import Path

from launch.paths import ROOT, VENV


def digest(paths: Iterable[Path]) -> str:
    """One digest of the names and contents of files."""
    total = hashlib.sha256()
    for path in sorted(paths):
        total.update(str(path.relative_to(ROOT)).encode())
        total.update(path.read_bytes())
    return total.hexdigest()


def current(stamp: Path, wanted: str) -> bool:
    """Whether the stamp says that nothing has to be made anew."""
    return stamp.is_file() and stamp.read_text(errors="replace") == wanted


def lock_stamp(name: str) -> tuple[Path, str]:
    """The stamp of a lock file's install, and what stands in it when it is up to date."""
    return VENV / f"{name}.stamp", digest([ROOT / name]) + sys.version.split()[0]


def has_packages(*, dev: bool = False) -> bool:
    """Whether the virtual environment holds the locked packages; those of development are more than the others."""
    wanted = ("requirements-dev.lock",) if dev else ("requirements-dev.lock", "requirements.lock")
    return any(current(*lock_stamp(name)) for name in wanted)
