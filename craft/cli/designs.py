"""Files of whole designs, and any file as one."""

from __future__ import annotations

from pathlib import Path

from craft.cli.files import Given
from craft.design.brought import design_of
from craft.design.design import Design
from craft.design.stored import is_design, read_design
from craft.design.written import pattern_text
from craft.text.check import check


def given_design(name: str, raw: bytes) -> Given | None:
    """The file of a design read and run, None for any other JSON."""
    text = raw.decode("utf-8", "replace")
    if not is_design(text):
        return None
    design = read_design(text)
    written = pattern_text(design)
    return Given(name, design, check(written, design.terms, design.yarn_names), written)


def as_design(given: Given) -> Design:
    """The file as a design, whatever it holds."""
    return given.design or design_of(given.checked, given.text, Path(given.name).stem)
