"""A translated text read by the notation, with everything at its place in the text as it was written."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator
from dataclasses import fields, is_dataclass, replace
from typing import Any

from craft.problems import Place, Problem, Span
from craft.rounds.stitches import Terms
from craft.text.freehand.lexicon import LANGUAGES
from craft.text.freehand.translation import Translation
from craft.text.notation import Reading, TermsFound, find_terms, read


class _Raw:
    """Places of the text as it was written, by places of its translation."""

    def __init__(self, text: str, translation: Translation) -> None:
        self.starts: list[int] = []
        self.spans = [line.span for line in translation.lines]
        at = 0
        for line in translation.lines:
            self.starts.append(at)
            at += len(line.text) + 1
        self.lines = [0, *(i + 1 for i, sign in enumerate(text) if sign == "\n")]

    def span(self, span: Span) -> Span:
        """The whole source line of what stands at a span of the translation."""
        return self.spans[max(bisect_right(self.starts, span.start) - 1, 0)]

    def number(self, at: int) -> int:
        """The number of the line, from 1, that a place stands on."""
        return bisect_right(self.lines, at)


def _moved(value: Any, move: Callable[[Span], Span]) -> Any:
    """A value with every span in it moved."""
    if isinstance(value, Span):
        return move(value)
    if isinstance(value, tuple):
        return tuple(_moved(v, move) for v in value)
    if is_dataclass(value) and not isinstance(value, type):
        return replace(value, **{f.name: _moved(getattr(value, f.name), move) for f in fields(value)})
    return value


def read_freehand(
    text: str, translation: Translation, yarns: tuple[str, ...] = (), pieces: tuple[str, ...] = ()
) -> Reading:
    """The reading of a text by its translation; all places are those of the text."""
    found = read(translation.text, Terms.US, yarns, pieces)
    raw = _Raw(text, translation)
    lines = tuple(
        replace(line, number=raw.number(raw.span(line.span).start), span=raw.span(line.span)) for line in found.lines
    )
    terms = _terms(text, translation)
    pattern = replace(_moved(found.pattern, raw.span), terms=terms.used)
    return Reading(pattern, terms, lines, tuple(_problem(p, raw) for p in found.problems))


def _terms(text: str, translation: Translation) -> TermsFound:
    """The terms of a text, with what tells them."""
    if translation.language != "en":
        return TermsFound(translation.terms, "inferred", f"the words are {LANGUAGES[translation.language].title()}")
    found = find_terms(text)
    if found.used is translation.terms:
        return found
    return TermsFound(translation.terms, "inferred", "the text says so, or its first round does")


def _problem(problem: Problem, raw: _Raw) -> Problem:
    span = raw.span(problem.place.span)
    place = replace(problem.place, line=raw.number(span.start), column=1, span=span)
    return Problem(problem.code, place, problem.message)


def judgements(translation: Translation, reading: Reading) -> Iterator[Problem]:
    """A hint for every round whose reading needed judgement, with its evidence, and what does not agree."""
    numbers = {line.span.start: line.number for line in reading.lines}
    for problem in translation.problems:
        place = replace(problem.place, line=numbers.get(problem.place.span.start, 1))
        yield replace(problem, place=place)
    for line in translation.lines:
        if line.why:
            label, _, work = line.text.partition(": ")
            place = Place(None, label, numbers.get(line.span.start, 1), 1, line.span)
            yield Problem("freehand", place, f"{label} is read as '{work}': {line.why}.")
