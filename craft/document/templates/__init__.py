"""True-size templates: what is cut, laid in or stitched along a line, on pages with a bar and a card to check the print."""

from craft.document.templates.pieces import LEAST_MM, Template, templates_of
from craft.document.templates.pieces import Kind as TemplateKind
from craft.document.templates.sheets import BAR_MM, CARD_MM, SHEETS, Sheet, sheets_of, svg_of

__all__ = [
    "BAR_MM",
    "CARD_MM",
    "LEAST_MM",
    "SHEETS",
    "Sheet",
    "Template",
    "TemplateKind",
    "sheets_of",
    "svg_of",
    "templates_of",
]
