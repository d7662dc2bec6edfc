"""The written pattern as a tree, and as plain text and Markdown."""

from craft.document.booklet.as_difference import TheBase, edition_as_difference
from craft.document.booklet.cautions import cautions
from craft.document.booklet.compose import compose, part_lines, step_said
from craft.document.booklet.document import (
    Block,
    Bullets,
    Cautions,
    CountTable,
    Document,
    Drawing,
    Facts,
    Paragraph,
    Picture,
    Pictures,
    RoundLine,
    Rounds,
    Section,
    Steps,
    as_markdown,
    as_text,
    block_lines,
)
from craft.document.booklet.editions import edition_for_all, edition_of
from craft.document.booklet.explained import Explained, explained_less
from craft.document.booklet.from_design import NOTHING, manuscript_of
from craft.document.booklet.manuscript import AssemblyLine, Imprint, Manuscript, Observed, PartLine, YarnLine
from craft.document.booklet.pictures import Kind, Level, Shown, at_level
from craft.document.booklet.prose import Prose, prose_of
from craft.document.booklet.terms import abbreviations
from craft.document.booklet.web_page import as_html

__all__ = [
    "NOTHING",
    "AssemblyLine",
    "Block",
    "Bullets",
    "Cautions",
    "CountTable",
    "Document",
    "Drawing",
    "Explained",
    "Facts",
    "Imprint",
    "Kind",
    "Level",
    "Manuscript",
    "Observed",
    "Paragraph",
    "PartLine",
    "Picture",
    "Pictures",
    "Prose",
    "RoundLine",
    "Rounds",
    "Section",
    "Shown",
    "Steps",
    "TheBase",
    "YarnLine",
    "abbreviations",
    "as_html",
    "as_markdown",
    "as_text",
    "at_level",
    "block_lines",
    "cautions",
    "compose",
    "edition_as_difference",
    "edition_for_all",
    "edition_of",
    "explained_less",
    "manuscript_of",
    "part_lines",
    "prose_of",
    "step_said",
]
