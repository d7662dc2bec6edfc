"""Written text to a pattern: lines, rounds, remarks, and everything that cannot be read.

Any text ends in a pattern and problems; nothing is dropped in silence.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from dataclasses import dataclass, field, replace
from functools import lru_cache

from craft.problems import Mend, Place, Problem, Span
from craft.rounds.arithmetic import MOST_ROUNDS, MOST_STITCHES, round_sum
from craft.rounds.pattern import (
    MOST_STEP,
    Chain,
    Colour,
    HeadEntry,
    Instruction,
    Item,
    Join,
    Note,
    Part,
    Pattern,
    Round,
    Step,
    StepKind,
    Unread,
    Way,
)
from craft.rounds.stitches import Loops, Terms
from craft.text.notation.bodies import Body, read_body
from craft.text.notation.coils import find_coil
from craft.text.notation.finish import BodyProblem, is_sideways, settle_chains
from craft.text.notation.names import Names
from craft.text.notation.scanner import Line, LineKind, RoundLabel, prose, scan, step_kind
from craft.text.notation.sections import sectioned
from craft.text.notation.stars import settle_stars
from craft.text.notation.tails import Tail, tail_of
from craft.text.notation.terms import TermsFound, find_terms
from craft.text.notation.threads import find_threads

MOST_TEXT = 1_000_000
"""Code points of one text."""

MOST_LINES = 20_000
"""Lines of one text: ten for each of the most rounds that a pattern has."""

MOST_LINE = 20_000
"""Code points of one line."""

MOST_PROBLEMS = 500
"""Problems told of one text; the rest would not be read."""


@dataclass(frozen=True, slots=True)
class Reading:
    """What was understood of a text: the pattern, its terms, the lines, and the problems."""

    pattern: Pattern
    found: TermsFound
    lines: tuple[Line, ...]
    problems: tuple[Problem, ...]


class _Lines:
    """Line and column of a raw offset."""

    def __init__(self, lines: tuple[Line, ...]) -> None:
        self.starts = [line.span.start for line in lines]
        self.lines = lines

    def place(self, span: Span, part: str | None, label: str | None) -> Place:
        """The place of `span`."""
        i = max(bisect_right(self.starts, span.start) - 1, 0)
        if not self.lines:
            return Place(part, label, 1, 1, span)
        line = self.lines[i]
        return Place(part, label, line.number, span.start - line.span.start + 1, span)


@dataclass(slots=True)
class _State:
    """The text read so far."""

    places: _Lines
    terms: Terms
    names: Names
    parts: list[Part] = field(default_factory=list)
    head: list[HeadEntry] = field(default_factory=list)
    items: list[Item] = field(default_factory=list)
    name: str | None = None
    make: int = 1
    span: Span = Span(0, 0)
    live: int = 0
    pending: int = 0
    rounds: int = 0
    stitches: int = 0
    problems: list[Problem] = field(default_factory=list)

    @property
    def full(self) -> bool:
        """Whether the pattern is past its limits."""
        return self.rounds > MOST_ROUNDS or self.stitches > MOST_STITCHES

    def tell(self, code: str, message: str, span: Span, label: str | None = None, fix: Mend | None = None) -> None:
        if len(self.problems) < MOST_PROBLEMS:
            self.problems.append(Problem(code, self.places.place(span, self.name, label), message, fix))

    def end_part(self, *, last: bool = False) -> None:
        title = self.name is not None and not self.items and not self.parts and self.make == 1
        if title and not any(e.key == "name" for e in self.head) and self.name is not None and not last:
            # A heading with nothing under it but other headings is the title of the whole.
            self.head.insert(0, HeadEntry("name", self.name))
        elif self.items or self.name is not None:
            self.parts.append(Part(self.name, tuple(self.items), self.make, self.span))
        self.items, self.live, self.pending = [], 0, 0


def _read_work(state: _State, line: Line) -> bool:
    """A line of work without a label: a starting chain, a rejoining, a limb closed flat. False when it is prose."""
    label = line.label
    assert label is not None
    text = line.text[label.body_at :]
    tail = tail_of(text)
    body = read_body(text[: tail.body_end], state.terms, state.names)
    if body.problems or any(isinstance(i, Unread) for i in body.instructions):
        return False
    at = line.span.start + label.body_at
    made = _made_round(state, line, label, body, tail, at, "This line")
    if made is None:
        return False
    chains = [i for i in made.body if isinstance(i, Chain)]
    if chains and all(isinstance(i, Chain | Join) for i in made.body):
        joined = any(isinstance(i, Join) for i in made.body)
        if not state.live:
            state.live, state.pending = (chains[0].count if joined else 0), (0 if joined else chains[0].count)
        state.items.append(made)
    elif not _within_limits(state, made, line.span):
        return True
    else:
        state.items.append(made)
        state.pending = 0
    if tail.remark is not None:
        _remark(state, text[tail.remark.start : tail.remark.end], Span(at + tail.remark.start, at + tail.remark.end))
    return True


def _settled(
    state: _State, line: Line, label: RoundLabel, body: Body, tail: Tail, at: int, said: str
) -> tuple[Instruction, ...] | None:
    """The body with its chains and stars settled by what is on the hook; None when prose cannot be settled."""
    sideways = label.row or is_sideways(body.instructions)
    found, problem = settle_chains(body.instructions, live=bool(state.live), pending=state.pending, sideways=sideways)
    if problem is not None:
        if line.kind is LineKind.WORK:
            return None
        _tell_body(state, problem, at, said)
        found = [Unread(line.text[label.body_at :][: tail.body_end].strip())]
    settled, open_star = settle_stars(tuple(found), state.live, tail.count)
    if open_star is not None:
        state.tell(
            "rep-from",
            f"{said}: 'rep from * {open_star.said} times' may mean {open_star.said} in all or "
            f"{open_star.said} more; neither alone fits, {open_star.said} in all is taken.",
            Span(at + open_star.span.start, at + open_star.span.end),
            said,
        )
    return settled


def _made_round(
    state: _State, line: Line, label: RoundLabel, body: Body, tail: Tail, at: int, said: str
) -> Round | None:
    """The round that a body says; None when its chains cannot be settled."""
    settled = body.plain if body.plain is not None else _settled(state, line, label, body, tail, at, said)
    if settled is None:
        return None
    count = min(tail.count, 10**9) if tail.count is not None else None
    base = line.span.start
    way = Way.LINE if line.kind is LineKind.WORK else Way.ROW if label.row else Way.ROUND
    return Round(
        first=label.first,
        last=label.last,
        body=settled,
        count=count,
        loops=body.loops,
        way=way,
        or_to=None,
        span=Span(base, line.span.end),
        body_span=Span(at, at + tail.body_end),
        count_span=tail.count_span and Span(at + tail.count_span.start, at + tail.count_span.end),
    )


def _read_round(state: _State, line: Line) -> None:
    label = line.label
    assert label is not None
    if state.full:  # said where it became too large: what follows is not worked
        return
    base = line.span.start
    text = line.text[label.body_at :]
    at = base + label.body_at
    tail = tail_of(text)
    has_work = bool(text[: tail.body_end].strip(" \t.,;:-–—"))
    body = read_body(text[: tail.body_end], state.terms, state.names) if has_work else None
    first, last = label.first, label.last
    said = _said(first, last, row=label.row)
    label_span = Span(base + label.span.start, base + label.span.end)
    if first is not None and last is not None and last < first:
        state.tell("backward-range", f"{said} ends before it starts.", label_span, said)
        last = first
    if tail.fold is not None and tail.fold_span is not None and first is not None and last is not None:
        last = _checked_fold(state, said, first, last, tail.fold, tail.fold_span, at)
    if last != label.last:
        label = replace(label, last=last)
    if body is None:
        state.tell("no-work", f"{said} has nothing to work.", line.span, said)
        body = Body((), Loops.BOTH)
    for problem in body.problems:
        _tell_body(state, problem, at, said)
    made = _made_round(state, line, label, body, tail, at, said)
    assert made is not None
    made = _with_label(made, label, base)
    if not _within_limits(state, made, label_span):
        return
    state.pending = 0
    if label.colour:
        place = label.colour_span or label.span
        state.items.append(Colour(label.colour, Span(base + place.start, base + place.end)))
    state.items.append(made)
    if tail.remark is not None:
        _remark(state, text[tail.remark.start : tail.remark.end], Span(at + tail.remark.start, at + tail.remark.end))


@lru_cache(maxsize=4096)
def _said(first: int | None, last: int | None, *, row: bool) -> str:
    """A label as it is printed."""
    ends = None if first is None else max(first, last or first)
    return Round(first, ends, (), way=Way.ROW if row else Way.ROUND).label


def _with_label(made: Round, label: RoundLabel, base: int) -> Round:
    """A longer variant and a count that stand in the label."""
    if label.or_to is not None and made.last is not None and label.or_to > made.last:
        made = replace(made, or_to=label.or_to)
    if label.count is not None and label.count_span is not None and made.count is None:
        span = Span(base + label.count_span.start, base + label.count_span.end)
        made = replace(made, count=label.count, count_span=span)
    return made


def _checked_fold(state: _State, said: str, first: int, last: int, fold: int, span: Span, at: int) -> int:
    """The last round's number once '(6 rounds)' is heeded; a disagreement is told."""
    place = Span(at + span.start, at + span.end)
    if first == last and 1 < fold <= MOST_ROUNDS:
        return first + fold - 1
    if fold != last - first + 1:
        right = last - first + 1
        state.tell(
            "fold",
            f"{said} is {right} round{'s' if right > 1 else ''}, but {fold} are said.",
            place,
            said,
            Mend(place.start, place.end, f"({right} rounds)", f"say {right} rounds") if right > 1 else None,
        )
    return last


