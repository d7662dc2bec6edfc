"""Reading what the command line is given: written text or the JSON form, from a file or standard input."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from craft.errors import CraftError
from craft.fabric import Checked, check, run_pattern
from craft.notation import MOST_TEXT, print_pattern
from craft.pattern import from_json
from craft.stitches import Terms


def read_text(name: str) -> str:
    """The text of a file, of standard input for '-'; CraftError when it is not readable UTF-8 text."""
    try:
        raw = sys.stdin.buffer.read(MOST_TEXT * 4 + 1) if name == "-" else _bytes(Path(name))
    except OSError as error:
        raise CraftError(f"{name}: {error.strerror or error}.") from None
    if len(raw) > MOST_TEXT * 4:
        raise CraftError(f"{name}: a text is at most {MOST_TEXT:,} characters long.")
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise CraftError(f"{name}: byte {error.start + 1} is not UTF-8 text.") from None
    if "\0" in text:
        raise CraftError(f"{name}: this is no text; it holds zero bytes.")
    return text


def _bytes(path: Path) -> bytes:
    with path.open("rb") as file:
        return file.read(MOST_TEXT * 4 + 1)


def read_checked(name: str, terms: Terms | None) -> Checked:
    """Read and run a file in either form; a JSON pattern is run as it prints."""
    text = read_text(name)
    if text.lstrip().startswith("{"):
        try:
            pattern = from_json(json.loads(text))
        except (json.JSONDecodeError, RecursionError) as error:
            raise CraftError(f"{name}: not readable JSON: {error}.") from None
        run_pattern(pattern)
        return check(print_pattern(pattern))
    return check(text, terms)
