"""A pattern as written text, in US, UK or letter terms: one canonical spelling for each thing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.notation.finish import lifted
from craft.pattern import (
    Again,
    Chain,
    Cluster,
    Colour,
    Edge,
    FromHook,
    Instruction,
    Item,
    Join,
    Leave,
    Note,
    Onto,
    Part,
    Pattern,
    Repeat,
    Round,
    Same,
    Section,
    Shift,
    Skip,
    Spur,
    Start,
    StartKind,
    Step,
    Turn,
    Unread,
    Way,
    Work,
)
from craft.stitches import Loops, Terms, stitch


def _name(item: Work, terms: Terms) -> str:
    """The stitch's name, raised around a post when it says so."""
    entry = stitch(item.stitch)
    name = entry.name(terms)
    if entry.postable and item.loops in _POSTS:
        plain = entry.us[0] if terms is Terms.LETTERS else name
        return f"{_POSTS[item.loops]}{plain}"
    return name


_POSTS = {Loops.FRONT_POST: "FP", Loops.BACK_POST: "BP"}
_LOOPS = {
    Loops.BOTH: "in both loops",
    Loops.FRONT: "in FLO",
    Loops.BACK: "in BLO",
    Loops.FRONT_POST: "around front posts",
    Loops.BACK_POST: "around back posts",
}


def _numbered(item: Work, terms: Terms) -> str:
    entry = stitch(item.stitch)
    name = _name(item, terms)
    if item.stitch == "ch":
        return f"ch {item.count}"
    if item.count == 1:
        return name
    if terms is Terms.LETTERS and entry.letter and name == entry.letter:
        return f"{item.count}{name}"
    return f"{name} x {item.count}" if entry.change else f"{item.count} {name}"


def _work(item: Work, terms: Terms) -> str:
    said = _numbered(item, terms)
    posted = stitch(item.stitch).postable and item.loops in _POSTS
    loops = f" {_LOOPS[item.loops]}" if item.loops is not None and not posted else ""
    if item.loops in _POSTS and item.count == 1:
        loops = loops.removesuffix("s")
    through = ""
    if item.through is not None:
        through = f" through the {item.through}" if item.through else " through both layers"
    return f"{said}{loops}{through}"


def _start(item: Start, terms: Terms) -> str:
    stitches = _numbered(Work(item.stitch, item.count), terms)
    if item.count == 1:
        stitches = f"1{stitches}" if terms is Terms.LETTERS and len(stitches) == 1 else f"1 {stitches}"
    if item.start is StartKind.RING:
        return f"{stitches} in ring"
    return f"ch 2, {stitches} in 2nd ch from hook"


def _repeat(item: Repeat, terms: Terms) -> str:
    body = print_body(item.body, terms)
    alone = item.body[0] if len(item.body) == 1 else None
    if item.times is None:
        plain = isinstance(alone, Work) and alone.count == 1 and alone.loops is None and alone.through is None
        where = "around" if item.leave is None else f"to last {item.leave} sts"
        return f"{body} {where}" if plain else f"({body}) {where}"
    return f"({body}) {'*' if terms is Terms.LETTERS else 'x'} {item.times}"


def _onto(item: Onto) -> str:
    rejoin = "rejoin " if item.rejoin else ""
    match item.edge:
        case Edge.MAIN:
            words = "back on the main edge"
        case Edge.CHAIN:
            words = "along the other side of the chain"
        case Edge.PIECE:
            words = f"around the {item.name}"
        case Edge.HELD:
            words = "on the held stitches"
        case Edge.FREE:
            side = {Loops.FRONT: "front ", Loops.BACK: "back "}.get(item.loops or Loops.BOTH, "")
            words = f"in the free {side}loops" + (f" of R{item.round}" if item.round is not None else "")
        case Edge.SIDE:
            words = "along the edge"
        case Edge.BASE:
            words = "in the edge sts"
    return rejoin + words


_NTH = {2: "2nd", 3: "3rd"}


