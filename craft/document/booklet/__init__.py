"""The written pattern as a tree, and as plain text and Markdown."""

from craft.document.booklet.compose import AssemblyLine, Manuscript, PartLine, YarnLine, cautions, compose
from craft.document.booklet.document import (
    Block,
    Bullets,
    Cautions,
    CountTable,
    Document,
    Facts,
    Paragraph,
    RoundLine,
    Rounds,
    Section,
    Steps,
    as_markdown,
    as_text,
)
from craft.document.booklet.manuscript import counted, manuscript_of, place_said

__all__ = [
    "AssemblyLine",
    "Block",
    "Bullets",
    "Cautions",
    "CountTable",
    "Document",
    "Facts",
    "Manuscript",
    "Paragraph",
    "PartLine",
    "RoundLine",
    "Rounds",
    "Section",
    "Steps",
    "YarnLine",
    "as_markdown",
    "as_text",
    "cautions",
    "compose",
    "counted",
    "manuscript_of",
    "place_said",
]
