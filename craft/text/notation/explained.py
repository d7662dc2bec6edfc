"""Words for stitches that a pattern uses, against its own list of abbreviations."""

from __future__ import annotations

import re
from collections.abc import Iterator

from craft.problems import Place, Problem, Span
from craft.rounds.stitches import stitch
from craft.text.notation.highlight import highlights
from craft.text.notation.reader import Reading
from craft.text.notation.terms import stitch_key

_STITCHES = ("stitch", "increase", "decrease")


def unexplained(reading: Reading, text: str) -> Iterator[Problem]:
    """Stitch words of `text` that its list of abbreviations does not name; silent without a list.

    A word is named by any spelling of its stitch, and written-out names need no explaining.
    """
    listed = " ".join(e.value.lower() for e in reading.pattern.head if e.key == "abbreviation")
    if not listed:
        return
    terms = reading.pattern.terms
    told: set[str] = set()
    for mark in highlights(reading):
        word = text[mark.start : mark.end]
        if mark.kind not in _STITCHES or len(word) > _LONGEST:
            continue
        key = stitch_key(word, terms)
        if key is None or key in told:
            continue
        spellings = (word.lower(), *stitch(key).spellings(terms))
        if not any(re.search(rf"(?<!\w){re.escape(w.lower())}(?!\w)", listed) for w in spellings):
            told.add(key)
            line = next(n for n in reversed(reading.lines) if n.span.start <= mark.start)
            place = Place(None, None, line.number, mark.start - line.span.start + 1, Span(mark.start, mark.end))
            yield Problem("unexplained", place, f"{word} is not in the list of abbreviations.")


_LONGEST = 9
"""Longer words are written out and need no list."""
