"""Every line of a written text with what it was taken for, what was understood of it, and what is wrong with it."""

from __future__ import annotations

import re
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from craft.problems import Problem, Severity, Span
from craft.rounds.pattern import Part
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.freehand import Cut, Prose, Taken, cuts, explains, sections_of
from craft.text.notation import Line, LineKind, print_item


@dataclass(frozen=True, slots=True)
class SourceLine:
    """A row of the text: where it begins, its words, what it was taken for, and what came of it.

    understood: its rounds in the notation. problem: the gravest one there. corrected: she said what it is, or where
    it ends. joined: she said that it goes on in the next one.
    """

    line: int
    column: int
    span: Span
    text: str
    taken: Taken
    understood: str = ""
    problem: Problem | None = None
    corrected: bool = False
    joined: bool = False


_KINDS = {
    LineKind.HEADING: Taken.PART,
    LineKind.ROUND: Taken.ROUND,
    LineKind.WORK: Taken.ROUND,
    LineKind.COLOUR: Taken.COLOUR,
    LineKind.STEP: Taken.DIRECTION,
    LineKind.NOTE: Taken.NOTE,
}
_HEAD = {"name": Taken.TITLE, "terms": Taken.ABBREVIATIONS, "gauge": Taken.GAUGE}
_RANK = {Severity.FAULT: 0, Severity.WARNING: 1, Severity.HINT: 2}
MOST_EXPLAINED = 400
"""Code points of a line that may explain words."""

_WORKED = (Taken.ROUND, Taken.COLOUR)


def source_lines(text: str, checked: Checked) -> tuple[SourceLine, ...]:
    """All rows of a text that have words, in order."""
    if not checked.reading.lines:
        return ()  # a text beyond the limits is told so, and not looked at
    rows = [cut for cut in cuts(text, checked.corrections) if text[cut.span.start : cut.span.end].strip()]
    starts = [cut.span.start for cut in rows]
    meaning = _said(checked.reading.pattern.parts, checked.reading.pattern.terms)
    read: list[list[Line]] = [[] for _ in rows]
    for line in checked.reading.lines:
        for at in _rows_of(line.span, starts):
            read[at].append(line)
    empty = {
        part.span.start
        for part, worked in zip(checked.reading.pattern.parts, checked.parts, strict=True)
        if not worked.rounds
    }
    kinds = [cut.taken or _kind(lines, meaning, empty) for cut, lines in zip(rows, read, strict=True)]
    about = _about(text, rows, kinds, checked)
    worst = _worst(checked.problems, starts)
    return tuple(
        SourceLine(
            line=cut.line,
            column=cut.column,
            span=cut.span,
            text=text[cut.span.start : cut.span.end].strip(),
            taken=about[at] or kinds[at],
            understood=_understood(read[at], cut, meaning) if kinds[at] in _WORKED else "",
            problem=worst.get(at),
            corrected=cut.apart or cut.joined,
            joined=cut.joined,
        )
        for at, cut in enumerate(rows)
    )


def _rows_of(span: Span, starts: list[int]) -> range:
    """The rows that a place reaches over."""
    first = max(bisect_right(starts, span.start) - 1, 0)
    return range(first, max(first + 1, bisect_left(starts, span.end))) if starts else range(0)


def _said(parts: Sequence[Part], terms: Terms) -> dict[int, str]:
    """Every line's meaning in canonical words, by where it starts."""
    found: dict[int, str] = {}
    for part in parts:
        for item in part.items:
            printed = print_item(item, terms)
            found[item.span.start] = f"{found[item.span.start]}; {printed}" if item.span.start in found else printed
    return found


def _understood(lines: list[Line], cut: Cut, meaning: dict[int, str]) -> str:
    own = dict.fromkeys(line.span.start for line in lines if cut.span.start <= line.span.start < cut.span.end)
    return "; ".join(meaning[start] for start in own if start in meaning)


def _kind(lines: list[Line], meaning: dict[int, str], empty: set[int]) -> Taken:
    """What a row was read as: a round before all, then the heading of a part that has rounds. Nothing came of one
    that was passed over: a page's head, a table's rule."""
    kinds = {_kind_of(line, meaning, empty) for line in lines}
    return next((kind for kind in _FIRST if kind in kinds), Taken.NOTHING)


_FIRST = (
    *(Taken.ROUND, Taken.PART, Taken.COLOUR, Taken.TITLE, Taken.ABBREVIATIONS, Taken.MATERIALS, Taken.GAUGE),
    *(Taken.DIRECTION, Taken.NOTE),
)


def _kind_of(line: Line, meaning: dict[int, str], empty: set[int]) -> Taken:
    if line.kind is LineKind.HEAD:
        return _HEAD.get(line.name, Taken.MATERIALS)
    if line.kind is LineKind.WORK and line.span.start not in meaning:
        return Taken.NOTE
    if line.kind is LineKind.HEADING and line.span.start in empty:
        return Taken.NOTE
    return _KINDS[line.kind]


def _about(text: str, rows: list[Cut], kinds: list[Taken], checked: Checked) -> list[Taken | None]:
    """The sections that the rows of prose belong to; None for rounds and headings."""
    free = checked.translation
    language, terms = (free.language, free.terms) if free else ("en", checked.reading.pattern.terms)
    prose: list[Prose | None] = []
    for at, (cut, kind) in enumerate(zip(rows, kinds, strict=True)):
        words = text[cut.span.start : cut.span.end]
        if kind in (*_WORKED, Taken.PART):
            prose.append(None)
        else:
            page_head = at == 0 and kind is Taken.NOTHING and re.search(r"[^\W\d_]{3}", words) is not None
            own = Taken.NOTE if page_head and cut.taken is None else kind
            plain_prose = own in (Taken.NOTE, Taken.DIRECTION) and cut.taken is None
            tells = plain_prose and len(words) <= MOST_EXPLAINED and explains(words, language, terms)
            prose.append(Prose(words, own, at == 0, tells, plain_prose))
    return sections_of(prose, language)


def _worst(problems: Iterable[Problem], starts: list[int]) -> dict[int, Problem]:
    """The gravest problem of every row, the first of several."""
    worst: dict[int, Problem] = {}
    for problem in problems:
        if problem.place.span.end:
            at = _rows_of(problem.place.span, starts)[0]
            if at not in worst or _RANK[problem.severity] < _RANK[worst[at].severity]:
                worst[at] = problem
    return worst
