"""A whole design as a file in an open format."""

from __future__ import annotations

from craft.design.design import Design as DesignValue
from craft.document.export import FORMATS, export
from craft.rounds.stitches import Terms, Tongue
from craft.text.check import check
from craft.text.notation import Wording
from studio.designs.models import Design
from studio.designs.reading import design_value

KINDS = {
    "text": "text/plain; charset=utf-8",
    "md": "text/markdown; charset=utf-8",
    "json": "application/json",
    "csv": "text/csv; charset=utf-8",
    "svg": "image/svg+xml",
}
"""Media types by format."""


def written_out(design: DesignValue) -> str:
    """The design as one written pattern: a head block, then every part under its heading, as typed."""
    parts = [f"# {p.name} (make {p.make})\n{p.text.strip()}\n" for p in design.parts]
    return "\n".join([_head(design), *parts])


def _head(design: DesignValue) -> str:
    lines = [f"Name: {design.name}", f"Terms: {_TERMS[design.terms]}"]
    if design.yarns:
        lines.append("Yarn: " + ", ".join(y.name for y in design.yarns))
    if design.gauge.hook_mm:
        lines.append(f"Hook: {design.gauge.hook_mm:g} mm")
    return "".join(f"{line}\n" for line in lines)


_TERMS = {Terms.US: "US", Terms.UK: "UK", Terms.LETTERS: "letters"}


def design_file(
    design: Design, to: str, terms: Terms | None, tongue: Tongue | None, *, spelled: bool, left: bool, tidy: bool
) -> tuple[str, str, str]:
    """Content, media type and file name of a design in the format `to`."""
    value = design_value(design)
    text = written_out(value)
    checked = check(text, value.terms, value.yarn_names)
    wording = Wording(terms or value.terms, spelled, tongue)
    content = export(checked, text, to, wording=wording, left=left, tidy=tidy)
    stem = "".join(c if c.isalnum() else "-" for c in design.name.lower()).strip("-") or "design"
    return content, KINDS[to], f"{stem}.{FORMATS[to]}"
