"""What the application is made of: a bill of its parts in CycloneDX, and the licences of its Python packages as a table.

Both are written by their own tools from the lock files; nothing is asked of any registry.
"""

from __future__ import annotations

import re
import subprocess
import sys
from pathlib import Path

from launch import tools
from launch.paths import FRONTEND, ROOT, VAR, VENV, python
from launch.say import say

LOCK = ROOT / "requirements.lock"
TABLE = ROOT / "docs" / "licences.md"

HEAD = """# Licences of what the server runs on

Written by `./spirrel supply` from `requirements.lock`, as each package states it. What is built into the pages has its
notices in `/third-party-notices.txt` of the built application, typefaces their licences beside them. `mysqlclient` (GPL 2
or later) and `pyphen` (GPL, LGPL or MPL, as one chooses) are used as they are and are not changed; whoever hands the
server on, and does not only run it, reads these two first. This is no advice on law.

"""


def locked(lock: Path = LOCK) -> dict[str, str]:
    """Versions of a lock file's packages, by their names in plain form."""
    found = re.findall(r"(?m)^([A-Za-z0-9_.-]+)==(\S+)", lock.read_text("utf-8"))
    return {plain_name(name): version for name, version in found}


def plain_name(name: str) -> str:
    """A package's name as indexes compare it: small, with one hyphen for every other sign."""
    return re.sub(r"[-_.]+", "-", name).lower()


def table() -> str:
    """The licences of the locked packages as a table in Markdown."""
    line = [python(), "-m", "piplicenses", "--from=mixed", "--format=markdown", "--packages", *locked()]
    return subprocess.run(line, cwd=ROOT, capture_output=True, text=True, check=True).stdout


def bill(to: Path) -> tuple[Path, Path]:
    """Write the bills of the Python side and of the pages into a folder; their files."""
    to.mkdir(parents=True, exist_ok=True)
    own, web = to / "python.cdx.json", to / "web.cdx.json"
    words = ["requirements", str(LOCK), "--pyproject", "pyproject.toml", "--output-reproducible", "--validate"]
    line = [str(VENV / "bin" / "cyclonedx-py"), *words, "-o", str(own)]
    subprocess.run(line, cwd=ROOT, check=True, stderr=subprocess.DEVNULL)
    subprocess.run(
        [python(), "-m", "launch.web_bill", str(FRONTEND / "package-lock.json"), str(web)], cwd=ROOT, check=True
    )
    return own, web


def run(to: str | None) -> int:
    """Write both anew, the bills into `to` or a folder of their own; 0 when that went well."""
    tools.virtual_environment(dev=True)
    TABLE.write_text(HEAD + table(), "utf-8")
    say(f"wrote {TABLE.relative_to(ROOT)}")
    for file in bill(Path(to) if to else VAR / "supply"):
        print(file, file=sys.stdout)
    return 0
