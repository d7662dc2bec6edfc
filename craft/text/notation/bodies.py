"""One round's body: words to instructions, with LALR parsing remembered by text.

Lark is used here and in the builder, and nowhere else in the craft.
"""

from __future__ import annotations

import difflib
import os
import re
import sys
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources
from importlib.util import cache_from_source
from pathlib import Path
from typing import Any

from lark import Lark, UnexpectedInput
from lark.exceptions import VisitError

from craft.errors import CraftError
from craft.problems import Span
from craft.remembered import of_short
from craft.rounds.numbers import CARDINAL
from craft.rounds.pattern import Instruction, Repeat, Unread
from craft.rounds.stitches import Loops, Terms
from craft.text.notation.builder import Builder
from craft.text.notation.finish import BodyProblem, finish
from craft.text.notation.marks import IntoChain, StarRepeat, handed_over
from craft.text.notation.names import Names, masked
from craft.text.notation.terms import stitch_regex, words

MOST_NESTED = 20
"""Brackets within brackets."""

MOST_BODY = 20_000
"""Code points in the body of one round."""

NO_NAMES = Names()


@dataclass(frozen=True, slots=True)
class Body:
    """What a body says: instructions with spans from its first code point.

    plain: the instructions when they mean one thing whatever is on the hook, else None.
    """

    instructions: tuple[Instruction | StarRepeat | IntoChain, ...]
    loops: Loops
    problems: tuple[BodyProblem, ...] = ()
    plain: tuple[Instruction, ...] | None = None


_SAID = (
    "AGAIN", "AND_NEXT", "COUNTS", "COUNT_TIMES", "EACH_OF", "FREE", "HELD", "IN_BASE", "IN_CHAIN", "IN_SPACE", "LEAVE",
    "LOOPS", "MAIN", "MORE", "NUMBER", "OVER", "REPEAT_ALL", "SHIFT", "SIDE", "SKIP", "TOGETHER", "TO_LAST", "UNDERSIDE",
)  # fmt: skip
"""Terminals that say more than their name: the lexer hands their phrases over."""


def _tables_beside_bytecode(terms: Terms) -> str | bool:
    """Where the grammar's tables are kept between runs: beside the compiled module, or nowhere where that is not kept.

    They hold what is made of this package's own grammar and are trusted as far as its bytecode is. Building them takes
    about 0.2 s, nearly half of what checking a small text takes.
    """
    compiled = Path(cache_from_source(__file__))
    if sys.dont_write_bytecode or not os.access(compiled.parent, os.W_OK):
        return False
    return str(compiled.with_name(f"rounds-{terms}.{sys.implementation.cache_tag}.lark"))


@cache
def _parser(terms: Terms) -> Lark:
    grammar = resources.files("craft.text.notation").joinpath("rounds.lark").read_text("utf-8")
    return Lark(
        grammar.replace("@CARDINAL@", CARDINAL).replace(
            "/@STITCH@/", "/" + stitch_regex(terms).replace("/", r"\/") + "/i"
        ),
        parser="lalr",
        lexer_callbacks=dict.fromkeys(_SAID, handed_over),
        propagate_positions=True,
        maybe_placeholders=True,
        cache=_tables_beside_bytecode(terms),
    )


_FILLER = re.compile(
    r"(?i)(^\s*|[,;.:]\s*|\bthen\s+|\band\s+)("
    r"(?:(?:now|next|work|continue|begin|start|make|crochet|place)(?:\s+(?:with|by|working|on))?|finally|again)"
    r"(?=\s+(?:\d|sc\b|inc|dec|hdc|in\b|on\b|along\b|\(|\[|\*|a\s+round|with\b))"
    r"|(?:fold|press|flatten|pinch)(?:\s+\w+){0,4}?\s*(?:\band|,)(?=\s+(?:\d|sc\b|dc\b|work\b))"
    r")(?:\b|(?<=,)):?"
)


_ASIDE = re.compile(r"(?i)\(\s*((?:leav(?:e|ing)|turn|join|do\s+not\s+turn|skip)\b[^()\[\]*]*)\)(?!\s*[x×*\d])")


def _without_filler(text: str) -> str:
    text = re.sub(r"[“”„«»\"]", " ", text)
    text = _ASIDE.sub(lambda m: "," + m.group(0)[1:-1] + " ", text)
    return _FILLER.sub(lambda m: m.group(1) + " " * (len(m.group(0)) - len(m.group(1))), text)


def _nesting(text: str) -> tuple[int, int] | None:
    """Where brackets go wrong: (place, depth) for too deep, (place, 0) for one without partner."""
    open_at: list[int] = []
    for i, sign in enumerate(text):
        if sign in "([{":
            open_at.append(i)
            if len(open_at) > MOST_NESTED:
                return i, MOST_NESTED
        elif sign in ")]}":
            if not open_at:
                return i, 0
            open_at.pop()
    return (open_at[-1], 0) if open_at else None


def _unexpected(text: str, error: UnexpectedInput, terms: Terms) -> BodyProblem:
    at = min(getattr(error, "pos_in_stream", None) or 0, max(len(text) - 1, 0))
    token = getattr(error, "token", None)
    if token is not None and token.type == "$END":
        return BodyProblem("unread", "The round breaks off here.", Span(max(len(text) - 1, 0), len(text)))
    while at and text[at - 1].isalpha() and text[at].isalpha():
        at -= 1  # a word whose beginning is a stitch, 'ch-ain', is one word
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


@of_short(4_096)
def read_body(text: str, terms: Terms, names: Names = NO_NAMES) -> Body:
    """The instructions of `text`, the body of one round, in `terms`; never raises.

    names: what this pattern's pieces and colours are called. What cannot be read comes back as one
    `Unread` with its problem.
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
    marked = _without_filler(masked(text, names))
    stripped = marked.rstrip(" \t\u00a0.,;:-–—")
    try:
        found: Any = Builder(terms, names, text).transform(_parser(terms).parse(stripped))
    except UnexpectedInput as error:
        return Body(lost, Loops.BOTH, (_unexpected(text[: len(stripped)], error, terms),))
    except VisitError as error:
        if not isinstance(error.orig_exc, CraftError):
            raise
        return Body(lost, Loops.BOTH, (BodyProblem("unread", error.orig_exc.message, Span(0, len(text))),))
    try:
        instructions, loops, problems = finish(found, text)
    except CraftError as error:
        return Body(lost, Loops.BOTH, (BodyProblem("unread", error.message, Span(0, len(text))),))
    return Body(instructions, loops, tuple(problems), None if _is_open(instructions) else instructions)


def _is_open(items: Sequence[Any]) -> bool:
    """Whether what some instruction means depends on what is on the hook."""
    return any(isinstance(i, StarRepeat | IntoChain) or (isinstance(i, Repeat) and _is_open(i.body)) for i in items)
