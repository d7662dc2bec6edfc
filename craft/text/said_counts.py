"""Counts that a text says of its rounds in words of its own, 'On obtient 7 m.', 'Total stitches: 18': none may be another."""

from __future__ import annotations

import itertools
import re
from bisect import bisect_left
from collections.abc import Iterator, Sequence
from functools import cache

from craft.problems import Place, Problem
from craft.rounds.fabric import Tally, WorkedPart
from craft.text import freehand
from craft.text.notation import LineKind, Reading

MOST_BEHIND = 2
"""Lines behind a round's own in which its count is looked for."""


@cache
def _signs() -> re.Pattern[str]:
    """A count in a bracket of its own, behind a sign, or alone on a line or in the last column."""
    return re.compile(
        rf"(?im)[\[({{<]\s*(?:(?:=|je|each|jeweils|chacun|cada\s+una|ognuno|elk)\s*[:=]?\s*)?(?P<bracket>\d{{1,4}})(?:\s*{freehand.UNIT})?\s*[\])}}>]"
        r"(?=\s*(?:[.;,!]|$))"
        r"|\b(?:through|durch|par|attraverso|por|door)\b[^.\n]{0,30}\b(?:remaining|rem|last|final|restlichen|letzten|restantes|rimanenti"
        r"|restanti|laatste|resterende)\s+(?P<gathered>\d{1,3})(?!\d)(?!\s*(?:cm|mm|rounds|rnds|rows))"
        rf"|(?:(?<=\s)[-–—]\s|=)\s*(?P<ended>\d{{1,4}})(?:\s*{freehand.UNIT})?\s*\.?\s*$"
        r"|(?:^|\|)\s*(?P<alone>\d{1,4})\s*\|?\s*$"
    )


_NAMED = re.compile(r"[^\W\d_]\W*[\[({<]\s*\d{1,4}\s*[\])}>]\W*$")
"""'eye lumps (2)': a line behind a round that is a name with its number, and says no count."""

_NUMBER = re.compile(r"\W{0,4}\d{1,3}(?:\s*-\s*\d{1,3})?\s*[)\].:}]")
"""'(1)', '[2]': what is no count, at the start of a line."""


def other_counts(text: str, reading: Reading, parts: Sequence[WorkedPart]) -> Iterator[Problem]:
    """Rounds whose count is said behind their work, and is another than their stitches make.

    What the reader takes for a round's count is checked as the round is worked; this is about those that it took for a
    remark, because the work fits without them.
    """
    tallies = sorted((t for part in parts for t in part.rounds), key=lambda t: t.span.start)
    starts = [t.span.start for t in tallies]
    begun = [line for line in reading.lines if line.kind in (LineKind.ROUND, LineKind.HEADING, LineKind.WORK)]
    for line, below in itertools.zip_longest(begun, begun[1:]):
        at, to = bisect_left(starts, line.span.start), bisect_left(starts, max(line.span.end, line.span.start + 1))
        if line.kind is not LineKind.ROUND or at == to:
            continue
        behind = text[line.span.end : below.span.start if below is not None else len(text)]
        said = _other(text[line.span.start : line.span.end], behind, tallies[at:to])
        if said is None:
            continue
        if freehand.sizes_in(text) > 1:
            return
        label = tallies[to - 1].label
        sentence = f"{label} makes {tallies[to - 1].live}, and the words behind it say {said}."
        yield Problem("sum", Place(None, label, line.number, 1, line.span), sentence)


def _other(own: str, behind: str, worked: Sequence[Tally]) -> int | None:
    """A count that a line, or the few behind it up to a blank one, says of its rounds, and that none of them has."""
    known = {n for t in worked for n in (t.live, t.made, t.taken, t.stated)}
    lines = behind.partition("\n\n")[0].split("\n", MOST_BEHIND + 1)[: MOST_BEHIND + 1]
    near = _said("\n".join(line for line in lines if not _NAMED.search(line)))
    if near and not known & set(near):
        return near[-1]
    told = _said_in(own)
    if not told or told[-1][0] in known:
        return None
    if worked[-1].stated == worked[-1].live and own[told[-1][1] :].strip(" .)]}"):
        return None  # 'sc around leg two (12), sc around leg one (12) / 24': those before the last are of the work
    label, number = freehand.label_at(own), _NUMBER.match(own)
    at = label.end if label is not None else number.end() if number is not None else max(len(own) - _TAIL, 0)
    found = _said(own[at:])
    return found[-1] if found and not known & set(found) else None


def _said(words: str) -> list[int]:
    return [count for count, _ in _said_in(words)]


def _said_in(words: str) -> list[tuple[int, int]]:
    """The counts that words say, in signs or in sentences of any language, each with where it ends."""
    signs = ((int(next(n for n in m.groups() if n)), m.end()) for m in _signs().finditer(words))
    clauses = ((told.count, told.end) for told in freehand.clauses_told(words) if told.count >= LEAST_TOLD)
    return sorted({*signs, *clauses}, key=lambda said: said[1])


LEAST_TOLD = 3
"""Stitches that a sentence tells, and no article."""

_TAIL = 14
"""Code points at the end of a line without a label in which a bracket is a count: 'Repeat row 2 once more. [12 sc]'."""
