"""Patterns as people write them, in six languages: put into the notation, with the evidence for every reading."""

from craft.text.freehand.placed import judgements, read_freehand
from craft.text.freehand.rounds import Line
from craft.text.freehand.source import sizes_in
from craft.text.freehand.translation import Translation, translated

__all__ = ["Line", "Translation", "judgements", "read_freehand", "sizes_in", "translated"]
