"""A checked pattern as a file in any format that is written."""

from __future__ import annotations

from craft.document.chart import chart_sheet
from craft.text.check import Checked
from craft.text.exchange import TEXT_FORMATS, as_written
from craft.text.notation import Wording, left_handed

FORMATS = {**TEXT_FORMATS, "svg": "svg"}
"""Formats by name, with the ending of their files."""


def export(
    checked: Checked, text: str, to: str, *, wording: Wording | None = None, left: bool = False, tidy: bool = False
) -> str:
    """The pattern in the format `to`; CraftError for one that is none. See `as_written` for what the others mean."""
    if to != "svg":
        return as_written(checked, text, to, wording=wording, left=left, tidy=tidy)
    pattern = checked.reading.pattern
    terms = wording.terms if wording else pattern.terms
    return chart_sheet(left_handed(pattern) if left else pattern, checked.parts, terms, left=left)
