"""Reading what the command line is given: written text, JSON, CSV or a design, from a file or standard input."""

from __future__ import annotations

import sys
from dataclasses import dataclass
from pathlib import Path

from craft.design.brought import design_of
from craft.design.design import Design
from craft.design.stored import is_design, read_design
from craft.design.written import pattern_text
from craft.errors import CraftError
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.exchange import imported_text
from craft.text.notation import MOST_TEXT


@dataclass(frozen=True)
class Given:
    """A file read and run. design: as the file holds it, None for written rounds. text: as one written pattern."""

    name: str
    design: Design | None
    checked: Checked
    text: str

    @property
    def as_design(self) -> Design:
        """The file as a design, whatever it holds."""
        return self.design or design_of(self.checked, self.text, Path(self.name).stem)


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
    raw = read_bytes(name, MOST_TEXT * 4)
    if raw.lstrip()[:1] == b"{" and is_design(text := raw.decode("utf-8", "replace")):
        design = read_design(text)
        written = pattern_text(design)
        return Given(name, design, check(written, design.terms, design.yarn_names), written)
    text = imported_text(name, raw).text
    return Given(name, None, check(text, terms), text)


def read_checked(name: str, terms: Terms | None) -> tuple[Checked, str]:
    """Read and run a file in any form; with its written text."""
    given = read_given(name, terms)
    return given.checked, given.text
