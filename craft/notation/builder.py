"""Parse tree to instructions: what each rule of the grammar means."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from lark import Token, Transformer, v_args

from craft.errors import CraftError
from craft.notation.names import Names, colour_name, piece_name
from craft.notation.terms import stitch_word
from craft.pattern import (
    MOST_COUNT,
    Again,
    Chain,
    Cluster,
    Colour,
    Edge,
    Instruction,
    Join,
    Leave,
    Onto,
    Repeat,
    Same,
    Shift,
    Skip,
    Start,
    StartKind,
    Turn,
    Work,
)
from craft.problems import Span
from craft.stitches import Loops, Terms, decrease_of, increase_of, stitch


@dataclass(frozen=True, slots=True)
class BareRing:
    """A ring whose stitches are named after it: 'magic ring, 6 sc'."""

    span: Span


@dataclass(frozen=True, slots=True)
class IntoChain:
    """Work that begins in the nth chain from the hook; what it is depends on the chain before it."""

    nth: int
    work: Work | None
    span: Span


@dataclass(frozen=True, slots=True)
class StarRepeat:
    """`*…; rep from * n times`, whose reading is settled once the round below is known."""

    body: tuple[Instruction | StarRepeat, ...]
    said: int
    span: Span
    times_span: Span


@dataclass(frozen=True, slots=True)
class LoopsFrom:
    """From here on, or for one piece, where the hook goes in. apart: with a comma or colon behind."""

    loops: Loops
    span: Span
    apart: bool = False


@dataclass(frozen=True, slots=True)
class AndEach:
    """'… and in each chain to the end': the stitch before it once more in every place left, or in `n`."""

    span: Span
    n: int | None = None


@dataclass(frozen=True, slots=True)
class Qual:
    """What stands behind a stitch or group. how: 'next', 'each', 'around', 'times', …"""

    how: str
    span: Span
    n: int | None = None
    loops: Loops | None = None
    name: str = ""
    move: Any = None


WORD_NUMBERS = {
    "once": 1, "twice": 2, "thrice": 3, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7,
    "eight": 8, "nine": 9, "ten": 10, "twelve": 12, "second": 2, "third": 3, "fourth": 4, "fifth": 5,
}  # fmt: skip


def number(token: str, default: int = 1) -> int:
    """The number that a phrase says, in digits or in words; CraftError when no pattern means it."""
    if digits := re.search(r"\d+", token):
        n = int(digits.group(0))
    else:
        words = re.findall(r"[a-z]+", token.lower())
        n = next((WORD_NUMBERS[w] for w in words if w in WORD_NUMBERS), default)
    if not 1 <= n <= MOST_COUNT:
        raise CraftError(f"{n:,} is not a number of stitches or repeats; it runs from 1 to {MOST_COUNT:,}.")
    return n


def _span(meta: Any) -> Span:
    return Span(meta.start_pos, meta.end_pos)


def token_span(token: Token) -> Span:
    """Where a token stands."""
    return Span(token.start_pos or 0, token.end_pos or 0)


def _digits_span(token: Token) -> Span:
    digits = re.search(r"\d+", token)
    whole = token_span(token)
    return Span(whole.start + digits.start(), whole.start + digits.end()) if digits else whole


def _loops(token: str) -> Loops:
    said = token.lower()
    if "post" in said:
        return Loops.FRONT_POST if "front" in said else Loops.BACK_POST
    if "both" in said:
        return Loops.BOTH
    return Loops.BACK if re.search(r"bl|back", said) else Loops.FRONT


def _free_side(token: str) -> Loops | None:
    said = token.lower()
    return Loops.FRONT if "front" in said else Loops.BACK if "back" in said else None


def _typed(children: Sequence[Any], kind: str) -> Token | None:
    return next((t for t in children if isinstance(t, Token) and t.type == kind), None)


def _quals(children: Sequence[Any]) -> list[Qual]:
    return [c for c in children if isinstance(c, Qual)]


@v_args(meta=True)
class Builder(Transformer[Token, Any]):
    """Turns the parse tree into instructions; methods are named after the grammar's rules.

    raw: the text before names were marked in it.
    """

    def __init__(self, terms: Terms, names: Names, raw: str) -> None:
        super().__init__()
        self.terms = terms
        self.names = names
        self.raw = raw

    # --- sequence -----------------------------------------------------------------------

    def start(self, meta: Any, children: list[Any]) -> list[Any]:
        items: list[Any] = []
        for item in children[0]:
            if isinstance(item, Qual):
                lead = next((i for i, x in enumerate(items) if not isinstance(x, Chain | Turn | LoopsFrom)), 0)
                items = [*items[:lead], repeat_of(items[lead:], item, _span(meta))] if items[lead:] else items
            else:
                items.append(item)
        return items

    def repeat_all(self, _: Any, children: list[Token]) -> list[Qual]:
        if "around" in children[0].lower():
            return [Qual("around", token_span(children[0]))]
        return [Qual("said", _digits_span(children[0]), number(children[0]))]

    def sequence(self, _: Any, children: list[Any]) -> list[Any]:
        out: list[Any] = []
        for child in children:
            out += child
        return out

    def piece(self, _: Any, children: list[Any]) -> list[Any]:
        leads = [c for c in children if isinstance(c, Qual)]
        core = [c for c in children if not isinstance(c, Qual)]
        out: list[Any] = []
        for lead in leads:
            if lead.how == "loops":
                assert lead.loops is not None
                out.append(LoopsFrom(lead.loops, lead.span, apart=not core))
            else:
                out.append(lead.move)
        return [*out, *(c for item in core for c in (item if isinstance(item, list) else [item]))]

    # --- leads and edges ----------------------------------------------------------------

    def loops(self, _: Any, children: list[Token]) -> Qual:
        every = "every" if children[0].lower().endswith("posts") else ""
        return Qual("loops", token_span(children[0]), loops=_loops(children[0]), name=every)

    def _onto(self, token: Token, edge: Edge, **more: Any) -> Qual:
        span = token_span(token)
        return Qual("onto", span, n=_count_in(token), move=Onto(edge, span=span, **more))

    def underside(self, _: Any, children: list[Token]) -> Qual:
        return self._onto(children[0], Edge.CHAIN)

    def free(self, _: Any, children: list[Token]) -> Qual:
        digits = re.search(r"\d+", children[0])
        of = int(digits.group(0)) if digits else None
        return replace(self._onto(children[0], Edge.FREE, loops=_free_side(children[0]), round=of), n=None)

    def held(self, _: Any, children: list[Token]) -> Qual:
        return replace(self._onto(children[0], Edge.HELD), n=None)

    def side(self, _: Any, children: list[Token]) -> Qual:
        return self._onto(children[0], Edge.SIDE)

    def main(self, _: Any, children: list[Token]) -> Qual:
        return self._onto(children[0], Edge.MAIN)

    def on_piece(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        name = piece_name(self.raw[span.start : span.end], self.names)
        return Qual("onto", span, move=Onto(Edge.PIECE, name, span=span))

    def from_hook(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        ordinal = re.search(r"(?i)\d+|second|third|fourth|fifth", children[0])
        nth = number(ordinal.group(0)) if ordinal else 2
        return Qual("from-hook", span, n=nth, move=IntoChain(max(nth, 2), None, span))

    def rejoin(self, meta: Any, children: list[Any]) -> Qual:
        qual: Qual = children[1]
        move = qual.move
        return replace(qual, move=replace(move, rejoin=True, span=_span(meta)) if isinstance(move, Onto) else move)

    def named_colour(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        return Qual("colour", span, move=Colour(colour_name(self.raw[span.start : span.end], self.names), span))

    # --- single instructions ------------------------------------------------------------

    def ring(self, meta: Any, children: list[Any]) -> Start | BareRing:
        count = _typed(children, "NUMBER")
        if count is None:
            return BareRing(_span(meta))
        named = _typed(children, "STITCH")
        key = self._word(named).stitch if named is not None else "sc"
        return Start(StartKind.RING, number(count), key, _span(meta))

    def chain(self, meta: Any, children: list[Any]) -> Chain:
        said = _typed(children, "COUNTS")
        count = _typed(children, "NUMBER")
        counts = None if said is None else not re.search(r"(?i)\bnot\b|n.?t\s", said)
        return Chain(number(count or "1"), counts, _span(meta))

    def colour(self, meta: Any, children: list[Token]) -> Colour:
        return Colour(colour_name(str(children[0]), self.names), _span(meta))

    def join(self, meta: Any, _: Any) -> Join | list[Any]:
        return Join(_span(meta))

    def join_to(self, meta: Any, children: list[Any]) -> list[Any]:
        """A chain carried over to a piece; joined there with a stitch, that stitch is the first of the piece."""
        onto = self.on_piece(meta, [children[1]]).move
        named = _typed(children, "STITCH")
        work = self._word(named) if named is not None else None
        if work is None or work.stitch == "slst":
            return [onto]
        return [onto, replace(work, span=_span(meta))]

    def turn(self, meta: Any, _: Any) -> Turn:
        return Turn(_span(meta))

    def skip(self, meta: Any, children: list[Token]) -> Skip:
        said = re.sub(r"(?i)^(skip|skipping|sk|miss|missing)", "", children[0])
        if re.search(r"(?i)sl\s*st|slip|\bss\b", said):
            return Skip(0, _span(meta))
        return Skip(number(said), _span(meta))

    def leave(self, meta: Any, children: list[Token]) -> Leave | Skip:
        said = str(children[0])
        many = number(said) if _says_number(said) else None
        if many is not None and re.search(r"(?i)\bnext\b|\bfollowing\b", said):
            return Skip(many, _span(meta))
        return Leave(many, _span(meta))

    def shift(self, meta: Any, children: list[Token]) -> Shift:
        return Shift(number(children[0]), _span(meta))

    def again(self, meta: Any, children: list[Token]) -> Again:
        found = [int(n) for n in re.findall(r"\d+", children[0])][:2]
        first, last = found[0], found[-1]
        if not 1 <= first <= last:
            raise CraftError(f"Rounds {first} to {last} cannot be repeated.")
        return Again(first, last, _span(meta))

    def and_each(self, meta: Any, _: Any) -> AndEach:
        return AndEach(_span(meta))

    # --- stitches -----------------------------------------------------------------------

    def _word(self, token: Token | None) -> Work:
        found = stitch_word(str(token), self.terms) if token is not None else None
        if found is None:
            raise CraftError(f"'{token}' is no stitch.")
        assert token is not None
        return Work(found.key, 1, found.loops, None, token_span(token))

    def _stitch(self, children: list[Any]) -> Work:
        return self._word(_typed(children, "STITCH"))

    def one(self, meta: Any, children: list[Any]) -> list[Any]:
        return _qualified(self._stitch(children), None, _quals(children), _span(meta))

    def many(self, meta: Any, children: list[Any]) -> list[Any]:
        return _qualified(self._stitch(children), number(children[0]), _quals(children), _span(meta))

    many_before = many

    def many_after(self, meta: Any, children: list[Any]) -> list[Any]:
        count = _typed(children, "NUMBER")
        return _qualified(self._stitch(children), number(count or "1"), _quals(children), _span(meta))

    many_times = many_after

    def many_again(self, meta: Any, children: list[Any]) -> list[Any]:
        return [replace(self._stitch(children), count=number(children[0]) * number(children[3]), span=_span(meta))]

    def together(self, meta: Any, children: list[Any]) -> list[Any]:
        work = self._stitch(children)
        said = str(_typed(children, "TOGETHER"))
        found = decrease_of(work.stitch, number(said, 2))
        if found is None:
            raise CraftError(f"{number(said, 2)} {stitch(work.stitch).us[0]} together is no stitch.")
        return _qualified(replace(work, stitch=found.key), None, _quals(children), _span(meta))

    # --- what stands behind a stitch ----------------------------------------------------

    def _qual(self, how: str, token: Token, n: int | None = None) -> Qual:
        return Qual(how, token_span(token), n)

    def next(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("next", children[0])

    def same(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("same", children[0])

    def each_of(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("each-of", children[0], number(children[0]))

    def each(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("each", children[0])

    def around(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("around", children[0])

    def to_last(self, _: Any, children: list[Token]) -> Qual:
        return Qual("to-last", token_span(children[0]), number(children[0]))

    def over(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("over", children[0], number(children[0]))

    def in_space(self, _: Any, children: list[Token]) -> Qual:
        digits = re.search(r"\d+", children[0])
        return Qual("space", token_span(children[0]), number(digits.group(0)) if digits else None)

    def even(self, meta: Any, _: Any) -> Repeat:
        return Repeat((Work("sc", span=_span(meta)),), None, None, _span(meta))

    def in_ring(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("ring", children[0])

    def through_both(self, _: Any, children: list[Token]) -> Qual:
        return Qual("through", token_span(children[0]), name="")

    def through(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        phrase = self.raw[span.start : span.end]
        name = piece_name(phrase, self.names)
        return Qual("through", span, name=name, n=2 if re.search(r"(?i)through\s+both\s+\S+s\s*$", phrase) else None)

    def in_base(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        return Qual("onto", span, n=_count_in(children[0]), move=Onto(Edge.BASE, span=span))

    def worked_in(self, _: Any, children: list[Token]) -> Qual:
        span = token_span(children[0])
        return Qual("colour", span, move=Colour(colour_name(str(children[0]), self.names), span))

    worked_in_named = named_colour

    def also_each(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("also-each", children[0])

    def times_number(self, _: Any, children: list[Token]) -> Qual:
        return Qual("times", token_span(children[1]), number(children[1]))

    def times_words(self, _: Any, children: list[Token]) -> Qual:
        return Qual("said", _digits_span(children[0]), number(children[0]))

    def more(self, _: Any, children: list[Token]) -> Qual:
        return Qual("more", token_span(children[0]), number(children[0]) + 1)

    def also_next(self, _: Any, children: list[Token]) -> Qual:
        return self._qual("also-each", children[0], number(children[0].lower().split("in", 1)[1]))

    # --- groups -------------------------------------------------------------------------

    def group(self, meta: Any, children: list[Any]) -> list[Any]:
        return _group(children[0], _quals(children), _span(meta))

    def group_first(self, meta: Any, children: list[Any]) -> list[Any]:
        times = Qual("times", token_span(children[0]), number(children[0]))
        body = next(c for c in children if isinstance(c, list))
        return _group(body, [times, *_quals(children)], _span(meta))

    def star_closed(self, meta: Any, children: list[Any]) -> list[Any]:
        body = next(c for c in children if isinstance(c, list))
        return _group(body, _quals(children), _span(meta))

    def star_rep(self, meta: Any, children: list[Any]) -> list[Any]:
        body = next(c for c in children if isinstance(c, list))
        times = next(iter(_quals(children)), None)
        if times is not None and times.how == "said" and times.n is not None:
            return [StarRepeat(tuple(body), times.n, _span(meta), times.span)]
        return _group(body, [times or Qual("around", _span(meta))], _span(meta))


def _says_number(said: str) -> bool:
    return bool(re.search(r"\d", said)) or any(w in WORD_NUMBERS for w in re.findall(r"[a-z]+", said.lower()))


def _count_in(token: str) -> int | None:
    """A number inside a phrase such as 'in next 2 edge sts'; none when there is none."""
    found = re.search(r"\d+|(?<!\w)(?:two|three)(?!\w)", token.lower())
    return number(found.group(0)) if found else None


def _into(work: Work, n: int) -> Work:
    """`n` of a stitch into one place."""
    if n == 1:
        return work
    entry = stitch(work.stitch)
    found = increase_of(work.stitch, n)
    if found is None:
        raise CraftError(f"{n} {entry.us[0]} into one stitch is not known.")
    return replace(work, stitch=found.key)


def _qualified(work: Work, n: int | None, quals: list[Qual], span: Span) -> list[Any]:
    """A stitch with its number and everything behind it."""
    before: list[Any] = []
    after: list[Any] = []
    count, work, rest = n, replace(work, span=span), []
    for qual in quals:
        match qual.how:
            case "loops":
                work = replace(work, loops=qual.loops)
                if qual.name == "every" and n is None and not any(q.how in _PLACES for q in quals):
                    rest.append(Qual("around", qual.span))
            case "through":
                work = replace(work, through=qual.name)
                if qual.n == 2 and qual.name:
                    before.append(Onto(Edge.PIECE, f"first {qual.name}", span=qual.span))
                    work = replace(work, through=f"second {qual.name}")
            case "onto" | "colour":
                before.append(qual.move)
                if qual.n and count is None:
                    count = qual.n
            case "also-each":
                after.append(AndEach(qual.span, qual.n))
            case _:
                rest.append(qual)
    made = _placed(work, count, rest, span)
    return [*before, *made, *after]


def _placed(work: Work, count: int | None, quals: list[Qual], span: Span) -> list[Any]:
    """A stitch with its number, and where and how often it is worked."""
    n = count or 1
    at = next((q for q in quals if q.how in _PLACES), None)
    others = [q for q in quals if q is not at]
    many = next((q for q in others if q.how in ("times", "said", "more")), None)
    if at is None:
        if many is None:
            return [replace(work, count=n)]
        assert many.n is not None
        return [replace(work, count=n * many.n)]
    match at.how:
        case "ring":
            return [Start(StartKind.RING, n, work.stitch, span)]
        case "from-hook":
            return [IntoChain(at.n or 2, replace(work, count=n), span)]
        case "next":
            made: Any = _into(work, n)
        case "same":
            made = Same(work.stitch, 1, span) if n == 1 else _into(work, n)
        case "each-of":
            assert at.n is not None
            made = replace(_into(work, n), count=at.n)
        case "over":
            made = _over(work, at)
        case "space":
            return _into_space(work, n, at.n)
        case _:
            into = _into(work, n) if at.how == "each" else replace(work, count=n)
            return [Repeat((into,), None, at.n if at.how == "to-last" else None, span)]
    tail = next((q for q in others if q.how in ("around", "each", "to-last")), None)
    if tail is not None:
        return [Repeat((made,), None, tail.n if tail.how == "to-last" else None, span)]
    if many is not None and isinstance(made, Work):
        assert many.n is not None
        return [replace(made, count=made.count * many.n)]
    return [made]


_PLACES = ("space", "ring", "from-hook", "next", "same", "each-of", "over", "each", "around", "to-last")


def _into_space(work: Work, n: int, chains: int | None) -> list[Any]:
    """`n` stitches around a bridge of `chains`: as many as it has chains, one in each."""
    if chains is None or chains == n:
        return [replace(work, count=n)]
    return [Cluster((replace(work, count=n),), work.span), *([Skip(chains - 1, work.span)] if chains > 1 else [])]


def _over(work: Work, qual: Qual) -> Work:
    takes = stitch(work.stitch).takes
    below = qual.n or 1
    if not takes or below % takes:
        raise CraftError(
            f"{stitch(work.stitch).us[0]} takes {takes} stitch{'es' if takes != 1 else ''}, which does not divide {below}."
        )
    return replace(work, count=below // takes)


def _with_loops(item: Any, loops: Loops | None, through: str | None, second: bool) -> Any:
    if isinstance(item, Work):
        return replace(
            item,
            loops=loops if item.loops is None else item.loops,
            through=item.through if through is None else through,
        )
    if isinstance(item, Repeat | Cluster):
        return replace(item, body=tuple(_with_loops(i, loops, through, second) for i in item.body))
    return item


def _group(body: list[Any], quals: list[Qual], span: Span) -> list[Any]:
    """A bracket with everything behind it."""
    before: list[Any] = []
    rest: list[Qual] = []
    for qual in quals:
        if qual.how == "loops":
            body = [_with_loops(i, qual.loops, None, second=False) for i in body]
        elif qual.how == "through":
            body = [_with_loops(i, None, qual.name, second=False) for i in body]
        elif qual.how in ("onto", "colour"):
            before.append(qual.move)
        elif qual.how != "also-each":
            rest.append(qual)
    at = next((q for q in rest if q.how in ("ring", "next", "same", "each-of", "each", "from-hook")), None)
    times = next((q for q in rest if q is not at), None)
    if at is not None and at.how == "ring":
        return [
            *before,
            *(Start(StartKind.RING, i.count, i.stitch, i.span) if isinstance(i, Work) else i for i in body),
        ]
    if at is not None and at.how != "from-hook":
        cluster = _cluster(body, span)
        if at.how == "each":
            return [*before, Repeat((cluster,), None, None, span)]
        if at.how == "each-of":
            return [*before, Repeat((cluster,), at.n, None, span, at.span)]
        body = [cluster]
        if times is None:
            return [*before, cluster]
    return [*before, repeat_of(body, times, span)]


def _cluster(body: list[Any], span: Span) -> Cluster:
    works: list[Work] = []
    for item in body:
        if isinstance(item, Chain):
            works.append(Work("ch", item.count, span=item.span))
        elif isinstance(item, Work) and stitch(item.stitch).takes <= 1:
            works.append(item)
        else:
            raise CraftError("Only stitches and chains can go into one place.")
    return Cluster(tuple(works), span)


def repeat_of(body: list[Any], times: Qual | None, span: Span) -> Repeat:
    """A repeat as often as `times` says; a bare bracket is worked once."""
    if times is None:
        return Repeat(tuple(body), 1, None, span)
    if times.how in ("around", "to-last"):
        return Repeat(tuple(body), None, times.n if times.how == "to-last" else None, span)
    return Repeat(tuple(body), times.n, None, span, times.span if times.how in ("times", "said") else None)
