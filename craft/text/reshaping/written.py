"""Rounds with the lines that they were written on, and edits of a text."""

from __future__ import annotations

from dataclasses import dataclass, replace

from craft.errors import CraftError
from craft.problems import Span
from craft.rounds.arithmetic import is_single, settled
from craft.rounds.fabric import Tally
from craft.rounds.pattern import Again, Instruction, Repeat, Round, Shift, Way, Work
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.notation import print_round


@dataclass(frozen=True, slots=True)
class Written:
    """A written round with what it was worked on: counts before and after, its line, how many rounds it is worked as."""

    made: Round
    line: int
    before: int
    after: int
    many: int


@dataclass(frozen=True, slots=True)
class Edit:
    """A run of the text, and what takes its place."""

    span: Span
    text: str


def written_rounds(checked: Checked) -> list[Written]:
    """Written rounds of the first part that has any, in order."""
    for part, worked in zip(checked.reading.pattern.parts, checked.parts, strict=True):
        if not worked.rounds:
            continue
        by_source: dict[int, list[Tally]] = {}
        for tally in worked.rounds:
            by_source.setdefault(tally.source, []).append(tally)
        found: list[Written] = []
        live = 0
        for source, made in enumerate(part.rounds):
            tallies = by_source.get(source, [])
            after = tallies[-1].live if tallies else live
            line = line_at(checked, made.span.start)
            found.append(Written(made, line, live, after, len(tallies) or made.repeats))
            live = after
        return found
    return []


def line_at(checked: Checked, start: int) -> int:
    """The number of the line that begins at `start`, 0 where none does."""
    return next((n.number for n in checked.reading.lines if n.span.start == start), 0)


def index_at(rounds: list[Written], line: int) -> int:
    """Which of the rounds stands on a line; CraftError when none does."""
    at = next((i for i, r in enumerate(rounds) if r.line == line), None)
    if at is None:
        raise CraftError("There is no round on that line.")
    return at


def round_at(rounds: list[Written], number: int) -> tuple[Written, int]:
    """The written round that holds the worked round `number` (from 1), and which of its fold that is (from 0)."""
    worked = 0
    for written in rounds:
        if worked < number <= worked + written.many:
            return written, number - worked - 1
        worked += written.many
    raise CraftError(f"There is no round {number} in this part.", field="round")


def is_plain(written: Written) -> bool:
    """Whether the round goes once around in stitches only."""
    body = written.made.body
    return is_single(settled(body)) and written.made.way is Way.ROUND and not any(isinstance(i, Again) for i in body)


def plain_round(written: Written) -> Round:
    """The round, when it goes once around in stitches only; CraftError otherwise."""
    if not is_plain(written):
        raise CraftError(f"{written.made.label} is more than plain stitches once around; change it in the text.")
    return written.made


def line_edit(written: Written, terms: Terms, body: tuple[Instruction, ...], count: int) -> Edit:
    """Other work and, where there was one, another bracket; the label and a remark behind stay as typed."""
    made = written.made
    changed = replace(made, body=body, count=count if made.count is not None else None)
    return Edit(work_span(made), print_round(changed, terms, label=False))


def work_span(made: Round) -> Span:
    """From a round's first stitch to the end of its bracket."""
    end = max(made.body_span.end, made.count_span.end + 1 if made.count_span else 0)
    return Span(made.body_span.start, end)


def applied(text: str, edits: list[Edit]) -> str:
    """The text after all edits; they do not overlap."""
    for edit in sorted(edits, key=lambda e: -e.span.start):
        text = text[: edit.span.start] + edit.text + text[edit.span.end :]
    return text


def unfolded(text: str, written: Written, which: int, changed: Round, terms: Terms, *, upto: bool = False) -> Edit:
    """The fold as up to three lines, with the one in the middle, `which` from 0, changed; a remark behind it stays.

    upto: what comes behind the changed one goes.
    """
    made = written.made
    first = made.first
    rounds: list[Round] = []
    if made.repeats == 1 or first is None:
        rounds = [changed]
    else:
        if which:
            rounds.append(replace(made, last=first + which - 1))
        rounds.append(replace(changed, first=first + which, last=first + which))
        if which < made.repeats - 1 and not upto:
            rounds.append(replace(made, first=first + which + 1))
    return Edit(made.span, "\n".join(print_round(r, terms) for r in rounds) + remark(text, made))


def remark(text: str, made: Round) -> str:
    """What stands behind a round's bracket on its line, as typed."""
    return text[work_span(made).end : made.span.end]


def with_shift(written: Written, many: int) -> tuple[Instruction, ...]:
    """The round's work with `many` plain stitches more at its end, that move the start."""
    body = written.made.body
    if any(isinstance(i, Shift) for i in body):
        shifts = [i for i in body if isinstance(i, Shift)]
        return (*(i for i in body if not isinstance(i, Shift)), Shift(many + sum(i.count for i in shifts)))
    around = body == (Repeat((Work("sc"),), None),)
    return (*((Work("sc", written.before),) if around else body), Shift(many))
