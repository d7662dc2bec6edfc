"""Spans of a text for the editor: what each run of characters is."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from craft.remembered import of_short
from craft.rounds.pattern import Round
from craft.rounds.stitches import Terms, stitch
from craft.text.notation.reader import Reading
from craft.text.notation.scanner import LineKind, prose
from craft.text.notation.tails import tail_of
from craft.text.notation.terms import stitch_key, stitch_regex


@dataclass(frozen=True, slots=True)
class Highlight:
    """A run of the raw text (code points) and its kind, one of `KINDS`."""

    start: int
    end: int
    kind: str


KINDS = ("label", "stitch", "increase", "decrease", "number", "count", "colour", "step", "heading", "head", "note")
"""Kinds of highlights."""

_WHOLE = {
    LineKind.HEAD: "head",
    LineKind.HEADING: "heading",
    LineKind.STEP: "step",
    LineKind.COLOUR: "colour",
    LineKind.NOTE: "note",
}


@cache
def _words(terms: Terms) -> re.Pattern[str]:
    return re.compile(rf"(?i)(?P<s>(?<![A-Za-z]){stitch_regex(terms)})|(?P<n>\d+)")


@of_short(4_096)
def _body(text: str, terms: Terms) -> tuple[tuple[int, int, str], ...]:
    """Stitches and numbers of a body: start and end in it, and kind."""
    found: list[tuple[int, int, str]] = []
    for m in _words(terms).finditer(text):
        if word := m.group("s"):
            change = stitch(stitch_key(word, terms) or "sc").change
            kind = "increase" if change > 0 else "decrease" if change < 0 else "stitch"
        else:
            kind = "number"
        found.append((m.start(), m.end(), kind))
    return tuple(found)


def highlights(reading: Reading) -> tuple[Highlight, ...]:
    """Every highlight of a reading, in order and without overlap."""
    found: list[Highlight] = []
    worked = {item.span.start for part in reading.pattern.parts for item in part.items if isinstance(item, Round)}
    for line in reading.lines:
        start = line.span.start
        if line.label is None or (line.kind is LineKind.WORK and line.span.start not in worked):
            found.append(Highlight(start, line.span.end, _WHOLE.get(line.kind) or _WHOLE[prose(line).kind]))
            continue
        found.append(Highlight(start + line.label.span.start, start + line.label.span.end, "label"))
        at = start + line.label.body_at
        text = line.text[line.label.body_at :]
        tail = tail_of(text)
        found += [Highlight(at + a, at + b, k) for a, b, k in _body(text[: tail.body_end], reading.pattern.terms)]
        rest = [(s, k) for s, k in ((tail.count_span, "count"), (tail.remark, "step")) if s is not None]
        found += [
            Highlight(at + span.start, at + span.end, kind) for span, kind in sorted(rest, key=lambda r: r[0].start)
        ]
    return tuple(h for h in found if h.end > h.start)
