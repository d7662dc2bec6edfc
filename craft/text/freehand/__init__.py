"""Patterns as people write them, in six languages: put into the notation, with the evidence for every reading."""

from craft.text.freehand.corrections import NO_CORRECTIONS, Correction, Corrections, Taken
from craft.text.freehand.legend import colours_listed, explains
from craft.text.freehand.placed import judgements, read_freehand
from craft.text.freehand.rounds import Line
from craft.text.freehand.sections import Prose, sections
from craft.text.freehand.source import Cut, cuts, sizes_in
from craft.text.freehand.translation import Translation, translated

__all__ = [
    "NO_CORRECTIONS",
    "Correction",
    "Corrections",
    "Cut",
    "Line",
    "Prose",
    "Taken",
    "Translation",
    "colours_listed",
    "cuts",
    "explains",
    "judgements",
    "read_freehand",
    "sections",
    "sizes_in",
    "translated",
]
