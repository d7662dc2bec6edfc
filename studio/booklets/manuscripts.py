"""A stored design as the document of its booklet."""

from __future__ import annotations

from datetime import date

from craft.document.booklet import Document, compose, manuscript_of
from craft.rounds.stitches import Terms
from studio.bench import scenes
from studio.designs.models import Design
from studio.designs.reading import read_design


def document(design: Design, designer: str, terms: Terms) -> Document:
    """The booklet of a design as a tree."""
    read = read_design(design)
    return compose(manuscript_of(read.value, read.parts, designer, terms, date.today().isoformat()))


def cover(design: Design) -> str:
    """The figure on the cover, as SVG."""
    return scenes.picture(design.owner, design, design.name)[0]
