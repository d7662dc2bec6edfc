"""Whether a text agrees with itself beside its sums: its terms, its list of colours, the rounds that its eyes name, how it
counts repeats."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from craft.problems import Place, Problem
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import Step, StepKind
from craft.rounds.stitches import Terms
from craft.text import freehand
from craft.text.closed_flat import wrong_closings
from craft.text.eye_directions import rounds_named
from craft.text.notation import LineKind, Reading, odd_words
from craft.text.repeats_said import other_repeats
from craft.text.said_counts import other_counts

_OTHER = {Terms.US: "UK", Terms.UK: "US"}


def disagreements(
    text: str, reading: Reading, parts: Sequence[WorkedPart], translation: freehand.Translation | None = None
) -> Iterator[Problem]:
    """Everything that one place of a text says otherwise than another, at its place. translation: of a text that was
    read freehand."""
    yield from _terms(text, reading, translation)
    yield from _eyes(reading, parts)
    yield from _colours(reading, parts, translation)
    yield from _letters(text, parts)
    yield from other_counts(text, reading, parts)
    yield from other_repeats(text, reading, translation)
    yield from wrong_closings(reading, parts)


def _terms(text: str, reading: Reading, translation: freehand.Translation | None) -> Iterator[Problem]:
    """Words of the other terms, at the rounds in which they stand."""
    used = reading.found.used
    if used is Terms.LETTERS or (translation is not None and translation.language != "en"):
        return
    for line in reading.lines:
        if line.kind is not LineKind.ROUND:
            continue
        for word in dict.fromkeys(odd_words(text[line.span.start : line.span.end], used)):
            said = f"'{word}' is a word of {_OTHER[used]} terms, and this text is in {used.value.upper()} terms."
            yield Problem("odd-term", Place(None, None, line.number, 1, line.span), said)


def _eyes(reading: Reading, parts: Sequence[WorkedPart]) -> Iterator[Problem]:
    """Eyes between rounds that no part has."""
    most = max((t.number or 0 for part in parts for t in part.rounds), default=0)
    for part in reading.pattern.parts:
        for item in part.items:
            if isinstance(item, Step) and item.kind is StepKind.EYES and most:
                beyond = [n for n in rounds_named(item.text) if n > most]
                if beyond:
                    said = f"The eyes are placed at R{beyond[0]}, but no part has more than {most} rounds."
                    number = max((x.number for x in reading.lines if x.span.start <= item.span.start), default=1)
                    yield Problem("eyes-beyond", Place(part.name, None, number, 1, item.span), said)


def _colours(
    reading: Reading, parts: Sequence[WorkedPart], translation: freehand.Translation | None
) -> Iterator[Problem]:
    """Colours that are listed and never used; where no round names one, all is worked in what she has."""
    worked = {_plain(c) for part in parts for c in part.graph.colours}
    if not worked - {_plain(MAIN_COLOUR)}:
        return
    if translation is not None:
        listed = list(translation.colours)
    else:
        head = reading.pattern.entry("yarn") or ""
        listed = [c.strip() for c in re.split(r"[,;]", head) if c.strip()]
        listed += [
            c for line in reading.lines if line.kind is LineKind.NOTE for c in freehand.colours_listed(line.text)
        ]
    for colour in dict.fromkeys(listed[1:] if _plain(MAIN_COLOUR) in worked else listed):
        if not any(_plain(colour) in w or w in _plain(colour) for w in worked):
            said = f"{colour} is in the list of colours, and no round is worked in it."
            line = next((x for x in reading.lines if colour.lower() in x.text.lower()), reading.lines[0])
            yield Problem("unused-colour", Place(None, None, line.number, 1, line.span), said)


_IN_FRONT = re.compile(r"\(([A-Z])\)\s*(?=[\d(\[*]|inc|dec|sc)")
"""'(A) 9 sc': a colour before its work."""


def _letters(text: str, parts: Sequence[WorkedPart]) -> Iterator[Problem]:
    """Letters that rounds are worked in as colours, and that the text gives no colour to: 'with V', of A and B."""
    worked = {colour for part in parts for colour in part.graph.colours if len(colour) == 1} | set(
        _IN_FRONT.findall(text)
    )
    known = freehand.letters_of_colours(text) if worked else frozenset()
    for letter in sorted(worked - known) if known else ():
        number = next(
            (n for n, line in enumerate(text.splitlines(), 1) if re.search(rf"(?<!\w){letter}(?!\w)", line)), 1
        )
        said = f"{letter} is no colour of this text, which has {' and '.join(sorted(known))}."
        yield Problem("unlisted-colour", Place(None, None, number, 1), said)


def _plain(name: str) -> str:
    return re.sub(r"\W+", " ", name).strip().lower()
