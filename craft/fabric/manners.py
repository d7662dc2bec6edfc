"""Faults beside the sums: numbering, order of work, colours, number of pieces."""

from __future__ import annotations

import re
from collections.abc import Iterator

from craft.fabric.run import WorkedPart
from craft.pattern import Colour, Instruction, Part, Pattern, Repeat, Round, Step, StepKind
from craft.problems import Place, Problem, Span

EYES_NEED_LIVE = 24
"""Live stitches that still let a hand place eyes once decreasing has begun (common practice)."""


def _problem(part: Part, code: str, message: str, label: str | None, span: Span) -> Problem:
    return Problem(code, Place(part.name, label, span=span), message)


def numbering(part: Part) -> Iterator[Problem]:
    """Round numbers that are missing or stand twice; a restart at 1 is no fault."""
    last: int | None = None
    for made in part.rounds:
        if made.first is None or made.last is None:
            last = None
            continue
        if last is not None and made.first != 1:
            if made.first <= last:
                yield _problem(part, "double-number", f"R{made.first} stands twice.", made.label, made.span)
            elif made.first > last + 1:
                gap = f"R{last + 1}" if made.first == last + 2 else f"R{last + 1}-R{made.first - 1}"
                yield _problem(part, "skipped-number", f"{gap} is missing before {made.label}.", made.label, made.span)
        last = made.last


def order_of_work(part: Part, worked: WorkedPart) -> Iterator[Problem]:
    """Things that go inside once it is too late for them."""
    shrinking, closed = False, False
    live, at = 0, 0
    for item in part.items:
        if isinstance(item, Round):
            for tally in worked.rounds[at : at + item.repeats]:
                shrinking = shrinking or tally.live < live
                live = tally.live
            at += item.repeats
        elif isinstance(item, Step):
            if closed and item.kind in (StepKind.EYES, StepKind.STUFF):
                yield _problem(
                    part, "after-close", "This goes inside, but the piece is already closed.", None, item.span
                )
            elif item.kind is StepKind.EYES and shrinking and live < EYES_NEED_LIVE:
                yield _problem(
                    part,
                    "eyes-late",
                    f"Only {live} stitches are open here: eyes go in before the first "
                    f"decrease round, or while {EYES_NEED_LIVE} stitches are live.",
                    None,
                    item.span,
                )
            closed = closed or item.kind is StepKind.CLOSE


def _colours(items: tuple[Instruction, ...]) -> Iterator[Colour]:
    for item in items:
        if isinstance(item, Colour):
            yield item
        elif isinstance(item, Repeat):
            yield from _colours(item.body)


def colours(part: Part, listed: tuple[str, ...]) -> Iterator[Problem]:
    """Colours that the list of yarns does not name; silent without a list."""
    if not listed:
        return
    known = {re.sub(r"\W+", " ", name).strip().lower() for name in listed}
    told: set[str] = set()
    for item in part.items:
        found = [item] if isinstance(item, Colour) else list(_colours(item.body)) if isinstance(item, Round) else []
        for colour in found:
            if colour.name.lower() not in known and colour.name.lower() not in told:
                told.add(colour.name.lower())
                yield _problem(
                    part, "unlisted-colour", f"{colour.name} is not in the list of yarns.", None, colour.span
                )


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
