"""Edges that can be worked: the live one, held stitches, sides of a chain, pieces made before."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

from craft.rounds.fabric.graph import Numbers, StitchGraph
from craft.rounds.numbers import place_of_word

NOTHING = np.zeros(0, np.int64)

CHAIN_NAME = "the chain"
"""Name of an edge that is a chain from which a piece grows."""


@dataclass(slots=True, eq=False)
class Line:
    """Stitches along an edge in working order; `at` is the hook's place, `end` where the edge ends.

    name: in words, for messages. closed: the edge runs round a tube.
    """

    spots: Numbers
    name: str
    closed: bool = True
    at: int = 0
    end: int = -1

    def __post_init__(self) -> None:
        if self.end < 0:
            self.end = len(self.spots)

    @property
    def left(self) -> int:
        """Stitches not worked yet."""
        return max(self.end - self.at, 0)

    def take(self, many: int) -> Numbers:
        """The next stitches; fewer when there are not so many."""
        first = self.at
        self.at = min(self.at + many, self.end)
        return self.spots[first : self.at]

    def take_last(self, many: int) -> Numbers:
        """Stitches from the far end, the last first; fewer when there are not so many."""
        last = self.end
        self.end = max(self.end - many, self.at)
        return self.spots[self.end : last][::-1]


@dataclass(slots=True)
class Held:
    """Stitches left unworked, waiting. meant: the text says that they wait."""

    line: Line
    label: str
    meant: bool
    used: bool = False


@dataclass(slots=True)
class Foundation:
    """A chain with its two sides: ids in the order of making, hook side last."""

    ids: Numbers
    joined: bool = False
    first: int = 2
    under_used: bool = False
    tops_used: bool = False

    def tops(self) -> Numbers:
        """Chains to work into from the hook, or all around when the chain is joined."""
        return self.ids if self.joined else self.ids[: len(self.ids) - self.first + 1][::-1]

    def under(self, wanted: int | None) -> Numbers:
        """The other side, from the far end back; with the end chain itself when that is `wanted`."""
        if self.joined:
            return self.ids
        inner = self.ids[1 : len(self.ids) - self.first + 1]
        return self.ids[: len(inner) + 1] if wanted == len(inner) + 1 else inner


@dataclass(frozen=True, slots=True)
class Piece:
    """A finished part that others work in: its open edge and how many there are.

    edge: indices in `graph`; empty when it is drawn shut. stuffed: whether it holds filling.
    """

    name: str
    make: int
    graph: StitchGraph
    edge: Numbers
    shut: bool
    stuffed: bool = True


@dataclass(slots=True)
class Copy:
    """One piece of a part, taken in: its edge as indices of the graph it was taken into."""

    piece: Piece
    line: Line


_FILLER = {"the", "your", "this", "each", "both", "of", "a", "an", "next", "other", "same", "remaining", "last"}
_IRREGULAR = {"feet": "foot", "leaves": "leaf", "halves": "half", "wolves": "wolf", "antennae": "antenna"}


def singular(word: str) -> str:
    """The singular of a part's name."""
    if word in _IRREGULAR:
        return _IRREGULAR[word]
    if word.endswith(("ches", "shes", "xes", "sses")):
        return word[:-2]
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    return word[:-1] if word.endswith("s") and not word.endswith("ss") and len(word) > 3 else word


def stem(name: str) -> tuple[str, ...]:
    """The words of a part's name that tell it from others, in the singular."""
    words = re.findall(r"[^\W_]+", name.lower())
    return tuple(singular(w) for w in words if w not in _FILLER and place_of_word(w) is None)


def ordinal(name: str) -> int | None:
    """Which one of several a name means: 0 for the first; None when it does not say."""
    words = re.findall(r"[^\W_]+", name.lower())
    places = (place_of_word(w) for w in words if w not in ("a", "an"))
    return next((n - 1 for n in places if n is not None), None)


def find_piece(name: str, pieces: Mapping[str, Piece]) -> Piece | None:
    """The piece that `name` means, None when none does.

    By all its words, else by its words and which one of several it says, else by its words without
    that, else by the last of them alone.
    """
    wanted, which = stem(name), ordinal(name)
    if not wanted:
        return None
    full = tuple(singular(w) for w in re.findall(r"[^\W_]+", name.lower()) if w not in _FILLER)
    keys: tuple[Callable[[Piece], bool], ...] = (
        lambda p: tuple(singular(w) for w in re.findall(r"[^\W_]+", p.name.lower())) == full,
        lambda p: stem(p.name) == wanted and ordinal(p.name) == which,
        lambda p: stem(p.name) == wanted,
        lambda p: len(wanted) == 1 and stem(p.name)[-1:] == wanted,
    )
    return next((p for fits in keys for p in pieces.values() if fits(p)), None)
