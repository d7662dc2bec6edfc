"""Patterns from and to files in open formats: text, Markdown, JSON, CSV and SVG."""

from craft.exchange.export import FORMATS, count_table, export, reworded
from craft.exchange.imports import imported_text

__all__ = ["FORMATS", "count_table", "export", "imported_text", "reworded"]
