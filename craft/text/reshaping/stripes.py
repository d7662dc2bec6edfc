"""Stripes over a run of rounds."""

from __future__ import annotations

from dataclasses import replace
from itertools import groupby

from craft.errors import CraftError, require
from craft.problems import Span
from craft.rounds.pattern import Colour, Instruction, Repeat, Round, Spur
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.notation import print_item, print_round
from craft.text.reshaping.commands import Stripes
from craft.text.reshaping.written import Edit, Written, remark


def striped(text: str, checked: Checked, rounds: list[Written], change: Stripes, terms: Terms) -> list[Edit]:
    """The rounds from one to another in colours by turns; lines there that changed the colour before go."""
    require(1 <= change.first <= change.last, "A run of rounds ends after it starts.", field="last")
    require(1 <= change.each <= 200, "A stripe is 1 to 200 rounds high.", field="each")
    require(len(change.colours) >= 2, "Stripes take two colours or more.", field="colours")
    run = _run(rounds, change)
    for here, _ in run:
        if colours_of(here.made.body):
            raise CraftError(f"{here.made.label} changes its colour already: take that out first.", field="first")
    last = rounds.index(run[-1][0])
    follows = rounds[last + 1] if last + 1 < len(rounds) else None
    begin, behind = run[0][0].made.span.start, follows.made.span.start if follows else len(text)
    said = [i for p in checked.reading.pattern.parts for i in p.items if isinstance(i, Colour)]
    edits = [Edit(_whole_line(text, c.span), "") for c in said if begin < c.span.start < behind]
    now = _in_hand(checked, begin, change.main)
    for here, wanted in run:
        own = _in_hand(checked, here.made.span.start, change.main)
        lines, now = _cut(text, here.made, [c or own for c in wanted], now, terms)
        edits.append(Edit(here.made.span, "\n".join(lines)))
    after = _in_hand(checked, behind, change.main)
    if follows is not None and now != after and not _begins_with_colour(follows.made):
        edits.append(Edit(Span(behind, behind), print_item(Colour(after), terms) + "\n"))
    return edits


def _run(rounds: list[Written], change: Stripes) -> list[tuple[Written, list[str | None]]]:
    """The written rounds that have stripes in them, each with the colours of its rounds; None for one outside."""
    run: list[tuple[Written, list[str | None]]] = []
    done = 0
    for here in rounds:
        numbers = range(done + 1, done + here.many + 1)
        done += here.many
        inside = [
            change.colours[(n - change.first) // change.each % len(change.colours)]
            if change.first <= n <= change.last
            else None
            for n in numbers
        ]
        if any(inside):
            run.append((here, inside))
    require(bool(run) and change.last <= done, f"There is no round {change.last} in this part.", field="last")
    return run


def _cut(text: str, made: Round, wanted: list[str], now: str, terms: Terms) -> tuple[list[str], str]:
    """A written round, a fold cut where colours change, with the changes before it; and the colour in hand then.

    wanted: the colour of each of its rounds. What needs no cut stays as typed.
    """
    lines: list[str] = []
    done = 0
    for colour, group in groupby(wanted):
        many = len(list(group))
        if colour != now:
            lines.append(print_item(Colour(colour), terms))
            now = colour
        if many == len(wanted) or made.repeats == 1 or made.first is None:
            return [*lines, text[made.span.start : made.span.end]], now
        lines.append(print_round(replace(made, first=made.first + done, last=made.first + done + many - 1), terms))
        done += many
    return [*lines[:-1], lines[-1] + remark(text, made)], now


def _in_hand(checked: Checked, before: int, main: str) -> str:
    """The colour in hand before a place of the text."""
    colour = main
    for part in checked.reading.pattern.parts:
        for item in part.items:
            if item.span.start >= before:
                return colour
            if isinstance(item, Colour):
                colour = item.name
            elif isinstance(item, Round):
                colour = ([c.name for c in colours_of(item.body)] or [colour])[-1]
    return colour


def _begins_with_colour(made: Round) -> bool:
    return bool(made.body) and isinstance(made.body[0], Colour)


def colours_of(body: tuple[Instruction, ...]) -> list[Colour]:
    """Every change of colour within a round, in order."""
    found: list[Colour] = []
    for item in body:
        if isinstance(item, Colour):
            found.append(item)
        elif isinstance(item, Repeat | Spur):
            found += colours_of(item.body)
    return found


def _whole_line(text: str, span: Span) -> Span:
    """A line with the break before it."""
    end = text.find("\n", span.start)
    return Span(max(span.start - 1, 0), len(text) if end < 0 else end)
