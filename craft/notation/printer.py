"""A pattern as written text, in US, UK or letter terms: one canonical spelling for each thing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.pattern import (
    Chain,
    Colour,
    Instruction,
    Item,
    Join,
    Note,
    Part,
    Pattern,
    Repeat,
    Round,
    Start,
    StartKind,
    Step,
    Unread,
    Work,
)
from craft.stitches import Loops, Terms, stitch


def _work(item: Work, terms: Terms) -> str:
    entry = stitch(item.stitch)
    name = entry.name(terms)
    if item.count == 1:
        return name
    if terms is Terms.LETTERS and entry.letter:
        return f"{item.count}{name}"
    return f"{name} x {item.count}" if entry.change else f"{item.count} {name}"


def _start(item: Start, terms: Terms) -> str:
    stitches = _work(Work("sc", item.count), terms)
    if item.count == 1:
        stitches = f"1{stitches}" if terms is Terms.LETTERS else f"1 {stitches}"
    if item.start is StartKind.RING:
        return f"{stitches} in ring"
    return f"ch 2, {stitches} in 2nd ch from hook"


def _repeat(item: Repeat, terms: Terms) -> str:
    body = print_body(item.body, terms)
    alone = item.body[0] if len(item.body) == 1 else None
    if item.times is None:
        return f"{body} around" if isinstance(alone, Work) and alone.count == 1 else f"({body}) around"
    return f"({body}) {'*' if terms is Terms.LETTERS else 'x'} {item.times}"


def _instruction(item: Instruction, terms: Terms) -> str:
    match item:
        case Work():
            return _work(item, terms)
        case Start():
            return _start(item, terms)
        case Repeat():
            return _repeat(item, terms)
        case Chain():
            return f"ch {item.count}"
        case Join():
            return "join"
        case Colour():
            return f"with {item.name}"
        case Unread():
            return item.text


def print_body(body: Sequence[Instruction], terms: Terms) -> str:
    """The work of a round, without label and count."""
    return ", ".join(_instruction(item, terms) for item in body)


def print_round(made: Round, terms: Terms, *, label: bool = True, count: int | None = None) -> str:
    """One line for a round; `count` stands in where the text states none."""
    loops = {Loops.BOTH: "", Loops.BACK: "BLO: ", Loops.FRONT: "FLO: "}[made.loops]
    words = f"{made.label}: " if label else ""
    said = made.count if made.count is not None else count
    bracket = "" if said is None else (f" ({said})" if terms is Terms.LETTERS else f" [{said}]")
    return f"{words}{loops}{print_body(made.body, terms)}{bracket}".rstrip()


def print_item(item: Item, terms: Terms) -> str:
    """One line for a round, a step, a note or a change of colour."""
    match item:
        case Round():
            return print_round(item, terms)
        case Colour():
            return f"Change to {item.name}"
        case Step() | Note():
            return item.text


def folded(items: Sequence[Item]) -> tuple[Item, ...]:
    """Equal rounds that follow each other without a word between become one range."""
    out: list[Item] = []
    for item in items:
        above = out[-1] if out else None
        if (
            isinstance(item, Round)
            and isinstance(above, Round)
            and above.last is not None
            and item.first == above.last + 1
            and item.body == above.body
            and item.count == above.count
            and item.loops == above.loops
        ):
            out[-1] = replace(above, last=item.last)
        else:
            out.append(item)
    return tuple(out)


def unfolded(items: Sequence[Item]) -> tuple[Item, ...]:
    """Every range of equal rounds as rounds of their own."""
    out: list[Item] = []
    for item in items:
        if isinstance(item, Round) and item.first is not None and item.last is not None:
            out.extend(replace(item, first=n, last=n) for n in range(item.first, item.last + 1))
        else:
            out.append(item)
    return tuple(out)


def print_part(part: Part, terms: Terms, *, heading: bool = True) -> str:
    """A part's heading and lines, each ended by a line break."""
    lines = [f"# {part.name} (make {part.make})"] if heading and part.name is not None else []
    lines += [print_item(item, terms) for item in part.items]
    return "".join(f"{line}\n" for line in lines)


def print_pattern(pattern: Pattern, terms: Terms | None = None) -> str:
    """The whole pattern in `terms`, or in its own; starts with its head block."""
    used = terms or pattern.terms
    names = {Terms.US: "US", Terms.UK: "UK", Terms.LETTERS: "letters"}
    head = f"Terms: {names[used]}\n" + "".join(f"{e.key.capitalize()}: {e.value}\n" for e in pattern.head)
    return "\n".join([head, *(print_part(part, used) for part in pattern.parts)])
