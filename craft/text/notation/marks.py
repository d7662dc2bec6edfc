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


def span_of(meta: Any) -> Span:
    """Where in the line a rule stands."""
    return Span(meta.start_pos, meta.end_pos)


def token_span(token: Token) -> Span:
    """Where a token stands."""
    return Span(token.start_pos or 0, token.end_pos or 0)


def digits_span(token: Token) -> Span:
    """Where the digits of a token stand."""
    digits = re.search(r"\d+", token)
    whole = token_span(token)
    return Span(whole.start + digits.start(), whole.start + digits.end()) if digits else whole


def loops_in(token: str) -> Loops:
    """The loops that a token names."""
    said = token.lower()
    if "post" in said:
        return Loops.FRONT_POST if "front" in said else Loops.BACK_POST
    if "both" in said:
        return Loops.BOTH
    return Loops.BACK if re.search(r"bl|back", said) else Loops.FRONT


def free_side(token: str) -> Loops | None:
    """Which side's free loops a token names, None when it names none."""
    said = token.lower()
    return Loops.FRONT if "front" in said else Loops.BACK if "back" in said else None


def typed(children: Sequence[Any], kind: str) -> Token | None:
    """The first token of a kind, None when there is none."""
    return next((t for t in children if isinstance(t, Token) and t.type == kind), None)


def qualifiers_in(children: Sequence[Any]) -> list[Qualifier]:
    """What is said around a stitch, in order."""
    return [c for c in children if isinstance(c, Qualifier)]
