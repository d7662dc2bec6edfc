"""Changes of a whole part in one go: its decreases, how its rounds end, its open, closed or divided end."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.errors import CraftError, require
from craft.problems import Span
from craft.rounds.pattern import (
    Chain,
    Edge,
    Instruction,
    Item,
    Join,
    Leave,
    Onto,
    Repeat,
    Round,
    Section,
    Skip,
    Spur,
    Start,
    Step,
    StepKind,
    Turn,
    Way,
    Work,
)
from craft.rounds.stitches import Terms
from craft.shape.drafting import Shaping, shaped_rounds
from craft.text.check import Checked
from craft.text.notation import print_item, print_round
from craft.text.reshaping.commands import Divide
from craft.text.reshaping.written import (
    Edit,
    Written,
    applied,
    is_plain,
    line_edit,
    remark,
    round_at,
    unfolded,
    with_shift,
)

CLOSE_FROM = 8
"""Stitches that are drawn together through their front loops; more leave a hole."""

LEAST_DIVIDED = 12
"""Stitches that can be shared out among two legs."""

TAIL = Step(StepKind.TAIL, "Leave a long tail for sewing.")

_ENDS = frozenset({StepKind.CLOSE, StepKind.FASTEN_OFF, StepKind.TAIL})


def decreases(rounds: list[Written], terms: Terms, *, invisible: bool) -> list[Edit]:
    """Every decrease of the part invisible, or plain; all else stays."""
    old, new = ("dec", "invdec") if invisible else ("invdec", "dec")
    edits = []
    for here in rounds:
        body = tuple(_swapped(i, old, new) for i in here.made.body)
        if body != here.made.body:
            edits.append(line_edit(here, terms, body, here.after))
    require(bool(edits), f"There is no {'plain' if invisible else 'invisible'} decrease in this part.", field="do")
    return edits


def _swapped(item: Instruction, old: str, new: str) -> Instruction:
    match item:
        case Work(stitch=key) if key == old:
            return replace(item, stitch=new)
        case Repeat() | Spur():
            return replace(item, body=tuple(_swapped(i, old, new) for i in item.body))
    return item


def joined(rounds: list[Written], terms: Terms, *, join: bool) -> list[Edit]:
    """Every plain round closed with a slip stitch and begun with a chain that does not count; or worked as a spiral."""
    edits = []
    for here in rounds:
        made = here.made
        if made.way is not Way.ROUND or made.joined is join or any(isinstance(i, Turn) for i in made.body):
            continue
        body = _closed(made) if join else tuple(i for i in made.body if not isinstance(i, Join) and not _leads(i))
        edits.append(line_edit(here, terms, body, here.after))
    words = "Every round of this part is joined already." if join else "This part is worked as a spiral already."
    require(bool(edits), words, field="do")
    return edits


def _closed(made: Round) -> tuple[Instruction, ...]:
    lead = () if any(isinstance(i, Start) for i in made.body) else (Chain(1, counts=False),)
    return (*lead, *made.body, Join())


def _leads(item: Instruction) -> bool:
    return isinstance(item, Chain) and item.count == 1 and not item.counts


def close_end(text: str, checked: Checked, rounds: list[Written], terms: Terms) -> str:
    """The open end drawn in, six stitches a round as a flat disc does, and closed."""
    last = _last(rounds)
    require(not checked.parts[0].closed, "This part is closed already.", field="do")
    end = last.made.repeats - 1
    return _behind(text, checked, last, end, _drawn_in(rounds, last.after, (last.made.last or 0) + 1, terms), terms)


def _drawn_in(rounds: list[Written], live: int, number: int, terms: Terms) -> list[str]:
    """Lines that draw `live` stitches in from round `number` on, and close."""
    step = next((w.before for w in rounds if w.before), 6)
    step = max(4, min(8, step))
    counts = [live]
    while counts[-1] > CLOSE_FROM:
        counts.append(max(counts[-1] - step, (counts[-1] + 1) // 2))
    decrease = "invdec" if any(_has(i, "invdec") for w in rounds for i in w.made.body) else "dec"
    bodies = shaped_rounds(counts, Shaping(decrease=decrease))
    made = [Round(number + k, number + k, b, c) for k, (b, c) in enumerate(zip(bodies, counts[1:], strict=True))]
    closing = f"Fasten off and close: draw the tail through the last {counts[-1]} stitches and pull tight."
    return [*(print_round(r, terms) for r in made), closing]


def divided(text: str, checked: Checked, rounds: list[Written], change: Divide, terms: Terms) -> str:
    """The part up to the round on a line, and two legs behind it; what stood behind goes."""
    last, which = round_at(rounds, change.round)
    if last.made.first is None or not is_plain(last):
        raise CraftError(f"{last.made.label} has to be a plain round with a number.", field="round")
    number, live = last.made.first + which, last.after
    require(1 <= change.rounds <= 200, "A leg has from 1 to 200 straight rounds.", field="rounds")
    require(live >= LEAST_DIVIDED, f"{live} stitches are too few for two legs: each needs six.", field="round")
    require(
        live % 2 == 0, f"{live} stitches cannot be halved: give the round one more or one fewer first.", field="round"
    )
    require(
        0 <= change.bridge <= live // 2,
        f"Between legs of {live // 2} stitches there are at most {live // 2} chains.",
        field="bridge",
    )
    half, shift, bridge = live // 2, change.shift % live, change.bridge
    leg = half + bridge
    # Stitches passed by under a chain are a hole; those that are left wait for the other leg.
    first = (Work("sc", half), *((Chain(bridge), Leave(half)) if bridge else (Skip(half),)), Join())
    taken = (Work("sc", half), *((Onto(Edge.CHAIN), Work("sc", bridge)) if bridge else ()))
    straight = (
        print_round(Round(number + 2, number + change.rounds, (Repeat((Work("sc"),), None),), leg), terms)
        if change.rounds > 1
        else ""
    )
    rest = [straight, *_drawn_in(rounds, leg, number + change.rounds + 1, terms)]
    lines = [
        "Stuff as you go from here on, each leg before it is closed.",
        print_item(Section("First leg"), terms),
        print_round(Round(number + 1, number + 1, first, leg), terms),
        *rest,
        print_item(Section("Second leg"), terms),
        print_round(Round(None, None, (Onto(Edge.HELD, rejoin=True),), way=Way.LINE), terms),
        print_round(Round(number + 1, number + 1, taken, leg), terms),
        *rest,
    ]
    return _behind(text, checked, last, which, [line for line in lines if line], terms, shift)


def _cut(text: str, items: Sequence[Item], last: Written) -> int:
    """Where the first round behind `last` begins."""
    later = (i.span.start for i in items if isinstance(i, Round) and i.span.start > last.made.span.start)
    return min(later, default=len(text))


def open_end(text: str, checked: Checked, rounds: list[Written], number: int) -> str:
    """The end left open behind the round `number`, counted from 1; rounds behind it go."""
    last, which = round_at(rounds, number)
    ends = last is rounds[-1] and which == last.made.repeats - 1
    require(not ends or checked.parts[0].closed, "The part is open there already.", field="round")
    terms = checked.reading.pattern.terms
    return _behind(text, checked, last, which, [print_item(TAIL, terms)], terms)


def _has(item: Instruction, key: str) -> bool:
    if isinstance(item, Repeat | Spur):
        return any(_has(i, key) for i in item.body)
    return isinstance(item, Work) and item.stitch == key


def _last(rounds: list[Written]) -> Written:
    last = rounds[-1] if rounds else None
    if last is None or not last.after or not is_plain(last) or last.made.last is None:
        raise CraftError("The part has to end in a plain round with a number.", field="do")
    return last


def _behind(
    text: str, checked: Checked, last: Written, which: int, lines: list[str], terms: Terms, shift: int = 0
) -> str:
    """The text up to a round, `which` of its fold from 0, with what belongs to it, and these lines; rounds and directions
    that end the part go. shift: plain stitches more at its end."""
    items = [i for p in checked.reading.pattern.parts for i in p.items]
    later = [i for i in items if i.span.start > last.made.span.start]
    cut = _cut(text, items, last)
    ends = [
        Span(i.span.start, _line_end(text, i.span.start))
        for i in later
        if isinstance(i, Step) and i.kind in _ENDS and i.span.start < cut
    ]
    edits = [Edit(span, "") for span in ends]
    made = last.made
    if shift:
        changed = replace(made, body=with_shift(last, shift), count=last.after)
        edits.append(unfolded(text, last, which, changed, terms, upto=True))
    elif which < made.repeats - 1 and made.first is not None:
        edits.append(Edit(made.span, print_round(replace(made, last=made.first + which), terms) + remark(text, made)))
    return "\n".join([applied(text[:cut], edits).rstrip(), *lines]) + "\n"


def _line_end(text: str, start: int) -> int:
    end = text.find("\n", start)
    return len(text) if end < 0 else end + 1
