"""Parse tree to instructions: what each rule of the grammar means."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from lark import Token, v_args
from lark.visitors import Transformer_NonRecursive

from craft.errors import CraftError
from craft.rounds.pattern import (
    Again,
    Chain,
    Colour,
    Edge,
    Join,
    Leave,
    Onto,
    Repeat,
    Shift,
    Skip,
    Start,
    StartKind,
    Turn,
    Work,
)
from craft.rounds.stitches import Terms, decrease_of, stitch
from craft.text.notation.marks import (
    AndEach,
    BareRing,
    IntoChain,
    LoopsFrom,
    Qualifier,
    StarRepeat,
    digits_span,
    number,
    phrase,
    qualifiers_in,
    span_of,
    token_span,
    typed,
)
from craft.text.notation.names import Names, colour_name, piece_name, through_piece
from craft.text.notation.qualified import count_in, grouped, qualified, repeat_of
from craft.text.notation.terms import stitch_word


@v_args(meta=True)
class Builder(Transformer_NonRecursive[Token, Any]):
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
            if isinstance(item, Qualifier):
                lead = next((i for i, x in enumerate(items) if not isinstance(x, Chain | Turn | LoopsFrom)), 0)
                items = [*items[:lead], repeat_of(items[lead:], item, span_of(meta))] if items[lead:] else items
            else:
                items.append(item)
        return items

    def repeat_all(self, _: Any, children: list[Token]) -> list[Qualifier]:
        if phrase(children[0]).has("around"):
            return [Qualifier("around", token_span(children[0]))]
        return [Qualifier("said", digits_span(children[0]), number(children[0]))]

    def sequence(self, _: Any, children: list[Any]) -> list[Any]:
        out: list[Any] = []
        for child in children:
            out += child
        return out

    def piece(self, _: Any, children: list[Any]) -> list[Any]:
        leads = [c for c in children if isinstance(c, Qualifier)]
        core = [c for c in children if not isinstance(c, Qualifier)]
        out: list[Any] = []
        for lead in leads:
            if lead.how == "loops":
                assert lead.loops is not None
                out.append(LoopsFrom(lead.loops, lead.span, apart=not core))
            else:
                out.append(lead.move)
        return [*out, *(c for item in core for c in (item if isinstance(item, list) else [item]))]

    # --- leads and edges ----------------------------------------------------------------

    def loops(self, _: Any, children: list[Token]) -> Qualifier:
        said = phrase(children[0])
        return Qualifier("loops", token_span(children[0]), loops=said.loops, name="every" if said.has("posts") else "")

    def _onto(self, token: Token, edge: Edge, **more: Any) -> Qualifier:
        span = token_span(token)
        return Qualifier("onto", span, n=count_in(phrase(token)), move=Onto(edge, span=span, **more))

    def underside(self, _: Any, children: list[Token]) -> Qualifier:
        return self._onto(children[0], Edge.CHAIN)

    def free(self, _: Any, children: list[Token]) -> Qualifier:
        said = phrase(children[0])
        of = said.numbers[0] if said.numbers else None
        return replace(self._onto(children[0], Edge.FREE, loops=said.side, round=of), n=None)

    def held(self, _: Any, children: list[Token]) -> Qualifier:
        return replace(self._onto(children[0], Edge.HELD), n=None)

    def side(self, _: Any, children: list[Token]) -> Qualifier:
        return self._onto(children[0], Edge.SIDE)

    def main(self, _: Any, children: list[Token]) -> Qualifier:
        return self._onto(children[0], Edge.MAIN)

    def on_piece(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        name = piece_name(self.raw[span.start : span.end], self.names)
        return Qualifier("onto", span, move=Onto(Edge.PIECE, name, span=span))

    def from_hook(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        nth = phrase(children[0]).number(2)
        return Qualifier("from-hook", span, n=nth, move=IntoChain(max(nth, 2), None, span))

    def rejoin(self, meta: Any, children: list[Any]) -> Qualifier:
        qualifier: Qualifier = children[1]
        move = qualifier.move
        return replace(
            qualifier, move=replace(move, rejoin=True, span=span_of(meta)) if isinstance(move, Onto) else move
        )

    def named_colour(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        return Qualifier("colour", span, move=Colour(colour_name(self.raw[span.start : span.end], self.names), span))

    # --- single instructions ------------------------------------------------------------

    def ring(self, meta: Any, children: list[Any]) -> Start | BareRing:
        count = typed(children, "NUMBER")
        if count is None:
            return BareRing(span_of(meta))
        named = typed(children, "STITCH")
        key = self._word(named).stitch if named is not None else "sc"
        return Start(StartKind.RING, number(count), key, span_of(meta))

    def chain(self, meta: Any, children: list[Any]) -> Chain:
        said = typed(children, "COUNTS")
        count = typed(children, "NUMBER")
        counts = None if said is None else not phrase(said).has("not", "t", "doesnt", "dont")
        return Chain(1 if count is None else number(count), counts, span_of(meta))

    def colour(self, meta: Any, children: list[Token]) -> Colour:
        return Colour(colour_name(str(children[0]), self.names), span_of(meta))

    def join(self, meta: Any, _: Any) -> Join | list[Any]:
        return Join(span_of(meta))

    def join_to(self, meta: Any, children: list[Any]) -> list[Any]:
        """A chain carried over to a piece; joined there with a stitch, that stitch is the first of the piece."""
        onto = self.on_piece(meta, [children[1]]).move
        named = typed(children, "STITCH")
        work = self._word(named) if named is not None else None
        if work is None or work.stitch == "slst":
            return [onto]
        return [onto, replace(work, span=span_of(meta))]

    def turn(self, meta: Any, _: Any) -> Turn:
        return Turn(span_of(meta))

    def skip(self, meta: Any, children: list[Token]) -> Skip:
        said = phrase(children[0])
        if said.has("sl", "slst", "slsts", "slip", "ss"):
            return Skip(0, span_of(meta))
        return Skip(said.number(), span_of(meta))

    def leave(self, meta: Any, children: list[Token]) -> Leave | Skip:
        said = phrase(children[0])
        many = None if said.said is None else said.number()
        if many is not None and said.has("next", "following"):
            return Skip(many, span_of(meta))
        return Leave(many, span_of(meta))

    def shift(self, meta: Any, children: list[Token]) -> Shift:
        return Shift(number(children[0]), span_of(meta))

    def again(self, meta: Any, children: list[Token]) -> Again:
        found = phrase(children[0]).numbers
        first, last = found[0], found[min(len(found), 2) - 1]
        if not 1 <= first <= last:
            raise CraftError(f"Rounds {first} to {last} cannot be repeated.")
        return Again(first, last, span_of(meta))

    def and_each(self, meta: Any, _: Any) -> AndEach:
        return AndEach(span_of(meta))

    # --- stitches -----------------------------------------------------------------------

    def _word(self, token: Token | None) -> Work:
        found = stitch_word(str(token), self.terms) if token is not None else None
        if found is None:
            raise CraftError(f"'{token}' is no stitch.")
        assert token is not None
        return Work(found.key, 1, found.loops, None, token_span(token))

    def _stitch(self, children: list[Any]) -> Work:
        return self._word(typed(children, "STITCH"))

    def one(self, meta: Any, children: list[Any]) -> list[Any]:
        return qualified(self._stitch(children), None, qualifiers_in(children), span_of(meta))

    def many(self, meta: Any, children: list[Any]) -> list[Any]:
        return qualified(self._stitch(children), number(children[0]), qualifiers_in(children), span_of(meta))

    many_before = many

    def many_after(self, meta: Any, children: list[Any]) -> list[Any]:
        count = typed(children, "NUMBER")
        n = 1 if count is None else number(count)
        return qualified(self._stitch(children), n, qualifiers_in(children), span_of(meta))

    many_times = many_after

    def many_again(self, meta: Any, children: list[Any]) -> list[Any]:
        return [replace(self._stitch(children), count=number(children[0]) * number(children[3]), span=span_of(meta))]

    def together(self, meta: Any, children: list[Any]) -> list[Any]:
        work = self._stitch(children)
        said = typed(children, "TOGETHER")
        many = 2 if said is None else phrase(said).number(2)
        found = decrease_of(work.stitch, many)
        if found is None:
            raise CraftError(f"{many} {stitch(work.stitch).us[0]} together is no stitch.")
        return qualified(replace(work, stitch=found.key), None, qualifiers_in(children), span_of(meta))

    # --- what stands behind a stitch ----------------------------------------------------

    def _qual(self, how: str, token: Token, n: int | None = None) -> Qualifier:
        return Qualifier(how, token_span(token), n)

    def next(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("next", children[0])

    def same(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("same", children[0])

    def each_of(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("each-of", children[0], number(children[0]))

    def each(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("each", children[0])

    def around(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("around", children[0])

    def to_last(self, _: Any, children: list[Token]) -> Qualifier:
        return Qualifier("to-last", token_span(children[0]), number(children[0]))

    def over(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("over", children[0], number(children[0]))

    def in_space(self, _: Any, children: list[Token]) -> Qualifier:
        said = phrase(children[0])
        return Qualifier("space", token_span(children[0]), said.number() if said.numbers else None)

    def even(self, meta: Any, _: Any) -> Repeat:
        return Repeat((Work("sc", span=span_of(meta)),), None, None, span_of(meta))

    def in_ring(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("ring", children[0])

    def through_both(self, _: Any, children: list[Token]) -> Qualifier:
        return Qualifier("through", token_span(children[0]), name="")

    def through(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        name, both = through_piece(self.raw[span.start : span.end], self.names)
        return Qualifier("through", span, name=name, n=2 if both else None)

    def in_base(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        return Qualifier("onto", span, n=count_in(phrase(children[0])), move=Onto(Edge.BASE, span=span))

    def worked_in(self, _: Any, children: list[Token]) -> Qualifier:
        span = token_span(children[0])
        return Qualifier("colour", span, move=Colour(colour_name(str(children[0]), self.names), span))

    worked_in_named = named_colour

    def also_each(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("also-each", children[0])

    def times_number(self, _: Any, children: list[Token]) -> Qualifier:
        return Qualifier("times", token_span(children[1]), number(children[1]))

    def times_words(self, _: Any, children: list[Token]) -> Qualifier:
        return Qualifier("said", digits_span(children[0]), number(children[0]))

    def more(self, _: Any, children: list[Token]) -> Qualifier:
        return Qualifier("more", token_span(children[0]), number(children[0]) + 1)

    def also_next(self, _: Any, children: list[Token]) -> Qualifier:
        return self._qual("also-each", children[0], _behind_in(children[0]))

    # --- groups -------------------------------------------------------------------------

    def group(self, meta: Any, children: list[Any]) -> list[Any]:
        return grouped(children[0], qualifiers_in(children), span_of(meta))

    def group_first(self, meta: Any, children: list[Any]) -> list[Any]:
        times = Qualifier("times", token_span(children[0]), number(children[0]))
        body = next(c for c in children if isinstance(c, list))
        return grouped(body, [times, *qualifiers_in(children)], span_of(meta))

    def star_closed(self, meta: Any, children: list[Any]) -> list[Any]:
        body = next(c for c in children if isinstance(c, list))
        return grouped(body, qualifiers_in(children), span_of(meta))

    def star_rep(self, meta: Any, children: list[Any]) -> list[Any]:
        body = next(c for c in children if isinstance(c, list))
        times = next(iter(qualifiers_in(children)), None)
        if times is not None and times.how == "said" and times.n is not None:
            return [StarRepeat(tuple(body), times.n, span_of(meta), times.span)]
        return grouped(body, [times or Qualifier("around", span_of(meta))], span_of(meta))


def _behind_in(token: Token) -> int:
    """'and then 2 in each of the next 3': the number of places, not that of stitches."""
    said = phrase(token)
    return said.behind("into" if said.has("into") else "in").number()
