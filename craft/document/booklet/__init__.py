"""The written pattern as a tree, and as plain text and Markdown."""

from craft.document.booklet.compose import AssemblyLine, Manuscript, YarnLine, cautions, compose
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
    "RoundLine",
    "Rounds",
    "Section",
    "Steps",
    "YarnLine",
    "as_markdown",
    "as_text",
    "cautions",
    "compose",
]
