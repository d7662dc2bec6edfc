"""Changes of a whole part in one go: its decreases, how its rounds end, its open or closed end."""

from __future__ import annotations

from dataclasses import replace

from craft.errors import CraftError, require
from craft.problems import Span
from craft.rounds.pattern import Chain, Instruction, Join, Repeat, Round, Spur, Start, Step, StepKind, Turn, Way, Work
from craft.rounds.stitches import Terms
from craft.shape.drafting import Shaping, shaped_rounds
from craft.text.check import Checked
from craft.text.notation import print_item, print_round
from craft.text.reshaping.written import Edit, Written, applied, index_at, is_plain, line_edit

CLOSE_FROM = 8
"""Stitches that are drawn together through their front loops; more leave a hole."""

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
    step = next((w.before for w in rounds if w.before), 6)
    step = max(4, min(8, step))
    counts = [last.after]
    while counts[-1] > CLOSE_FROM:
        counts.append(max(counts[-1] - step, (counts[-1] + 1) // 2))
    number = (last.made.last or 0) + 1
    decrease = "invdec" if any(_has(i, "invdec") for w in rounds for i in w.made.body) else "dec"
    bodies = shaped_rounds(counts, Shaping(decrease=decrease))
    made = [Round(number + k, number + k, b, c) for k, (b, c) in enumerate(zip(bodies, counts[1:], strict=True))]
    lines = [print_round(r, terms) for r in made]
    lines.append(f"Fasten off and close: draw the tail through the last {counts[-1]} stitches and pull tight.")
    return _behind(text, checked, last, lines)


def open_end(text: str, checked: Checked, rounds: list[Written], line: int) -> str:
    """The end left open behind the round on `line`; rounds behind it go."""
    at = index_at(rounds, line)
    require(at < len(rounds) - 1 or checked.parts[0].closed, "The part is open there already.", field="line")
    return _behind(text, checked, rounds[at], [print_item(TAIL, checked.reading.pattern.terms)])


def _has(item: Instruction, key: str) -> bool:
    if isinstance(item, Repeat | Spur):
        return any(_has(i, key) for i in item.body)
    return isinstance(item, Work) and item.stitch == key


def _last(rounds: list[Written]) -> Written:
    last = rounds[-1] if rounds else None
    if last is None or not last.after or not is_plain(last) or last.made.last is None:
        raise CraftError("The part has to end in a plain round with a number.", field="do")
    return last


def _behind(text: str, checked: Checked, last: Written, lines: list[str]) -> str:
    """The text up to a round, with what belongs to it, and these lines; rounds and directions that end the part go."""
    items = [i for p in checked.reading.pattern.parts for i in p.items]
    later = [i for i in items if i.span.start > last.made.span.start]
    rounds_behind = [i for i in later if isinstance(i, Round)]
    cut = rounds_behind[0].span.start if rounds_behind else len(text)
    ends = [
        Span(i.span.start, _line_end(text, i.span.start))
        for i in later
        if isinstance(i, Step) and i.kind in _ENDS and i.span.start < cut
    ]
    kept = applied(text[:cut], [Edit(span, "") for span in ends]).rstrip()
    return "\n".join([kept, *lines]) + "\n"


def _line_end(text: str, start: int) -> int:
    end = text.find("\n", start)
    return len(text) if end < 0 else end + 1