def _tell_body(state: _State, problem: BodyProblem, at: int, said: str) -> None:
    fix = None
    if problem.insert is not None:
        start, end, text, label = problem.insert
        fix = Mend(at + start, at + end, text, label)
    state.tell(problem.code, problem.message, Span(at + problem.span.start, at + problem.span.end), said, fix)


def _within_limits(state: _State, made: Round, place: Span) -> bool:
    """Count the round against the limits; True while the pattern stays within them."""
    full_before = state.full
    state.rounds += made.repeats
    sums = round_sum(made.body, state.live)
    state.stitches += max(sums.total.gives, sums.total.takes) * made.repeats
    if state.full:
        if not full_before:
            state.tell(
                "too-large",
                f"{made.label} takes the pattern past {MOST_ROUNDS:,} rounds or "
                f"{MOST_STITCHES:,} stitches; what follows is not worked.",
                place,
                made.label,
            )
        return False
    state.live = made.count if made.count is not None else sums.total.gives or state.live
    return True


def _remark(state: _State, text: str, span: Span) -> None:
    _prose(state, step_kind(text), text, span)


def _prose(state: _State, kind: StepKind | None, text: str, span: Span) -> None:
    """A stage direction, or a note: prose of no kind, and a direction longer than any. Every word of it is kept."""
    if kind is None or len(text) > MOST_STEP:
        state.items.append(Note(text, span))
    else:
        state.items.append(Step(kind, text, span, find_threads(text), find_coil(text)))


