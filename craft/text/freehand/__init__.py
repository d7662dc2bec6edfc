"""Patterns as people write them, in six languages: put into the notation, with the evidence for every reading.

What this door offers is loaded with its first use: most texts are in the notation, and need none of it.
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from craft.text.freehand.carried_on import tells_plain_rounds, tells_rounds
    from craft.text.freehand.corrections import NO_CORRECTIONS, Correction, Corrections, Taken
    from craft.text.freehand.counts_told import UNIT, clauses_told
    from craft.text.freehand.headings import heading_of
    from craft.text.freehand.labels import label_at
    from craft.text.freehand.legend import colours_listed, explains, letters_of_colours, piece_phrases
    from craft.text.freehand.lexicon import language_of, stitch_words
    from craft.text.freehand.measured import is_measured
    from craft.text.freehand.placed import judgements, read_freehand
    from craft.text.freehand.repeats import times_said
    from craft.text.freehand.sections import Prose, sections_of
    from craft.text.freehand.so_far import Line
    from craft.text.freehand.source import Cut, cuts, sizes_in
    from craft.text.freehand.telling import tells_work
    from craft.text.freehand.translation import Translation, translated

_FROM = {
    "Correction": "corrections",
    "Corrections": "corrections",
    "Cut": "source",
    "Line": "rounds",
    "NO_CORRECTIONS": "corrections",
    "Prose": "sections",
    "Taken": "corrections",
    "Translation": "translation",
    "UNIT": "counts_told",
    "clauses_told": "counts_told",
    "colours_listed": "legend",
    "cuts": "source",
    "explains": "legend",
    "heading_of": "headings",
    "is_measured": "measured",
    "judgements": "placed",
    "label_at": "labels",
    "language_of": "lexicon",
    "letters_of_colours": "legend",
    "piece_phrases": "legend",
    "read_freehand": "placed",
    "sections_of": "sections",
    "sizes_in": "source",
    "stitch_words": "lexicon",
    "tells_plain_rounds": "carried_on",
    "tells_rounds": "carried_on",
    "tells_work": "telling",
    "times_said": "repeats",
    "translated": "translation",
}
"""Where every name of this door stands."""

__all__ = [
    "NO_CORRECTIONS",
    "UNIT",
    "Correction",
    "Corrections",
    "Cut",
    "Line",
    "Prose",
    "Taken",
    "Translation",
    "clauses_told",
    "colours_listed",
    "cuts",
    "explains",
    "heading_of",
    "is_measured",
    "judgements",
    "label_at",
    "language_of",
    "letters_of_colours",
    "piece_phrases",
    "read_freehand",
    "sections_of",
    "sizes_in",
    "stitch_words",
    "tells_plain_rounds",
    "tells_rounds",
    "tells_work",
    "times_said",
    "translated",
]


def __getattr__(name: str) -> Any:
    if name not in _FROM:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    return getattr(importlib.import_module(f"{__name__}.{_FROM[name]}"), name)
