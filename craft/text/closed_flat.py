"""Stitches through both layers that a sentence tells, 'close with 9 sc through both layers': as many as the edge has pairs."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections.abc import Iterator, Sequence

from craft.problems import Place, Problem
from craft.rounds.fabric import WorkedPart
from craft.text.notation import LineKind, Reading

_LAYERS = (
    r"(?:through|thru|durch|à\s+travers|por|a\s+través\s+de|attraverso|door)\s+(?:both|beide|les\s+deux|ambas|ambos|las\s+dos|los\s+dos"
    r"|entrambi\s+(?:gli|i)|le\s+due|i\s+due)\s+(?:layers?|sides?|thicknesses|edges|lagen|seiten|épaisseurs|couches|capas|lados"
    r"|strati|lati|zijden)"
)
_STITCH = (
    r"(?:sc|dc|single\s+crochets?|double\s+crochets?|fm|feste\s+maschen|ms|m\.s\.|pb|p\.b\.|mb|m\.b\.|v|vasten)"
    r"(?![^\W\d_])\.?"
)
_CLOSES = re.compile(
    rf"(?i)(?<![\w.,-])(?P<before>\d{{1,3}})\s*{_STITCH}[^.;:\d]{{0,30}}{_LAYERS}"
    rf"|{_STITCH}\s+(?P<within>\d{{1,3}})\s+[^.;:\d]{{0,30}}{_LAYERS}"
    rf"|{_LAYERS}[^.;\d]{{0,20}}[:=,(\[]\s*(?P<behind>\d{{1,3}})\s*(?:{_STITCH}|sts?\b|stitches\b)?\s*[)\].]?\s*(?:$|[.,;])"
)
"""'close with 6 sc through both layers', 'sc 6 through both layers', 'sc through both layers: 6 sc'."""

_IN_PART = re.compile(r"(?i)\b(?:leav\w*|gap|until|except|first|next|of\s+the|only|lass\w*|bis|jusqu|hasta|fino|tot)\b")
"""Words that close less than the whole edge."""


def wrong_closings(reading: Reading, parts: Sequence[WorkedPart]) -> Iterator[Problem]:
    """Sentences that close the edge above them flat with another number of stitches than it has pairs.

    Two parts laid on each other are closed with as many as one of them has; an odd edge keeps one, or works it by itself.
    """
    tallies = sorted((t for part in parts for t in part.rounds), key=lambda t: t.span.start)
    starts = [t.span.start for t in tallies]
    worked = set(starts)
    headings = [line.span.start for line in reading.lines if line.kind is LineKind.HEADING]
    for line in reading.lines:
        told = line.kind in (LineKind.STEP, LineKind.NOTE, LineKind.WORK) and line.span.start not in worked
        found = _CLOSES.search(line.text) if told else None
        if found is None or _IN_PART.search(line.text):
            continue
        above = bisect_left(starts, line.span.start) - 1
        if above < 0 or any(starts[above] < at < line.span.start for at in headings):
            continue
        live, said = tallies[above].live, int(found["before"] or found["within"] or found["behind"])
        if said not in (live, live // 2, (live + 1) // 2):
            sentence = (
                f"{tallies[above].label} leaves {live} stitches, which close flat with {live // 2} through both layers; "
                f"this line says {said}."
            )
            yield Problem("sum", Place(None, tallies[above].label, line.number, 1, line.span), sentence)
