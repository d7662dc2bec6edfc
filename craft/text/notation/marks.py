"""Values of the parse tree that are no instructions yet: what is said around and between stitches."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from lark import Token

from craft.errors import CraftError
from craft.problems import Span
from craft.rounds.numbers import CARDINALS, ORDINALS, TIMES
from craft.rounds.pattern import MOST_COUNT, Instruction, Work
from craft.rounds.stitches import Loops


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
class Qualifier:
    """What stands behind a stitch or group. how: 'next', 'each', 'around', 'times', …"""

    how: str
    span: Span
    n: int | None = None
    loops: Loops | None = None
    name: str = ""
    move: Any = None


WORD_NUMBERS = {word: n for word, n in (ORDINALS | CARDINALS | TIMES).items() if word != "first"}
"""What a word of a phrase counts as; 'first' says where, and no number."""

_WORD = re.compile(r"[a-z]+|\d+", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Phrase:
    """What a phrase of a round says, read once by the lexer.

    words: its words and numbers in small letters. numbers: those in digits, in order. digits: where the first of
    them stands. said: its first number, in digits or in words.
    """

    words: tuple[str, ...]
    numbers: tuple[int, ...] = ()
    digits: Span | None = None
    said: int | None = None

    def has(self, *words: str) -> bool:
        """Whether any of the words stands in it."""
        return any(w in self.words for w in words)

    def number(self, default: int = 1) -> int:
        """The number that it says; CraftError when no pattern means it."""
        n = default if self.said is None else self.said
        if not 1 <= n <= MOST_COUNT:
            raise CraftError(f"{n:,} is not a number of stitches or repeats; it runs from 1 to {MOST_COUNT:,}.")
        return n

    def behind(self, word: str) -> Phrase:
        """What stands behind the first such word."""
        return _phrase(self.words[self.words.index(word) + 1 :]) if word in self.words else self

    @property
    def loops(self) -> Loops:
        """The loops that it names."""
        if self.has("post", "posts"):
            return Loops.FRONT_POST if self.has("front") else Loops.BACK_POST
        if self.has("both"):
            return Loops.BOTH
        return Loops.BACK if self.has("back", "blo", "bl") else Loops.FRONT

    @property
    def side(self) -> Loops | None:
        """Which side's free loops it names, None when it names none."""
        return Loops.FRONT if self.has("front") else Loops.BACK if self.has("back") else None


def _phrase(words: tuple[str, ...], digits: Span | None = None) -> Phrase:
    numbers = tuple(int(w) for w in words if w.isdigit())
    spelt = next((WORD_NUMBERS[w] for w in words if w in WORD_NUMBERS), None)
    return Phrase(words, numbers, digits, numbers[0] if numbers else spelt)


def handed_over(token: Token) -> Token:
    """A token with its phrase for a value: what the lexer hands to the grammar."""
    found = list(_WORD.finditer(token))
    start = token.start_pos or 0
    first = next((m for m in found if m.group(0).isdigit()), None)
    digits = Span(start + first.start(), start + first.end()) if first else None
    token.value = _phrase(tuple(m.group(0).lower() for m in found), digits)
    return token


def phrase(token: Token) -> Phrase:
    """What a token says, as the lexer handed it over."""
    said = token.value
    assert isinstance(said, Phrase)
    return said


def number(token: Token) -> int:
    """The number that a token says, 1 where it says none; CraftError when no pattern means it."""
    return phrase(token).number()


def span_of(meta: Any) -> Span:
    """Where in the line a rule stands."""
    return Span(meta.start_pos, meta.end_pos)


def token_span(token: Token) -> Span:
    """Where a token stands."""
    return Span(token.start_pos or 0, token.end_pos or 0)


def digits_span(token: Token) -> Span:
    """Where the digits of a token stand."""
    return phrase(token).digits or token_span(token)


def typed(children: Sequence[Any], kind: str) -> Token | None:
    """The first token of a kind, None when there is none."""
    return next((t for t in children if isinstance(t, Token) and t.type == kind), None)


def qualifiers_in(children: Sequence[Any]) -> list[Qualifier]:
    """What is said around a stitch, in order."""
    return [c for c in children if isinstance(c, Qualifier)]
