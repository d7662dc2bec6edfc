"""Which of two readings of a text is taken: the notation's, or the freehand one."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator

from craft.problems import Place, Severity
from craft.rounds.pattern import Note, Round, Work
from craft.rounds.stitches import Loops
from craft.text import freehand
from craft.text.checked import Checked
from craft.text.notation import LineKind, print_round
from craft.text.passed_over import looks_passed_over, worded


def is_plain(strict: Checked) -> bool:
    """Whether the notation's reading is the only one: every word was understood, and nothing is in its place twice."""
    if (
        _restarts(strict)
        or _empty(strict)
        or looks_passed_over(strict)
        or _names_rounds(strict)
        or _kept_as_words(strict)
        or _makes_several(strict)
        or any(p.code == "skipped-number" for p in strict.problems)
        or not any(part.rounds for part in strict.parts)
    ):
        return False
    faults = [p for p in strict.problems if p.severity is Severity.FAULT]
    if sum(p.code == "left-over" for p in faults) >= LEAST_LEFT_OVER:
        return False
    if len(starts_at_fault(strict) & _listed_around(strict)) >= LEAST_LEFT_OVER:
        return False
    if {p.code for p in faults} & {*_NOT_UNDERSTOOD, *_UNSAID} or any(
        p.code in ("no-work", "no-piece") for p in strict.problems
    ):
        return False
    at_fault = {p.place.line for p in faults}
    printed = _as_printed(strict) if faults else set()
    return not any(line.number in at_fault and line.span.start not in printed for line in strict.reading.lines)


LEAST_LEFT_OVER = 2
"""Rounds that leave stitches over, before it may be that 'sc, inc' goes on around in this text without saying so."""


_LISTED_AROUND = re.compile(r"(?i),\s*(?:inc|dec)\s+a?round\b")
"""'2 sc, inc around': the last stitch goes on around, as it stands, or all that is listed does."""


def _listed_around(checked: Checked) -> set[int]:
    """Where the lines begin that list stitches before 'around'."""
    return {line.span.start for line in checked.reading.lines if _LISTED_AROUND.search(line.text)}


def _as_printed(checked: Checked) -> set[int]:
    """Where the lines of rounds begin that stand as the notation prints them: their words mean one thing."""
    terms = checked.reading.pattern.terms
    written = {line.span.start: line.text for line in checked.reading.lines}
    rounds = (item for part in checked.reading.pattern.parts for item in part.items if isinstance(item, Round))
    rounds = (made for made in rounds if not _is_lone(made))
    return {
        made.span.start for made in rounds if _bare(print_round(made, terms)) == _bare(written.get(made.span.start, ""))
    }


def _is_lone(made: Round) -> bool:
    """Whether a round is one stitch and a count of more, 'R6: sc [30]', one again and again, 'R6-R8: sc', or one in the
    loops of the round below, 'R6: sc in BLO': most people mean all around."""
    one = made.body[0] if len(made.body) == 1 else None
    if not isinstance(one, Work) or one.count != 1:
        return False
    return (made.count or 0) > 1 or made.repeats > 1 or one.loops is not None or made.loops is not Loops.BOTH


def _bare(words: str) -> str:
    """A line without its spaces and the form of its brackets."""
    return re.sub(r"\s+", "", words.lower().translate(str.maketrans("×*[]{}", "xx()()")))


def _empty(checked: Checked) -> bool:
    """Whether all rounds of a part make nothing: their work stands elsewhere than the notation looks for it."""
    return any(part.rounds and not any(t.live for t in part.rounds) for part in checked.parts)


def _kept_as_words(checked: Checked) -> bool:
    """Whether a chain before the rounds, 'Chain 24, join into a ring with sl st', was kept as a note alone."""
    notes = {i.span.start for part in checked.reading.pattern.parts for i in part.items if isinstance(i, Note)}
    worked = (line for line in checked.reading.lines if line.kind is LineKind.WORK and _CHAINS.match(line.text))
    return any(line.span.start in notes for line in worked)


def _makes_several(checked: Checked) -> bool:
    """Whether a line kept as words is a heading that says how many are made, 'Ears – make 2, green'."""
    prose = (ln for ln in checked.reading.lines if ln.kind in (LineKind.NOTE, LineKind.STEP, LineKind.HEAD))
    return any((head := freehand.heading_of(ln.text)) is not None and head.make > 1 for ln in prose)


def _made(checked: Checked) -> int:
    """How many pieces are made of all parts that have a name."""
    return sum(part.make for part in checked.parts if part.name and part.rounds)


_CHAINS = re.compile(r"(?i)\W*(?:(?:make|work|start|begin|with|a)\s+)*(?:ch(?:ain)?s?\b|\d+\s*ch)")


def _restarts(checked: Checked) -> bool:
    """Whether a part's numbers begin anew in the middle, where no heading was seen."""
    for part in checked.parts:
        numbers = [((t.section, t.way), t.number) for t in part.rounds if t.number is not None]
        if any(a[0] == b[0] and b[1] == 1 < a[1] for a, b in itertools.pairwise(numbers)):
            return True
    return False


