"""A whole text from words to verdict: read it, run every part, gather all problems in order."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from craft.problems import Place, Problem, Severity
from craft.rounds.fabric import MAIN_COLOUR, Piece, run_pattern
from craft.rounds.stitches import Terms
from craft.text import freehand
from craft.text.agreement import disagreements
from craft.text.checked import Checked, ordered
from craft.text.freehand.corrections import NO_CORRECTIONS, Corrections
from craft.text.left_out import may_tell_work, with_left_out
from craft.text.notation import Reading, read, unexplained
from craft.text.numbers_made import made_too_few
from craft.text.passed_over import with_passed_over
from craft.text.preferred import explains_more, is_plain, starts_at_fault

__all__ = ["Checked", "check"]


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
    corrections: Corrections = NO_CORRECTIONS,
) -> Checked:
    """Read and run `text`; any text at all gives an answer.

    What the notation does not read without a fault is read freehand, too; the reading that explains more is taken.
    terms: read in these; None finds them out. yarns: colours known beside the head block's.
    colour: on the hook when a part begins. pieces: parts written elsewhere, by name. corrections: what she says of
    lines that were misread; such a text is read freehand. CraftError for a word whose explanation is not understood.
    """
    known = tuple(pieces or ())
    run = _Run(text, yarns, colour, pieces, corrections)
    strict = run.checked(read(text, terms, yarns, known))
    told = with_passed_over(strict)
    plain = not corrections and is_plain(strict) and told is strict
    if plain and not may_tell_work(strict):
        return strict
    translation = freehand.translated(text, terms, known, corrections=corrections)
    if translation is None or (plain and with_left_out(strict, translation) is strict):
        return told
    free = run.checked(freehand.read_freehand(text, translation, yarns, known), translation)
    judged = (*free.problems, *freehand.judgements(translation, free.reading), *_other_sizes(run, text, terms, known))
    free = replace(free, problems=ordered(judged), translation=translation, corrections=corrections)
    counted = translation.counted or translation.counts(starts_at_fault(strict))
    free_is_taken = corrections or explains_more(free, strict, counted=counted)
    return with_passed_over(free) if free_is_taken else with_left_out(told, translation)


def _other_sizes(run: _Run, text: str, terms: Terms | None, known: tuple[str, ...]) -> Iterator[Problem]:
    """Faults that only another size of the pattern has."""
    for size in range(1, freehand.sizes_in(text)):
        translation = freehand.translated(text, terms, known, size, run.corrections)
        if translation is None:
            continue
        for problem in run.checked(freehand.read_freehand(text, translation, run.yarns, known)).problems:
            if problem.severity is Severity.FAULT:
                yield replace(problem, message=f"In size {size + 1}: {problem.message}")


@dataclass(frozen=True, slots=True)
class _Run:
    """What a reading is run with."""

    text: str
    yarns: tuple[str, ...]
    colour: str
    pieces: Mapping[str, Piece] | None
    corrections: Corrections

    def checked(self, reading: Reading, translation: freehand.Translation | None = None) -> Checked:
        parts, found = run_pattern(reading.pattern, self.yarns, self.colour, self.pieces)
        starts = [line.span.start for line in reading.lines]
        numbers = [line.number for line in reading.lines]
        told = (*reading.problems, *unexplained(reading, self.text))
        told = (*told, *made_too_few(reading.pattern))
        told = (*told, *disagreements(self.text, reading, parts, translation))
        if any(p.code == "odd-term" for p in told):
            told = tuple(p for p in told if p.code != "mixed-terms")
        problems = [*told, *(_placed(p, starts, numbers) for p in found)]
        if not any(part.rounds for part in parts) and not problems:
            problems.append(Problem("no-rounds", Place(), "No round was found: start one with 'R1: 6 sc in ring [6]'."))
        return Checked(reading, parts, ordered(problems))
