"""Patterns from and to files that words make: text, Markdown, JSON and CSV, in and out."""

from craft.text.exchange.convert import converted
from craft.text.exchange.export import TEXT_FORMATS, InTerms, as_written, count_table, reworded
from craft.text.exchange.imports import MOST_FILE, imported_text
from craft.text.exchange.inert import markdown as inert_markdown

__all__ = [
    "MOST_FILE",
    "TEXT_FORMATS",
    "InTerms",
    "as_written",
    "converted",
    "count_table",
    "imported_text",
    "inert_markdown",
    "reworded",
]
