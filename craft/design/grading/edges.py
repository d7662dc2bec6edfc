"""Edges that a part's rounds go on along, at both sizes: chains, pieces taken in, stitches put aside, free loops."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from craft.design.grading.proportion import EdgeSize
from craft.design.grading.source import SourceRound
from craft.rounds.fabric import MAIN_COLOUR, Piece, find_piece
from craft.rounds.pattern import Edge, Onto


@dataclass(frozen=True, slots=True)
class Around:
    """What a part is made with: the yarn on the hook, others that it takes in, at the first size and at this one.

    last: stitches that its open end has to have, to meet another edge. even: it is pressed flat there. apart: motifs and
    colours that repeat keep their distance instead of their number.
    """

    colour: str = MAIN_COLOUR
    before: Mapping[str, Piece] = field(default_factory=dict)
    after: Mapping[str, Piece] = field(default_factory=dict)
    last: int | None = None
    even: bool = False
    apart: bool = False


ALONE = Around()


class Edges:
    """The edges of a part under way. tops: the number of the round that stands for each of the first size; lives:
    stitches after each round by its number; ridged: numbers of rounds worked in one loop, which leave the other free.
    """

    def __init__(self, scale: float, around: Around) -> None:
        self.scale, self.around = scale, around
        self.tops: dict[int, int] = {}
        self.lives: dict[int, int] = {}
        self.ridged: set[int] = set()
        self.chain = EdgeSize(0, 0)
        self.held: list[EdgeSize] = []

    def size(self, onto: Onto, taken: int) -> EdgeSize:
        """An edge of which `taken` stitches were worked at the first size."""
        match onto.edge:
            case Edge.CHAIN:
                return EdgeSize(taken, max(1, taken + self.chain.after - self.chain.before))
            case Edge.PIECE:
                return self.piece(onto.name, taken)
            case Edge.HELD if self.held:
                return next((h for h in self.held if h.before == taken), self.held[0])
            case Edge.FREE:
                number = self.free_round(onto)
                return EdgeSize(taken, self.lives.get(number, self._scaled(taken)) if number else taken)
            case _:
                return EdgeSize(taken, self._scaled(taken))

    def _scaled(self, taken: int) -> int:
        return max(1, round(taken * self.scale))

    def take_up(self, onto: Onto | None, taken: int) -> EdgeSize | None:
        """The edge that a round goes on along; stitches that were put aside are put aside no more."""
        if onto is None:
            return None
        found = self.size(onto, taken)
        if onto.edge is Edge.HELD and found in self.held:
            self.held.remove(found)
        return found

    def piece(self, name: str, taken: int) -> EdgeSize:
        """The open edge of another part, by its name."""
        before, after = find_piece(name, self.around.before), find_piece(name, self.around.after)
        if before is None or after is None or len(before.edge) != taken:
            return EdgeSize(taken, self._scaled(taken))
        return EdgeSize(taken, len(after.edge))

    def through(self, here: SourceRound, live: int, name: str, many: int) -> int:
        """How many stitches work another edge in along with `live` ones, or ('') the other half of them."""
        if not name:
            return live // 2 if 2 * many in (here.before, here.before - 1) else self._scaled(many)
        return self.piece(name, many).after

    def free_round(self, onto: Onto) -> int | None:
        """The new round whose loops are free where those of `onto` were: the one below that worked in one loop."""
        free = [n - 1 for n in self.ridged if n - 1 in self.lives]
        if onto.round is None:
            return max(free, default=None)
        below = self.tops.get(onto.round)
        near = min(free, key=lambda n: abs(n - (below or 0)), default=None)
        if below is not None and near is not None and abs(near - below) <= 1 + self.scale:
            return near
        return below

    def renamed(self, onto: Onto) -> Onto:
        """The edge as it is called at this size."""
        return replace(onto, round=self.free_round(onto)) if onto.edge is Edge.FREE and onto.round else onto
