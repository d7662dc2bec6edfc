"""A line of a text, made plain."""

from __future__ import annotations

from dataclasses import dataclass

from craft.problems import Span
from craft.text.freehand.corrections import Taken


@dataclass(frozen=True, slots=True)
class Row:
    """A line made plain, and where in the raw text it stands. head: a part that a table's row belongs to.

    quiet: it is a page head or a table's rule, and says nothing. taken: what it is, where she said so.
    apart: she said that it is a row of its own. listed: it stands in a list of materials, or another section.
    bullet: it is an item of a list of many.
    """

    text: str
    span: Span
    head: str = ""
    quiet: bool = False
    taken: Taken | None = None
    apart: bool = False
    listed: bool = False
    bullet: bool = False