def _instruction(item: Instruction, terms: Terms) -> str:
    match item:
        case Work():
            return _work(item, terms)
        case Start():
            return _start(item, terms)
        case Repeat():
            return _repeat(item, terms)
        case Cluster():
            return f"({print_body(item.body, terms)}) in next st"
        case Same():
            one = stitch(item.stitch).name(terms)
            return ", ".join([f"{one} in same st"] * item.count)
        case Skip():
            return f"skip {item.count}" if item.count else "skip the sl sts"
        case Chain():
            said = {None: "", True: " (counts as a stitch)", False: " (does not count)"}[item.counts]
            return f"ch {item.count}{said}"
        case FromHook():
            return f"from {_NTH.get(item.nth, f'{item.nth}th')} ch"
        case Spur():
            return f"ch {item.chain}, from {_NTH.get(item.nth, f'{item.nth}th')} ch, {print_body(item.body, terms)}"
        case Join():
            return "join"
        case Turn():
            return "turn"
        case Leave():
            return "leave the rest" if item.count is None else f"leave last {item.count} sts"
        case Shift():
            return f"shift {item.count}"
        case Onto():
            return _onto(item)
        case Again():
            return f"repeat R{item.first}" + (f"-R{item.last}" if item.last != item.first else "")
        case Colour():
            return f"with {item.name}"
        case Unread():
            return item.text


def print_body(body: Sequence[Instruction], terms: Terms) -> str:
    """The work of a round, without label and count."""
    out: list[str] = []
    edge: Onto | None = None
    for item in body:
        if edge is not None:
            simple = isinstance(item, Work) and item.through is None and item.loops is None
            out.append(f"{_instruction(item, terms)} {_onto(edge)}" if simple else _onto(edge))
            edge = None
            if simple:
                continue
        if isinstance(item, Onto) and not item.rejoin and item.edge in _BEHIND:
            edge = item
        else:
            out.append(_instruction(item, terms))
    if edge is not None:
        out.append(_onto(edge))
    return ", ".join(out)


_BEHIND = (Edge.CHAIN, Edge.PIECE, Edge.BASE)
"""Edges that read best behind the stitches worked on them."""


def print_round(made: Round, terms: Terms, *, label: bool = True, count: int | None = None) -> str:
    """One line for a round; `count` stands in where the text states none."""
    return f"{print_label(made) if label else ''}{print_work(made, terms)}{_bracket(made, terms, count)}".rstrip()


def print_label(made: Round) -> str:
    """The label with its colon, empty for a line that has none."""
    if made.way is Way.LINE:
        return ""
    longer = f" (or to R{made.or_to})" if made.or_to is not None else ""
    return f"{made.label}{longer}: "


def print_work(made: Round, terms: Terms) -> str:
    """What a round works, with the loops it works in, without label and count."""
    body, whole = lifted(made.body, made.loops)
    loops = {Loops.BACK: "BLO: ", Loops.FRONT: "FLO: "}.get(whole, "")
    if whole in _POSTS:
        loops = f"{_LOOPS[whole]}: "
    return f"{loops}{print_body(body, terms)}"


def _bracket(made: Round, terms: Terms, count: int | None) -> str:
    said = made.count if made.count is not None else count
    return "" if said is None else (f" ({said})" if terms is Terms.LETTERS else f" [{said}]")


def print_item(item: Item, terms: Terms) -> str:
    """One line for a round, a step, a note or a change of colour."""
    match item:
        case Round():
            return print_round(item, terms)
        case Colour():
            return f"Change to {item.name}"
        case Section():
            return f"## {item.name}"
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
            and item.way is above.way
            and above.or_to is None
            and item.or_to is None
            and not any(isinstance(i, Again | Start | Chain) for i in item.body)
        ):
            out[-1] = replace(above, last=item.last)
        else:
            out.append(item)
    return tuple(out)


def unfolded(items: Sequence[Item]) -> tuple[Item, ...]:
    """Every range of equal rounds as rounds of their own."""
    out: list[Item] = []
    for item in items:
        if isinstance(item, Round) and item.first is not None and item.last is not None and not _again(item):
            out.extend(replace(item, first=n, last=n) for n in range(item.first, item.last + 1))
        else:
            out.append(item)
    return tuple(out)


def _again(item: Round) -> bool:
    return any(isinstance(i, Again) for i in item.body)


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
