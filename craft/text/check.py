"""A whole text from words to verdict: read it, run every part, gather all problems in order."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Mapping
from dataclasses import dataclass, replace

from craft.problems import Place, Problem, faulty
from craft.rounds.fabric import MAIN_COLOUR, Piece, WorkedPart, run_pattern
from craft.rounds.stitches import Terms
from craft.text.notation import Reading, read, unexplained


@dataclass(frozen=True, slots=True)
class Checked:
    """A text that has been read and run; `problems` in the order of the text."""

    reading: Reading
    parts: tuple[WorkedPart, ...]
    problems: tuple[Problem, ...]

    @property
    def sound(self) -> bool:
        """No fault; warnings and hints may remain."""
        return not faulty(self.problems)


def _placed(problem: Problem, starts: list[int], numbers: list[int]) -> Problem:
    at = bisect_right(starts, problem.place.span.start) - 1
    if at < 0:
        return problem
    place = replace(problem.place, line=numbers[at], column=problem.place.span.start - starts[at] + 1)
    return replace(problem, place=place)


def check(
    text: str,
    terms: Terms | None = None,
    yarns: tuple[str, ...] = (),
    colour: str = MAIN_COLOUR,
    pieces: Mapping[str, Piece] | None = None,
) -> Checked:
    """Read and run `text`; any text at all gives an answer.

    terms: read in these; None finds them out. yarns: colours known beside the head block's.
    colour: on the hook when a part begins. pieces: parts written elsewhere, by name.
    """
    reading = read(text, terms, yarns, tuple(pieces or ()))
    parts, found = run_pattern(reading.pattern, yarns, colour, pieces)
    starts = [line.span.start for line in reading.lines]
    numbers = [line.number for line in reading.lines]
    problems = [*reading.problems, *unexplained(reading, text), *(_placed(p, starts, numbers) for p in found)]
    if not any(part.rounds for part in parts) and not problems:
        problems.append(Problem("no-rounds", Place(), "No round was found: start one with 'R1: 6 sc in ring [6]'."))
    problems.sort(key=lambda p: (p.place.span.start, p.place.span.end, p.code))
    return Checked(reading, parts, tuple(problems))
