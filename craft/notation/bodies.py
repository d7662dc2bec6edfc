"""One round's body: words to instructions, with LALR parsing remembered by text.

Lark is used here and nowhere else in the craft.
"""

from __future__ import annotations

import difflib
import re
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib import resources
from typing import Any

from lark import Lark, Token, Transformer, UnexpectedInput, v_args
from lark.exceptions import VisitError

from craft.errors import CraftError
from craft.notation.terms import stitch_key, stitch_regex, words
from craft.pattern import MOST_COUNT, Chain, Colour, Instruction, Join, Repeat, Start, StartKind, Unread, Work
from craft.problems import Span
from craft.stitches import Loops, Terms, stitch

MOST_NESTED = 20
"""Brackets within brackets."""

MOST_BODY = 20_000
"""Code points in the body of one round."""


@dataclass(frozen=True, slots=True)
class BodyProblem:
    """A problem inside a body; `span` counts from the body's first code point."""

    code: str
    message: str
    span: Span
    insert: tuple[int, int, str, str] | None = None


@dataclass(frozen=True, slots=True)
class Body:
    """What a body says: instructions with spans from its first code point."""

    instructions: tuple[Instruction | StarRepeat, ...]
    loops: Loops
    problems: tuple[BodyProblem, ...] = ()


@dataclass(frozen=True, slots=True)
class _BareRing:
    """A ring whose stitches are named after it: 'magic ring, 6 sc'."""

    span: Span


@dataclass(frozen=True, slots=True)
class StarRepeat:
    """`*…; rep from * n times`, whose reading is settled once the round below is known."""

    body: tuple[Instruction | StarRepeat, ...]
    said: int
    span: Span
    times_span: Span


@cache
def _parser(terms: Terms) -> Lark:
    grammar = resources.files("craft.notation").joinpath("rounds.lark").read_text("utf-8")
    return Lark(
        grammar.replace("/@STITCH@/", f"/{stitch_regex(terms)}/i"),
        parser="lalr",
        propagate_positions=True,
        maybe_placeholders=True,
    )


_WORD_NUMBERS = {
    "once": 1, "twice": 2, "thrice": 3, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8,
    "nine": 9, "ten": 10, "twelve": 12,
}  # fmt: skip


def _number(token: str) -> int:
    if digits := re.search(r"\d+", token):
        n = int(digits.group(0))
    else:
        words = re.findall(r"[a-z]+", token.lower())
        n = next((_WORD_NUMBERS[w] for w in words if w in _WORD_NUMBERS), 1)
    if not 1 <= n <= MOST_COUNT:
        raise CraftError(f"{n:,} is not a number of stitches or repeats; it runs from 1 to {MOST_COUNT:,}.")
    return n


def _span(meta: Any) -> Span:
    return Span(meta.start_pos, meta.end_pos)


def _token_span(token: Token) -> Span:
    return Span(token.start_pos or 0, token.end_pos or 0)


_INTO_ONE = {2: "inc", 3: "inc3"}


def _loops(token: Token) -> Loops:
    return Loops.BACK if re.search(r"(?i)blo|back", token) else Loops.FRONT


def _typed(children: list[Any], kind: str) -> Token:
    return next(t for t in children if isinstance(t, Token) and t.type == kind)


@dataclass(frozen=True, slots=True)
class _Times:
    """How often: `times` and `more` are numbers, `said` may mean either, None is around."""

    how: str
    n: int | None
    span: Span


