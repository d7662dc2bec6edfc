"""A whole text from words to verdict: read it, run every part, gather all problems in order."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from craft.fabric import manners
from craft.fabric.edges import Piece
from craft.fabric.run import MAIN_COLOUR, WorkedPart, run_part
from craft.notation import Reading, read, unexplained
from craft.pattern import Chain, Cluster, Colour, Edge, Onto, Part, Pattern, Repeat, Start, Turn, Work
from craft.problems import Place, Problem, Severity
from craft.stitches import Terms, stitch


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


def _begins(part: Part) -> bool:
    """Whether a part has a start of its own, or takes up an edge by name."""
    for made in part.rounds:
        for item in made.body:
            if isinstance(item, Start | Chain | Onto):
                return True
            if isinstance(item, Work | Repeat | Cluster):
                return any(stitch(w.stitch).foundation for w in (item,) if isinstance(w, Work))
    return False


def run_pattern(
    pattern: Pattern, yarns: tuple[str, ...] = (), colour: str = MAIN_COLOUR, pieces: Mapping[str, Piece] | None = None
) -> tuple[tuple[WorkedPart, ...], tuple[Problem, ...]]:
    """Run every part of a pattern; each may work in those before it.

    yarns: colours listed elsewhere than in the head block. colour: on the hook when a part begins.
    pieces: parts written elsewhere that these may work in, by name.
    """
    listed = manners.listed_colours(pattern) + yarns
    known: dict[str, Piece] = dict(pieces or {})
    parts: list[WorkedPart] = []
    problems: list[Problem] = []
    for part in pattern.parts:
        above = parts[-1] if parts else None
        goes_on = above is not None and not above.closed and (not _begins(part) or _leads_with_work(part))
        worked, found = run_part(part, colour, known, above.piece if above is not None and goes_on else None)
        parts.append(worked)
        if worked.name and worked.rounds:
            known[worked.name] = worked.piece
        problems += [*found, *_of_part(part, worked, listed)]
    return tuple(parts), tuple(problems)


def _leads_with_work(part: Part) -> bool:
    """Whether the first work is done on what is still on the hook: 'R9: 12 sc, ch 3, 12 sc around the first leg'."""
    body = next((r.body for r in part.rounds), ())
    first = next((i for i in body if not isinstance(i, Colour | Turn)), None)
    return isinstance(first, Work | Repeat) and any(isinstance(i, Onto) and i.edge is Edge.PIECE for i in body)


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
