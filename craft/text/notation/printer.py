"""A pattern as written text: one canonical spelling for each thing, in any wording."""

from __future__ import annotations

from collections.abc import Sequence

from craft.rounds.pattern import (
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
from craft.rounds.stitches import Loops, Terms, stitch
from craft.text.notation.finish import lifted
from craft.text.notation.wording import Wording

_POSTS = (Loops.FRONT_POST, Loops.BACK_POST)


def wording_of(how: Wording | Terms) -> Wording:
    """A wording from terms alone."""
    return how if isinstance(how, Wording) else Wording(how)


# --- instructions -------------------------------------------------------------------------


def _numbered(item: Work, say: Wording) -> str:
    entry = stitch(item.stitch)
    if item.stitch == "ch":
        return say.say("chain", item.count)
    name = say.name(entry, item.loops)
    if item.count == 1:
        return name
    if say.is_letter(item.stitch, name):
        return f"{item.count}{name}"
    return f"{name} x {item.count}" if entry.change else f"{item.count} {name}"


def _work(item: Work, say: Wording) -> str:
    said = _numbered(item, say)
    posted = stitch(item.stitch).postable and item.loops in _POSTS
    if item.loops is not None and not posted:
        loops = say.say(f"loops-{item.loops.value}")
        alone = item.loops in _POSTS and item.count == 1
        said += f" {loops.removesuffix('s') if alone else loops}"
    if item.through is not None:
        said += " " + (say.say("through", item.through) if item.through else say.say("both-layers"))
    return said


def _start(item: Start, say: Wording) -> str:
    stitches = _numbered(Work(item.stitch, item.count), say)
    if item.count == 1:
        stitches = f"1{stitches}" if say.is_letter(item.stitch, stitches) else f"1 {stitches}"
    return say.say("ring" if item.start is StartKind.RING else "chain2", stitches)


def _repeat(item: Repeat, say: Wording) -> str:
    body = print_body(item.body, say)
    alone = item.body[0] if len(item.body) == 1 else None
    if item.times is None:
        plain = isinstance(alone, Work) and alone.count == 1 and alone.loops is None and alone.through is None
        said = body if plain else f"({body})"
        return say.say("around", said) if item.leave is None else say.say("to-last", said, item.leave)
    return f"({body}) {'*' if say.letters else 'x'} {item.times}"


def _onto(item: Onto, say: Wording) -> str:
    match item.edge:
        case Edge.PIECE:
            words = say.say("piece", item.name)
        case Edge.FREE:
            side = {Loops.FRONT: "free-front", Loops.BACK: "free-back"}.get(item.loops or Loops.BOTH, "free")
            words = say.say(side) + (say.say("of-round", item.round) if item.round is not None else "")
        case Edge.CHAIN:
            words = say.say("other-side")
        case _:
            words = say.say(item.edge.value)
    return say.say("rejoin", words) if item.rejoin else words


def _chain(item: Chain, say: Wording) -> str:
    said = {None: "", True: "counts", False: "counts-not"}[item.counts]
    return say.say("chain", item.count) + (say.say(said) if said else "")


def _instruction(item: Instruction, say: Wording) -> str:
    match item:
        case Work():
            words = _work(item, say)
        case Start():
            words = _start(item, say)
        case Repeat():
            words = _repeat(item, say)
        case Cluster():
            words = say.say("cluster", print_body(item.body, say))
        case Same():
            words = ", ".join([say.say("same", say.name(stitch(item.stitch)))] * item.count)
        case Skip():
            words = say.say("skip", item.count) if item.count else say.say("skip-slip")
        case Chain():
            words = _chain(item, say)
        case FromHook():
            words = say.say("from", say.nth(item.nth))
        case Spur():
            begin = f"{say.say('chain', item.chain)}, {say.say('from', say.nth(item.nth))}"
            words = f"{begin}, {print_body(item.body, say)}"
        case _:
            words = _movement(item, say)
    return words


def _movement(item: Instruction, say: Wording) -> str:
    match item:
        case Leave():
            words = say.say("leave") if item.count is None else say.say("leave-n", item.count)
        case Shift():
            words = say.say("shift", item.count)
        case Onto():
            words = _onto(item, say)
        case Again():
            one = item.last == item.first
            words = say.say("again", item.first) if one else say.say("again-range", item.first, item.last)
        case Colour():
            words = say.say("with", item.name)
        case Unread():
            words = item.text
        case Join():
            words = say.say("join")
        case Turn():
            words = say.say("turn")
        case _:
            words = ""
    return words


_BEHIND = (Edge.CHAIN, Edge.PIECE, Edge.BASE)
"""Edges that read best behind the stitches worked on them."""


def print_body(body: Sequence[Instruction], how: Wording | Terms) -> str:
    """The work of a round, without label and count."""
    say = wording_of(how)
    out: list[str] = []
    edge: Onto | None = None
    for item in body:
        if edge is not None:
            simple = isinstance(item, Work) and item.through is None and item.loops is None
            out.append(f"{_instruction(item, say)} {_onto(edge, say)}" if simple else _onto(edge, say))
            edge = None
            if simple:
                continue
        if isinstance(item, Onto) and not item.rejoin and item.edge in _BEHIND:
            edge = item
        else:
            out.append(_instruction(item, say))
    if edge is not None:
        out.append(_onto(edge, say))
    return ", ".join(out)


# --- rounds and parts ---------------------------------------------------------------------


def print_round(made: Round, how: Wording | Terms, *, label: bool = True, count: int | None = None) -> str:
    """One line for a round; `count` stands in where the text states none."""
    say = wording_of(how)
    return f"{print_label(made, say) if label else ''}{print_work(made, say)}{_bracket(made, say, count)}".rstrip()


def print_label(made: Round, how: Wording | Terms = Terms.US) -> str:
    """The label with its colon, empty for a line that has none."""
    if made.way is Way.LINE:
        return ""
    say = wording_of(how)
    row = made.way is Way.ROW
    if made.first is None:
        return f"{say.say('next-row' if row else 'next-round')}: "
    if made.repeats == 1:
        said = say.say("row" if row else "round", made.first)
    else:
        said = say.say("rows" if row else "rounds", made.first, made.last)
    return f"{said}{say.say('longer', made.or_to) if made.or_to is not None else ''}: "


def print_work(made: Round, how: Wording | Terms) -> str:
    """What a round works, with the loops it works in, without label and count."""
    say = wording_of(how)
    body, whole = lifted(made.body, made.loops)
    lead = ""
    if whole in _POSTS:
        lead = f"{say.say(f'loops-{whole.value}')}: "
    elif whole is not Loops.BOTH:
        lead = say.say(f"lead-{whole.value}")
    return f"{lead}{print_body(body, say)}"


def _bracket(made: Round, say: Wording, count: int | None) -> str:
    said = made.count if made.count is not None else count
    return "" if said is None else (f" ({said})" if say.letters else f" [{said}]")


def print_item(item: Item, how: Wording | Terms) -> str:
    """One line for a round, a step, a note or a change of colour."""
    say = wording_of(how)
    match item:
        case Round():
            return print_round(item, say)
        case Colour():
            return say.say("colour", item.name)
        case Section():
            return f"## {item.name}"
        case Step() | Note():
            return item.text


def print_part(part: Part, how: Wording | Terms, *, heading: bool = True) -> str:
    """A part's heading and lines, each ended by a line break."""
    say = wording_of(how)
    lines = [f"# {say.say('make', part.name, part.make)}"] if heading and part.name is not None else []
    lines += [print_item(item, say) for item in part.items]
    return "".join(f"{line}\n" for line in lines)


def print_rounds(part: Part, how: Wording | Terms = Terms.US) -> str:
    """The rounds of a part in words, without its heading."""
    return print_part(part, how, heading=False)


def print_pattern(pattern: Pattern, how: Wording | Terms | None = None) -> str:
    """The whole pattern in a wording, or in its own terms; starts with its head block."""
    say = wording_of(how or pattern.terms)
    names = {Terms.US: "US", Terms.UK: "UK", Terms.LETTERS: "letters"}
    said = "" if say.language is not None else f"Terms: {names[say.terms]}\n"
    head = said + "".join(f"{e.key.capitalize()}: {e.value}\n" for e in pattern.head)
    return "\n".join([head, *(print_part(part, say) for part in pattern.parts)])
