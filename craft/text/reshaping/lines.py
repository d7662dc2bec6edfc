"""Changes of whole lines: numbers in order after a line was moved, one repeat more or less."""

from __future__ import annotations

import re
from collections.abc import Iterator

from craft.errors import CraftError, require
from craft.problems import Span
from craft.rounds.pattern import Chain, Instruction, Repeat, Round, Section, Work
from craft.rounds.stitches import Terms, stitch
from craft.text.notation import read
from craft.text.notation.reader import Reading
from craft.text.notation.scanner import Line
from craft.text.reshaping.written import Edit, applied

_DIGITS = re.compile(r"\d+")


def renumbered(text: str, terms: Terms) -> str:
    """The text with its rounds numbered in order; ranges keep their length, and nothing but numbers changes.

    Rounds under a heading inside the part (a limb of a split) go on from where they went on before.
    """
    edits: list[Edit] = []
    next_number: int | None = None
    renamed: dict[int, int] = {}
    for line, item, begins in _labelled(text, terms):
        first, old_last = item.first or 0, item.last or 0
        if begins:
            next_number = 1 if next_number is None or first == 1 else renamed.get(first - 1, 0) + 1
        assert next_number is not None
        last = next_number + old_last - first
        renamed[old_last] = last
        edits += [Edit(span, str(n)) for span, n in _numbers(line, item, next_number, last)]
        next_number = last + 1
    return applied(text, edits)


def numberless(text: str, terms: Terms) -> list[str]:
    """The lines of the text with '#' for the number of their rounds, and behind it how many rounds more a range has:
    what a line is wherever it stands."""
    edits = [
        Edit(span, "#" if n == item.first else f"#+{n - (item.first or 0)}")
        for line, item, _ in _labelled(text, terms)
        for span, n in _numbers(line, item, item.first or 0, item.last or 0)
    ]
    return applied(text, edits).split("\n")


def _labelled(text: str, terms: Terms) -> Iterator[tuple[Line, Round, bool]]:
    """Every line with a numbered round, and whether it begins a part or stands first under a heading."""
    reading = read(text, terms)
    labels = {line.span.start: line for line in reading.lines if line.label is not None}
    for part in reading.pattern.parts:
        begins = True
        for item in part.items:
            if isinstance(item, Section):
                begins = True
            if not isinstance(item, Round) or item.first is None or item.last is None:
                continue
            line = labels.get(item.span.start)
            if line is None or line.label is None:
                continue
            yield line, item, begins
            begins = False


def _numbers(line: Line, made: Round, first: int, last: int) -> list[tuple[Span, int]]:
    """Where numbers stand in a label, and what they are for rounds `first` to `last`; a fold that is said behind the work
    has only the first one there."""
    assert line.label is not None
    start, end = line.label.span.start, line.label.span.end
    found = [Span(line.span.start + start + m.start(), line.span.start + start + m.end())
             for m in _DIGITS.finditer(line.text[start:end])]  # fmt: skip
    told = [first]
    if len(found) > 1 and line.label.last != line.label.first:
        told.append(last)
    if made.or_to is not None and len(found) > len(told):
        told.append(made.or_to + first - (made.first or first))
    return list(zip(found, told, strict=False))


def with_repeat(text: str, terms: Terms, at_line: int, by: int) -> str:
    """The text with the last repeat of the round on a line worked `by` times more, or its only number changed.

    CraftError when the line has no repeat with a number, and no number of stitches.
    """
    reading = read(text, terms)
    made = _round_on(reading, at_line)
    span, now = _repeat_number(made) or _stitch_number(text, made) or (None, 0)
    require(span is not None, "There is no repeat on this line to work more or less often.", field="line")
    assert span is not None
    return applied(text, [Edit(span, str(max(1, now + by)))])


def _round_on(reading: Reading, at_line: int) -> Round:
    starts = {line.span.start for line in reading.lines if line.number == at_line}
    for part in reading.pattern.parts:
        for item in part.rounds:
            if item.span.start in starts:
                return item
    raise CraftError("There is no round on that line.", field="line")


def _repeat_number(made: Round) -> tuple[Span, int] | None:
    """The number of the last repeat that stands outside of others."""
    for item in reversed(made.body):
        if isinstance(item, Repeat) and item.times is not None and item.times_span is not None:
            return made.within(item.times_span), item.times
    return None


def _stitch_number(text: str, made: Round) -> tuple[Span, int] | None:
    """The number of the first plain stitches that have one."""
    for item in made.body:
        if isinstance(item, Chain) or not _counted(item):
            continue
        assert isinstance(item, Work)
        whole = made.within(item.span)
        digits = _DIGITS.search(text[whole.start : whole.end])
        if digits:
            return Span(whole.start + digits.start(), whole.start + digits.end()), item.count
    return None


def _counted(item: Instruction) -> bool:
    return isinstance(item, Work) and stitch(item.stitch).change == 0


def is_folded(reading: Reading) -> bool:
    """Whether any line stands for several rounds."""
    return any(r.repeats > 1 for part in reading.pattern.parts for r in part.rounds)
