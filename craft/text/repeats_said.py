"""Whether a text counts its repeats one way: 'repeat 6 times' is six in all here, and six more elsewhere."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator

from craft.problems import Place, Problem
from craft.rounds.pattern import Repeat, Round
from craft.text import freehand
from craft.text.notation import LineKind, Reading

_MAY_REPEAT = re.compile(r"(?i)\b(?:rep|r[ée]p|wdh|wiederh|herh|rip)[^\n]*\d")
"""A text in which something may be repeated so many times; most need no closer look."""


def other_repeats(text: str, reading: Reading, translation: freehand.Translation | None) -> Iterator[Problem]:
    """Rounds whose 'repeat n times' fits only counted otherwise than that of most rounds of the text: the number may be a
    slip."""
    if _MAY_REPEAT.search(text) is None:
        return
    taken = list(_taken(text, reading, translation))
    beside = Counter(more for *_, more in taken)
    if len(beside) == 1 or not taken:
        return
    usual = beside[True] > beside[False]
    for number, round_, said, more in taken:
        if more is not usual:
            how = f"{said} more times" if more else f"{said} times in all"
            other = "in all" if more else "beside the first"
            words = f"R{round_.first} fits if it is repeated {how}, where most rounds here count {other}: is the number a slip?"
            yield Problem("repeats-otherwise", Place(None, f"R{round_.first}", number, 1, round_.span), words)


def _taken(
    text: str, reading: Reading, translation: freehand.Translation | None
) -> Iterator[tuple[int, Round, int, bool]]:
    """Rounds that have a line to themselves and say 'repeat n times': the line, the number, and whether it is n more."""
    language, terms = (
        ("en", reading.pattern.terms) if translation is None else (translation.language, translation.terms)
    )
    lines = {line.span.start: line for line in reading.lines if line.kind is LineKind.ROUND}
    rounds = [item for part in reading.pattern.parts for item in part.items if isinstance(item, Round)]
    alone = Counter(item.span.start for item in rounds)
    for item in rounds:
        line = lines.get(item.span.start)
        if line is None or alone[item.span.start] > 1:
            continue
        said = freehand.times_said(text[line.span.start : line.span.end], language, terms)
        made = {i.times for i in item.body if isinstance(i, Repeat)}
        if said is not None and (said in made) is not (said + 1 in made):
            yield line.number, item, said, said + 1 in made