@v_args(meta=True)
class _Builder(Transformer[Token, Any]):
    """Turns the parse tree into instructions; methods are named after the grammar's rules."""

    def __init__(self, terms: Terms) -> None:
        super().__init__()
        self.terms = terms

    def _key(self, children: list[Any]) -> str:
        key = stitch_key(str(_typed(children, "STITCH")), self.terms)
        if key is None:
            raise CraftError(f"'{_typed(children, 'STITCH')}' is no stitch.")
        return key

    def plain(self, _: Any, children: list[Any]) -> tuple[list[Any], Loops]:
        first, sequence, last = children
        loops = [c for c in (first, *sequence, last) if isinstance(c, Loops)]
        return [c for c in sequence if not isinstance(c, Loops)], loops[0] if loops else Loops.BOTH

    def all_again(self, meta: Any, children: list[Any]) -> tuple[list[Any], Loops]:
        first, sequence, times = children
        found, loops = self.plain(meta, [first, sequence, None])
        return [_repeat(found, times, _span(meta))], loops

    def repeat_all(self, _: Any, children: list[Token]) -> _Times:
        if "around" in children[0].lower():
            return _Times("around", None, _token_span(children[0]))
        return _Times("said", _number(children[0]), _digits_span(children[0]))

    def loops_first(self, _: Any, children: list[Token]) -> Loops:
        return _loops(children[0])

    loops_last = loops_first

    def sequence(self, _: Any, children: list[Any]) -> list[Any]:
        head = children[0] if isinstance(children[0], list) else [children[0]]
        flat = head + children[1:]
        return [part for c in flat for part in (c if isinstance(c, tuple) else (c,))]

    def start_ring(self, meta: Any, children: list[Any]) -> Start:
        return Start(StartKind.RING, _number(_typed(children, "NUMBER")), _span(meta))

    def bare_ring(self, meta: Any, _: Any) -> _BareRing:
        return _BareRing(_span(meta))

    def start_chain(self, meta: Any, children: list[Any]) -> Start:
        return Start(StartKind.CHAIN2, _number(_typed(children, "NUMBER")), _span(meta))

    def chain(self, meta: Any, children: list[Any]) -> Chain:
        return Chain(_number(_typed(children, "NUMBER")), _span(meta))

    def colour(self, meta: Any, children: list[Token]) -> Colour:
        return Colour(COLOUR_LEAD.sub("", children[0]).strip(), _span(meta))

    def join(self, meta: Any, _: Any) -> Join:
        return Join(_span(meta))

    def one(self, meta: Any, children: list[Any]) -> Work:
        return Work(self._key(children), 1, _span(meta))

    def many(self, meta: Any, children: list[Any]) -> Work:
        return Work(self._key(children), _number(_typed(children, "NUMBER")), _span(meta))

    def many_times(self, meta: Any, children: list[Token]) -> Work:
        return Work(self._key(children), _number(children[1]), _span(meta))

    def many_times_count(self, meta: Any, children: list[Token]) -> Work:
        return Work(self._key(children), _number(children[0]) * _number(children[2]), _span(meta))

    def around(self, meta: Any, children: list[Any]) -> Repeat:
        return Repeat((Work(self._key(children), 1, _token_span(children[0])),), None, _span(meta))

    def around_loops(self, meta: Any, children: list[Any]) -> tuple[Loops, Repeat]:
        return _loops(children[1]), self.around(meta, children)

    def _into(self, children: list[Any]) -> str:
        """The increase that so many of a stitch into one place are."""
        n, key = _number(children[0]), self._key(children)
        if n == 1:
            return key
        if key != "sc" or n not in INTO_ONE:
            raise CraftError(f"{n} {children[1]} into one stitch is not known; 2 or 3 single crochets are.")
        return INTO_ONE[n]

    def into_one(self, meta: Any, children: list[Token]) -> Work:
        return Work(self._into(children), 1, _span(meta))

    def into_each(self, meta: Any, children: list[Token]) -> Repeat:
        return Repeat((Work(self._into(children), 1, _span(meta)),), None, _span(meta))

    def each_of(self, meta: Any, children: list[Token]) -> Work:
        return Work(self._key(children), _number(children[1]), _span(meta))

    def into_each_of(self, meta: Any, children: list[Token]) -> Work:
        return Work(self._into(children), _number(children[2]), _span(meta))

    def over(self, meta: Any, children: list[Token]) -> Work:
        key, below = self._key(children), _number(children[1])
        takes = stitch(key).takes
        if not takes or below % takes:
            raise CraftError(f"{children[0]} takes {takes} stitches, which does not divide {below}.")
        return Work(key, below // takes, _span(meta))

    def times_number(self, _: Any, children: list[Token]) -> _Times:
        return _Times("times", _number(children[1]), _token_span(children[1]))

    def times_words(self, _: Any, children: list[Token]) -> _Times:
        return _Times("said", _number(children[0]), _digits_span(children[0]))

    def times_around(self, _: Any, children: list[Token]) -> _Times:
        return _Times("around", None, _token_span(children[0]))

    def more(self, _: Any, children: list[Token]) -> _Times:
        return _Times("more", _number(children[0]) + 1, _token_span(children[0]))

    def group(self, meta: Any, children: list[Any]) -> Repeat:
        return _repeat(children[0], children[1], _span(meta))

    def group_first(self, meta: Any, children: list[Any]) -> Repeat:
        times = _Times("times", _number(children[0]), _token_span(children[0]))
        return _repeat(children[2], times, _span(meta))

    def star_closed(self, meta: Any, children: list[Any]) -> Repeat:
        return _repeat(children[1], children[3], _span(meta))

    def star_rep(self, meta: Any, children: list[Any]) -> Repeat | StarRepeat:
        times: _Times | None = children[3]
        if times is not None and times.how == "said" and times.n is not None:
            return StarRepeat(tuple(children[1]), times.n, _span(meta), times.span)
        return _repeat(children[1], times or _Times("around", None, _span(meta)), _span(meta))


def _repeat(body: list[Any], times: _Times | None, span: Span) -> Repeat:
    if times is None:
        return Repeat(tuple(body), 1, span)
    return Repeat(tuple(body), times.n, span, times.span if times.how in ("times", "said") else None)


def _digits_span(token: Token) -> Span:
    digits = re.search(r"\d+", token)
    whole = _token_span(token)
    return Span(whole.start + digits.start(), whole.start + digits.end()) if digits else whole


COLOUR_LEAD = re.compile(r"(?i)^(change\s+to|switch\s+to|with|in\s+colou?r|in\s+yarn|colou?r|in)\s+")
INTO_ONE = {2: "inc", 3: "inc3"}
_FILLER = re.compile(r"(?i)^\s*((start|begin)(\s+with)?|work)\b:?")


def _nesting(text: str) -> tuple[int, int] | None:
    """The place of the bracket that does not pair up, or None; too deep counts from MOST_NESTED."""
    open_at: list[int] = []
    for at, sign in enumerate(text):
        if sign in "([{":
            open_at.append(at)
            if len(open_at) > MOST_NESTED:
                return at, MOST_NESTED
        elif sign in ")]}" and (not open_at or "([{".index(text[open_at.pop()]) != ")]}".index(sign)):
            return at, 0
    return (open_at[-1], 0) if open_at else None


def _unexpected(text: str, error: UnexpectedInput, terms: Terms) -> BodyProblem:
    at = min(getattr(error, "pos_in_stream", None) or 0, max(len(text) - 1, 0))
    token = getattr(error, "token", None)
    if token is not None and token.type == "$END":
        return BodyProblem("unread", "The round breaks off here.", Span(max(len(text) - 1, 0), len(text)))
    word = re.compile(r"\s*([^\W\d_]+|\d+|\S)").match(text, at)
    span = Span(word.start(1), word.end(1)) if word else Span(at, len(text))
    said = text[span.start : span.end]
    expected = set(getattr(error, "accepts", None) or getattr(error, "expected", None) or ())
    if token is not None and token.type in {"NUMBER", "STITCH", "LPAR", "LSQB", "STAR"} and "_SEP" in expected:
        return BodyProblem(
            "unread", f"A comma is missing before '{said}'.", span, (span.start, span.start, ", ", "put a comma")
        )
    near = difflib.get_close_matches(said.lower(), words(terms), 1, 0.6)
    if near and near[0] != said.lower():
        return BodyProblem(
            "unread",
            f"'{said}' is no stitch; is it '{near[0]}'?",
            span,
            (span.start, span.end, near[0], f"write {near[0]}"),
        )
    return BodyProblem("unread", f"'{said}' is not understood in a round.", span)


def _finish(found: list[Any], text: str) -> tuple[tuple[Any, ...], list[BodyProblem]]:
    """Join starts that are written in two pieces: 'MR, 6 sc' and 'ch 2, 6 sc in 2nd ch'."""
    out: list[Any] = []
    problems: list[BodyProblem] = []
    for i, item in enumerate(found):
        after = found[i + 1] if i + 1 < len(found) else None
        if isinstance(item, _BareRing):
            if not (isinstance(after, Work) and stitch(after.stitch).change == 0):
                problems.append(BodyProblem("unread", "How many stitches go into the ring?", item.span))
                out.append(Unread(text[item.span.start : item.span.end], item.span))
        elif isinstance(item, Chain) and isinstance(after, Start):
            continue
        elif isinstance(item, Work) and i and isinstance(found[i - 1], _BareRing) and stitch(item.stitch).change == 0:
            out.append(Start(StartKind.RING, item.count, Span(found[i - 1].span.start, item.span.end)))
        else:
            out.append(item)
    return tuple(out), problems


@lru_cache(maxsize=8192)
def read_body(text: str, terms: Terms) -> Body:
    """The instructions of `text`, the body of one round, in `terms`; never raises.

    What cannot be read comes back as one `Unread` with its problem.
    """
    lost = (Unread(text.strip(), Span(0, len(text))),)
    if len(text) > MOST_BODY:
        problem = BodyProblem("too-large", f"A round is at most {MOST_BODY:,} characters long.", Span(0, len(text)))
        return Body(lost, Loops.BOTH, (problem,))
    if nested := _nesting(text):
        at, deep = nested
        sentence = (
            f"Brackets are nested more than {deep} deep." if deep else f"The bracket '{text[at]}' has no partner."
        )
        return Body(lost, Loops.BOTH, (BodyProblem("too-large" if deep else "bracket", sentence, Span(at, at + 1)),))
    masked = _FILLER.sub(lambda m: " " * len(m.group(0)), text)
    stripped = masked.rstrip(" \t\u00a0.,;:-–—")
    try:
        found, loops = _Builder(terms).transform(_parser(terms).parse(stripped))
    except UnexpectedInput as error:
        return Body(lost, Loops.BOTH, (_unexpected(stripped, error, terms),))
    except VisitError as error:
        if not isinstance(error.orig_exc, CraftError):
            raise
        return Body(lost, Loops.BOTH, (BodyProblem("unread", error.orig_exc.message, Span(0, len(text))),))
    instructions, problems = _finish(found, text)
    return Body(instructions, loops, tuple(problems))