def _read_line(state: _State, line: Line) -> None:
    if len(line.text) > MOST_LINE:
        state.tell("too-large", f"A line is at most {MOST_LINE:,} characters long; this one is left out.", line.span)
        return
    match line.kind:
        case LineKind.HEAD:
            if line.name != "terms":
                state.head.append(HeadEntry(line.name, line.value))
        case LineKind.HEADING:
            state.end_part()
            state.name, state.make, state.span = line.name, line.make, line.span
        case LineKind.ROUND:
            _read_round(state, line)
        case LineKind.WORK:
            if not _read_work(state, line):
                _read_line(state, prose(line))
        case LineKind.COLOUR:
            state.items.append(Colour(line.name, line.span))
        case LineKind.STEP:
            _prose(state, line.step, line.text.strip(), line.span)
        case LineKind.NOTE:
            _prose(state, None, line.text.strip(), line.span)


def _names(lines: tuple[Line, ...], yarns: tuple[str, ...], pieces: tuple[str, ...]) -> Names:
    """What this text's pieces and colours are called: by its headings, its yarn lines and its changes of colour."""
    parts = [line.name for line in lines if line.kind is LineKind.HEADING]
    listed = [
        part.strip()
        for line in lines
        if line.kind is LineKind.HEAD and line.name == "yarn"
        for part in re.split(r"[,;]", line.value)
    ]
    changed = [line.name for line in lines if line.kind is LineKind.COLOUR]
    colours = [c for c in (*yarns, *listed, *changed) if _COLOUR.fullmatch(c)]
    return Names(tuple(dict.fromkeys((*parts, *pieces))), tuple(dict.fromkeys(colours)))


_COLOUR = re.compile(r"[^\W\d_][\w' -]{0,38}")


def read(text: str, terms: Terms | None = None, yarns: tuple[str, ...] = (), pieces: tuple[str, ...] = ()) -> Reading:
    """Read a whole written pattern in `terms`, or in those it shows; never raises.

    yarns, pieces: names of colours and of parts that are known from elsewhere.
    """
    much = (len(text), MOST_TEXT, "characters"), (text.count("\n"), MOST_LINES, "lines")
    over = next((f"A text is at most {most:,} {what} long." for size, most, what in much if size > most), None)
    if over is not None:
        problem = Problem("too-large", Place(), over)
        return Reading(Pattern(()), TermsFound(terms or Terms.US, "assumed", "the text was not read"), (), (problem,))
    lines = scan(text)
    found = find_terms(text, terms)
    state = _State(_Lines(lines), found.used, _names(lines, yarns, pieces))
    if found.mixed:
        state.tell("mixed-terms", f"Two kinds of terms in one text: {found.evidence}.", Span(0, 0))
    for line in lines:
        _read_line(state, line)
    state.end_part(last=True)
    parts = sectioned(tuple(state.parts))
    return Reading(Pattern(parts, tuple(state.head), found.used), found, lines, tuple(state.problems))
