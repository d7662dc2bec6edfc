"""Faults beside the sums: numbering, order of work, colours, number of pieces."""

from __future__ import annotations

import re
from collections.abc import Iterator

from craft.problems import Place, Problem, Span
from craft.rounds.fabric.run import WorkedPart
from craft.rounds.pattern import (
    INSIDE_STEPS,
    Chain,
    Colour,
    Instruction,
    Part,
    Pattern,
    Repeat,
    Round,
    Section,
    Spur,
    Start,
    Step,
    StepKind,
    Way,
)

EYES_NEED_LIVE = 24
"""Live stitches that still let a hand place eyes once decreasing has begun (common practice)."""


def _problem(part: Part, code: str, message: str, label: str | None, span: Span) -> Problem:
    return Problem(code, Place(part.name, label, span=span), message)


def numbering(part: Part) -> Iterator[Problem]:
    """Round numbers that are missing or stand twice; a restart at 1 is no fault."""
    last: int | None = None
    longer = 0
    for made in part.items:
        if isinstance(made, Section):
            last = None
        if not isinstance(made, Round) or made.way is Way.LINE:
            continue
        if made.first is None or made.last is None:
            last = None
            continue
        if last is not None and made.first != 1:
            if made.first <= last:
                yield _problem(part, "double-number", f"R{made.first} stands twice.", made.label, made.span)
            elif made.first > last + 1 and made.first != longer + 1:
                gap = f"R{last + 1}" if made.first == last + 2 else f"R{last + 1}-R{made.first - 1}"
                yield _problem(part, "skipped-number", f"{gap} is missing before {made.label}.", made.label, made.span)
        last, longer = made.last, made.or_to or made.last


def order_of_work(part: Part, worked: WorkedPart) -> Iterator[Problem]:
    """Things that go inside once it is too late for them; words before any round are about no piece yet."""
    if not worked.rounds:
        return
    shrinking, closed = False, False
    live, source = 0, -1
    by_source: dict[int, list[int]] = {}
    label: str | None = None
    for tally in worked.rounds:
        by_source.setdefault(tally.source, []).append(0 if tally.flat else tally.live)
    for item in part.items:
        if isinstance(item, Round):
            source += 1
            label = item.label
            starts = any(isinstance(i, Start | Chain) for i in item.body[:1])
            shrinking, closed = (False, False) if starts else (shrinking, closed)
            for after in by_source.get(source, []):
                shrinking = shrinking or after < live
                live = after
        elif isinstance(item, Section):
            shrinking, closed, live = False, False, 0
        elif isinstance(item, Step):
            if closed and item.kind in INSIDE_STEPS and not _NOT_YET.search(item.text):
                yield _problem(
                    part, "after-close", "This goes inside, but the piece is already closed.", label, item.span
                )
            elif (
                item.kind is StepKind.EYES
                and shrinking
                and 0 < live < EYES_NEED_LIVE
                and not _SEWN_EYES.search(item.text)
            ):
                yield _problem(
                    part,
                    "eyes-late",
                    f"Only {live} stitches are open here: eyes go in before the first "
                    f"decrease round, or while {EYES_NEED_LIVE} stitches are live.",
                    None,
                    item.span,
                )
            # Behind the first round it is the ring that is drawn shut, where others follow.
            ringed = source == 0 and len(worked.rounds) > 1
            closed = closed or (item.kind is StepKind.CLOSE and not ringed)


_NOT_YET = re.compile(r"(?i)\bbefore\b|\bshould\b|\bhave\b.{0,20}\bstuffed\b")
_SEWN_EYES = re.compile(r"(?i)\b(sew|embroider|glue)")


def _colours(items: tuple[Instruction, ...]) -> Iterator[Colour]:
    for item in items:
        if isinstance(item, Colour):
            yield item
        elif isinstance(item, Repeat | Spur):
            yield from _colours(item.body)


def colours(part: Part, listed: tuple[str, ...]) -> Iterator[Problem]:
    """Colours that the list of yarns does not name; silent without a list."""
    if not listed:
        return
    known = {re.sub(r"\W+", " ", name).strip().lower() for name in listed}
    told: set[str] = set()
    for item in part.items:
        found = [(item, item.span)] if isinstance(item, Colour) else []
        if isinstance(item, Round):
            found = [(c, item.within(c.span)) for c in _colours(item.body)]
        for colour, place in found:
            if colour.name.lower() not in known and colour.name.lower() not in told:
                told.add(colour.name.lower())
                yield _problem(part, "unlisted-colour", f"{colour.name} is not in the list of yarns.", None, place)


_PLURAL = re.compile(r"(?i)^(arms|legs|ears|eyes|feet|wings|paws|hands|horns|antlers|antennae)$")


def pieces(part: Part) -> Iterator[Problem]:
    """A plural name that is made once."""
    if part.name and part.make == 1 and _PLURAL.match(part.name):
        yield _problem(part, "make-one", f"{part.name} is made once; should it be '(make 2)'?", None, part.span)


def listed_colours(pattern: Pattern) -> tuple[str, ...]:
    """The colours named in the head block's yarn lines, separated by commas."""
    return tuple(
        name.strip()
        for entry in pattern.head
        if entry.key == "yarn"
        for name in re.split(r"[,;]", entry.value)
        if name.strip()
    )
