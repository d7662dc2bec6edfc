"""A whole text from words to verdict: read it, run every part, gather all problems in order."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, replace

from craft.fabric import manners
from craft.fabric.run import MAIN_COLOUR, WorkedPart, run_part
from craft.notation import Reading, read
from craft.pattern import Part, Pattern
from craft.problems import Place, Problem, Severity
from craft.stitches import Terms


@dataclass(frozen=True, slots=True)
class Checked:
    """A text that has been read and run; `problems` in the order of the text."""

    reading: Reading
    parts: tuple[WorkedPart, ...]
    problems: tuple[Problem, ...]

    @property
    def sound(self) -> bool:
        """No fault; warnings and hints may remain."""
        return not any(p.severity is Severity.FAULT for p in self.problems)


def _placed(problem: Problem, starts: list[int], numbers: list[int]) -> Problem:
    at = bisect_right(starts, problem.place.span.start) - 1
    if at < 0:
        return problem
    place = replace(problem.place, line=numbers[at], column=problem.place.span.start - starts[at] + 1)
    return replace(problem, place=place)


def _of_part(part: Part, worked: WorkedPart, listed: tuple[str, ...]) -> Iterator[Problem]:
    yield from manners.numbering(part)
    yield from manners.order_of_work(part, worked)
    yield from manners.colours(part, listed)
    yield from manners.pieces(part)


def run_pattern(
    pattern: Pattern, yarns: tuple[str, ...] = (), colour: str = MAIN_COLOUR
) -> tuple[tuple[WorkedPart, ...], tuple[Problem, ...]]:
    """Run every part of a pattern.

    yarns: colours listed elsewhere than in the head block. colour: on the hook when a part begins.
    """
    listed = manners.listed_colours(pattern) + yarns
    parts: list[WorkedPart] = []
    problems: list[Problem] = []
    for part in pattern.parts:
        worked, found = run_part(part, colour)
        parts.append(worked)
        problems += [*found, *_of_part(part, worked, listed)]
    return tuple(parts), tuple(problems)


def check(text: str, terms: Terms | None = None, yarns: tuple[str, ...] = (), colour: str = MAIN_COLOUR) -> Checked:
    """Read and run `text`; any text at all gives an answer.

    terms: read in these; None finds them out. yarns: colours known beside the head block's.
    colour: on the hook when a part begins.
    """
    reading = read(text, terms)
    parts, found = run_pattern(reading.pattern, yarns, colour)
    starts = [line.span.start for line in reading.lines]
    numbers = [line.number for line in reading.lines]
    problems = [*reading.problems, *(_placed(p, starts, numbers) for p in found)]
    if not any(part.rounds for part in parts) and not problems:
        problems.append(Problem("no-rounds", Place(), "No round was found: start one with 'R1: 6 sc in ring [6]'."))
    problems.sort(key=lambda p: (p.place.span.start, p.place.span.end, p.code))
    return Checked(reading, parts, tuple(problems))
