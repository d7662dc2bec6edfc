"""Reading what the command line is given: written text, JSON, CSV or a design, from a file or standard input."""

from __future__ import annotations

import importlib
import sys
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

from craft.errors import CraftError
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.exchange import MOST_FILE, imported_text

if TYPE_CHECKING:
    from craft.design.design import Design


TERMS = ("us", "uk", "letters")


@dataclass(frozen=True)
class Given:
    """A file read and run. design: as the file holds it, None for written rounds. text: as one written pattern."""

    name: str
    design: Design | None
    checked: Checked
    text: str


def read_bytes(name: str, most: int) -> bytes:
    """A file's bytes, or those of standard input for '-'; CraftError when it cannot be opened."""
    try:
        if name == "-":
            return sys.stdin.buffer.read(most + 1)
        with Path(name).open("rb") as file:
            return file.read(most + 1)
    except OSError as error:
        raise CraftError(f"{name}: {error.strerror or error}.") from None


def read_given(name: str, terms: Terms | None = None) -> Given:
    """Read and run a file in any form."""
    raw = read_bytes(name, MOST_FILE)
    if raw.lstrip()[:1] == b"{":
        # The whole design with all that it needs is loaded only for the file of one.
        found: Given | None = importlib.import_module("craft.cli.designs").given_design(name, raw)
        if found is not None:
            return found
    text = imported_text(name, raw).text
    return Given(name, None, check(text, terms), text)


def read_checked(name: str, terms: Terms | None) -> tuple[Checked, str]:
    """Read and run a file in any form; with its written text."""
    given = read_given(name, terms)
    return given.checked, given.text