_AS_ELSEWHERE = re.compile(
    r"(?i)^\W*(?:(?:work|make|crochet|worked)\s+)?(?:exactly\s+)?(?:as|like|same|the\s+same|ditto)\b|:\s*(?:the\s+)?same\b"
)


_CHAIN_CALLED = re.compile(
    r"(?i)^\W*(?:foundation|base|starting|beginning)(?:\s+(?:chain|row))?\s*[:-]\s*ch(?:ain)?\s*\d"
)


def _names_rounds(checked: Checked) -> bool:
    """Whether a line that the notation takes for prose tells rounds by naming others, 'As base to Rnd 3.', or what they
    are worked along, 'Foundation: ch 7.'"""
    prose = (LineKind.NOTE, LineKind.STEP, LineKind.HEADING)
    return any(
        line.kind in prose and (_AS_ELSEWHERE.search(line.text) or _CHAIN_CALLED.match(line.text))
        for line in checked.reading.lines
    )


_UNSAID = ("no-start", "no-chain", "no-piece", "piece-spent")
"""Faults of what goes without saying to people: the ring, the chain, the piece that is meant, that it is made twice."""

_NOT_UNDERSTOOD = ("unread", "bracket", "no-rounds", "spur", "no-work")


def _faults(checked: Checked) -> tuple[int, int]:
    """How many places were not understood, and how many faults there are in all."""
    faults = [p for p in checked.problems if p.severity is Severity.FAULT or p.code == "no-work"]
    return sum(p.code in _NOT_UNDERSTOOD for p in faults), len(faults)


def starts_at_fault(checked: Checked) -> set[int]:
    """Where the lines begin that have a fault."""
    at_fault = {p.place.line for p in checked.problems if p.severity is Severity.FAULT}
    return {line.span.start for line in checked.reading.lines if line.number in at_fault}


def _only_unsaid(checked: Checked) -> bool:
    """Whether all that is wrong is what goes without saying to people."""
    return all(p.code in _UNSAID for p in checked.problems if p.severity is Severity.FAULT)


def _understood(checked: Checked) -> int:
    """How many rounds were understood, of those that share a line each by itself."""
    unread = {n for p in checked.problems if p.code in _NOT_UNDERSTOOD for n in _told_of(p.place)}
    lines = {line.span.start: line.number for line in checked.reading.lines}
    worked = ((lines.get(t.span.start), t.number) for part in checked.parts for t in part.rounds)
    return sum(not unread & {(line, number), (line, None)} for line, number in worked)


def _told_of(place: Place) -> Iterator[tuple[int | None, int | None]]:
    """The line of a problem with each round of it that the problem is about; with None where it names no round."""
    numbers = [int(n) for n in re.findall(r"\d+", place.round or "")]
    yield from ((place.line, n) for n in range(numbers[0], numbers[-1] + 1)) if numbers else ((place.line, None),)


def _on_trust(checked: Checked) -> int:
    """How many pieces it takes stitches of that were never made."""
    return sum(p.code == "no-piece" for p in checked.problems)


def _again_and_again(checked: Checked) -> bool:
    """Whether all that leaves stitches over is one stitch in several rounds, 'R6-R8: sc', or in the loops of a whole
    round, which nobody means."""
    over = {p.place.line for p in checked.problems if p.code == "left-over"}
    lines = {line.span.start: line.number for line in checked.reading.lines}
    rounds = (item for part in checked.reading.pattern.parts for item in part.items if isinstance(item, Round))
    lone = {lines.get(made.span.start) for made in rounds if not made.count and _is_lone(made)}
    return bool(over) and over <= lone


def explains_more(free: Checked, strict: Checked, *, counted: bool) -> bool:
    """Whether the freehand reading leaves fewer faults, and no round out that the notation found."""
    rounds = [_understood(checked) for checked in (free, strict)]
    if not rounds[1] and rounds[0]:
        return True
    if _empty(strict) and not _empty(free):
        return True
    if strict.sound:
        found = sum(len(part.rounds) for part in free.parts)
        if found > rounds[1] and any(freehand.label_at(line.text) is not None for line in worded(strict)):
            return True  # a round told in sentences, which no reading fits: that is said
        more = rounds[0] > rounds[1]
        if free.sound and rounds[0] == rounds[1] and _made(free) > _made(strict):
            return True  # how many are made was passed over
        return (more and (free.sound or looks_passed_over(strict))) or (
            free.sound and len(free.parts) > len(strict.parts)
        )
    if free.sound and (
        (rounds[0] > rounds[1] and _only_unsaid(strict)) or (rounds[0] == rounds[1] and _restarts(strict))
    ):
        return True
    evident = counted or _again_and_again(strict)
    if not _faults(strict)[0] and (not (free.sound and evident) or _on_trust(free) > _on_trust(strict)):
        return False  # every word was understood: only sums can say that it was meant otherwise
    return _faults(free) < _faults(strict) and (rounds[0] >= rounds[1] or free.sound)
