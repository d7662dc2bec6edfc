"""A whole design as a file in an open format."""

from __future__ import annotations

from craft.document.export import FORMATS, export
from craft.rounds.stitches import Terms, Tongue
from craft.text.check import check
from craft.text.notation import Wording
from studio.designs.manifest import Manifest
from studio.designs.models import Design
from studio.designs.reading import read_parts, yarn_names

KINDS = {
    "text": "text/plain; charset=utf-8",
    "md": "text/markdown; charset=utf-8",
    "json": "application/json",
    "csv": "text/csv; charset=utf-8",
    "svg": "image/svg+xml",
}
"""Media types by format."""


def written_out(design: Design) -> str:
    """The design as one written pattern: a head block, then every part under its heading, as typed."""
    manifest = design.manifest
    parts = [f"# {p.name} (make {p.make})\n{p.text.strip()}\n" for p in read_parts(design)]
    return "\n".join([_head(design.name, manifest), *parts])


def _head(name: str, manifest: Manifest) -> str:
    lines = [f"Name: {name}", f"Terms: {_TERMS[Terms(manifest.terms)]}"]
    if manifest.gauge.yarns:
        lines.append("Yarn: " + ", ".join(y.name for y in manifest.gauge.yarns))
    if manifest.gauge.hook_mm:
        lines.append(f"Hook: {manifest.gauge.hook_mm:g} mm")
    return "".join(f"{line}\n" for line in lines)


_TERMS = {Terms.US: "US", Terms.UK: "UK", Terms.LETTERS: "letters"}


def design_file(
    design: Design, to: str, terms: Terms | None, tongue: Tongue | None, *, spelled: bool, left: bool, tidy: bool
) -> tuple[str, str, str]:
    """Content, media type and file name of a design in the format `to`."""
    manifest = design.manifest
    text = written_out(design)
    checked = check(text, Terms(manifest.terms), yarn_names(manifest))
    wording = Wording(terms or Terms(manifest.terms), spelled, tongue)
    content = export(checked, text, to, wording=wording, left=left, tidy=tidy)
    stem = "".join(c if c.isalnum() else "-" for c in design.name.lower()).strip("-") or "design"
    return content, KINDS[to], f"{stem}.{FORMATS[to]}"
