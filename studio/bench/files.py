"""A whole design as a file in an open format."""

from __future__ import annotations

from craft.design.stored import written
from craft.design.written import pattern_text
from craft.document.export import FORMATS, export
from craft.rounds.stitches import Language, Terms
from craft.text.check import check
from craft.text.notation import Wording
from studio.designs.models import Design
from studio.designs.reading import design_value
from studio.sent import stem_of

KINDS = {
    "text": "text/plain; charset=utf-8",
    "md": "text/markdown; charset=utf-8",
    "json": "application/json",
    "csv": "text/csv; charset=utf-8",
    "svg": "image/svg+xml",
}
"""Media types by format."""


def design_file(
    design: Design, to: str, terms: Terms | None, language: Language | None, *, spelled: bool, left: bool, tidy: bool
) -> tuple[str, str, str]:
    """Content, media type and file name of a design in the format `to`."""
    value = design_value(design)
    stem = stem_of(design.name, "design")
    if to == "design":
        return written(value), KINDS["json"], f"{stem}.design.json"
    text = pattern_text(value)
    checked = check(text, value.terms, value.yarn_names)
    wording = Wording(terms or value.terms, spelled, language)
    content = export(checked, text, to, wording=wording, left=left, tidy=tidy)
    return content, KINDS[to], f"{stem}.{FORMATS[to]}"
