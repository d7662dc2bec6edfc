"""A part's text in other terms, its words kept wherever only names have to change."""

from __future__ import annotations

from craft.errors import CraftError
from craft.problems import Span
from craft.rounds.pattern import Round
from craft.rounds.stitches import Terms
from craft.text.exchange.export import InTerms
from craft.text.notation import print_item, read

_UNCLEAR = frozenset({"unread", "bracket", "too-large"})


def converted(text: str, used: Terms, terms: Terms) -> str:
    """`text`, written in `used`, with the same meaning in `terms`.

    Between US and UK only the stitches' names change. To and from letters, rounds are printed anew; every other line
    stays as typed. CraftError when rounds are not understood, so that no word changes its meaning unseen.
    """
    if used is terms or not text.strip():
        return text
    reading = read(text, used)
    unclear = next((p for p in reading.problems if p.code in _UNCLEAR), None)
    if unclear is not None:
        raise CraftError(
            f"Line {unclear.place.line} is not understood, so it cannot be put into other terms: mend it first, or keep "
            "the rounds as they are typed."
        )
    words = InTerms(reading, text, terms)
    if words.possible:
        return words.said(Span(0, len(text)))
    edits = [
        (item.span, print_item(item, terms))
        for part in reading.pattern.parts
        for item in part.items
        if isinstance(item, Round)
    ]
    out, at = [], 0
    for span, said in sorted(edits, key=lambda e: e[0].start):
        out += [text[at : span.start], said]
        at = span.end
    return "".join([*out, text[at:]])
