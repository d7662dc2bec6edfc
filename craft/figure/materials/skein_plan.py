"""Which skein serves which piece: no piece is begun that the skein does not finish, as few skeins as that takes.

Packing pieces into skeins is bin packing. It is solved exactly, by branch and bound, for the few pieces of a figure, and
by the largest first where there are many; a piece that is longer than a skein takes whole ones and the rest of another.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.errors import require
from craft.units import positive

MOST_EXACT = 16
"""Pieces up to which the fewest skeins are found surely."""

MOST_PIECES = 2_000
ROUNDING_M = 1e-9


@dataclass(frozen=True, slots=True)
class PieceNeed:
    """A piece, and the metres of a colour that it takes, tails included."""

    name: str
    metres: float

    def __post_init__(self) -> None:
        require(self.metres >= 0, "A piece takes no less than no yarn.", field="metres")


@dataclass(frozen=True, slots=True)
class Skein:
    """A skein with the pieces that it serves, in their order. used_m: of it."""

    pieces: tuple[str, ...]
    used_m: float


@dataclass(frozen=True, slots=True)
class SkeinPlan:
    """All skeins of a colour. skein_m: metres on each. joined: pieces that are longer than a skein, which are joined on."""

    skeins: tuple[Skein, ...]
    skein_m: float
    joined: tuple[str, ...]


def skein_plan(pieces: Sequence[PieceNeed], skein_m: float) -> SkeinPlan:
    """Pieces on as few skeins as they take without a join within a piece. CraftError for more pieces than are planned."""
    positive(skein_m, "Metres on a skein", most=100_000, unit="m", field="skein_m")
    require(len(pieces) <= MOST_PIECES, f"At most {MOST_PIECES:,} pieces are planned.", field="pieces")
    whole: list[Skein] = []
    rests: list[PieceNeed] = []
    joined: list[str] = []
    for piece in pieces:
        full = int(piece.metres / skein_m) if piece.metres > skein_m + ROUNDING_M else 0
        whole += [Skein((piece.name,), skein_m)] * full
        rest = piece.metres - full * skein_m
        if full:
            joined.append(piece.name)
        if rest > ROUNDING_M or not full:
            rests.append(PieceNeed(piece.name, rest))
    at = _packed([p.metres for p in rests], skein_m)
    bins: dict[int, list[PieceNeed]] = {}
    for piece, number in zip(rests, at, strict=True):
        bins.setdefault(number, []).append(piece)
    filled = [Skein(tuple(p.name for p in b), sum(p.metres for p in b)) for b in bins.values()]
    return SkeinPlan((*whole, *sorted(filled, key=lambda s: -s.used_m)), skein_m, tuple(dict.fromkeys(joined)))


def _packed(sizes: Sequence[float], room: float) -> list[int]:
    """The bin of each size."""
    order = sorted(range(len(sizes)), key=lambda i: -sizes[i])
    largest = _largest_first([sizes[i] for i in order], room)
    found = _fewest([sizes[i] for i in order], room, largest) if len(sizes) <= MOST_EXACT else largest
    at = [0] * len(sizes)
    for place, i in enumerate(order):
        at[i] = found[place]
    return at


def _largest_first(sizes: Sequence[float], room: float) -> list[int]:
    left: list[float] = []
    at = []
    for size in sizes:
        number = next((n for n, free in enumerate(left) if size <= free + ROUNDING_M), len(left))
        if number == len(left):
            left.append(room)
        left[number] -= size
        at.append(number)
    return at


def _fewest(sizes: Sequence[float], room: float, known: list[int]) -> list[int]:
    """Sizes, the largest first, in as few bins as there can be; `known` is a way that is good already."""
    best, most = known, max(known, default=-1) + 1
    least = -(-sum(sizes) // room) if sizes else 0
    at = [0] * len(sizes)

    def place(i: int, left: list[float]) -> None:
        nonlocal best, most
        if most <= least or len(left) >= most:
            return
        if i == len(sizes):
            best, most = list(at), len(left)
            return
        tried: set[float] = set()
        for n, free in enumerate(left):
            if sizes[i] <= free + ROUNDING_M and round(free, 6) not in tried:
                tried.add(round(free, 6))
                at[i], left[n] = n, free - sizes[i]
                place(i + 1, left)
                left[n] = free
        at[i] = len(left)
        place(i + 1, [*left, room - sizes[i]])

    place(0, [])
    return best
