"""Reading what the command line is given: written text, JSON or CSV, from a file or standard input."""

from __future__ import annotations

import sys
from pathlib import Path

from craft.errors import CraftError
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.exchange import imported_text
from craft.text.notation import MOST_TEXT


def read_text(name: str) -> str:
    """The written pattern in a file, or in standard input for '-'; CraftError when it is not readable."""
    try:
        raw = sys.stdin.buffer.read(MOST_TEXT * 4 + 1) if name == "-" else _bytes(Path(name))
    except OSError as error:
        raise CraftError(f"{name}: {error.strerror or error}.") from None
    return imported_text(name, raw)


def _bytes(path: Path) -> bytes:
    with path.open("rb") as file:
        return file.read(MOST_TEXT * 4 + 1)


def read_checked(name: str, terms: Terms | None) -> tuple[Checked, str]:
    """Read and run a file in any form; with its written text."""
    text = read_text(name)
    return check(text, terms), text
