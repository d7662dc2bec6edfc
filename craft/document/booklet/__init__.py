"""The written pattern as a tree, and as plain text and Markdown."""

from craft.document.booklet.as_difference import TheBase, edition_as_difference
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
    block_lines,
)
from craft.document.booklet.editions import Imprint, edition_for_all, edition_of
from craft.document.booklet.manuscript import manuscript_of
from craft.document.booklet.web_page import as_html

__all__ = [
    "AssemblyLine",
    "Block",
    "Bullets",
    "Cautions",
    "CountTable",
    "Document",
    "Facts",
    "Imprint",
    "Manuscript",
    "Paragraph",
    "PartLine",
    "RoundLine",
    "Rounds",
    "Section",
    "Steps",
    "TheBase",
    "YarnLine",
    "as_html",
    "as_markdown",
    "as_text",
    "block_lines",
    "cautions",
    "compose",
    "edition_as_difference",
    "edition_for_all",
    "edition_of",
    "manuscript_of",
]
