"""Words of hers in files that other programs open: they stay words there, and never become a formula or a page's code."""

from __future__ import annotations

import re

_FORMULA = re.compile(r"^[=+\-@\t\r]")
_GUARDED = re.compile(r"^'(?=[=+\-@\t\r])")
_CODE = re.compile(r"<(?=[A-Za-z/!?])|\](?=\()")


def cell(text: str) -> str:
    """A text as a cell of a table: one that a spreadsheet would take for a formula is marked as text."""
    return f"'{text}" if _FORMULA.match(text) else text


def from_cell(text: str) -> str:
    """What was written into a cell."""
    return _GUARDED.sub("", text)


def markdown(text: str) -> str:
    """Markdown whose words hold no tag and no address that would run."""
    return _CODE.sub(lambda found: "\\" + found.group(), text)


def from_markdown(text: str) -> str:
    """What was written before it was made inert."""
    return re.sub(r"\\(?=<[A-Za-z/!?]|\]\()", "", text)
