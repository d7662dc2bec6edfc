"""The hook: a round's instructions laid out as single movements, in working order."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from craft.arithmetic import MOST_STITCHES, going_around, round_sum
from craft.fabric.graph import KIND_NUMBER
from craft.pattern import Colour, Instruction, Repeat, Start, Work
from craft.stitches import STITCHES

_TAKES = np.array([s.takes for s in STITCHES.values()], np.int64)
_GIVES = np.array([s.gives for s in STITCHES.values()], np.int64)
_CHANGE = _GIVES - _TAKES
_HEIGHT = np.array([s.height for s in STITCHES.values()])
_SC = KIND_NUMBER["sc"]


@dataclass(frozen=True, slots=True)
class Movements:
    """One row per movement: stitch kinds, what each takes and gives, and its colour's number.

    start: the round begins from a ring or chain, and takes nothing.
    marks: (place among the made stitches, change) of every increase and decrease.
    height: of the tallest stitch, in single crochets.
    last_colour: the colour on the hook at the end.
    """

    kinds: NDArray[np.uint8]
    takes: NDArray[np.int64]
    gives: NDArray[np.int64]
    colours: NDArray[np.int16]
    start: bool
    marks: tuple[tuple[int, int], ...]
    height: float
    last_colour: str


class _Laying:
    def __init__(self, colour: str) -> None:
        self.kinds: list[int] = []
        self.colours: list[str] = []
        self.colour = colour

    def lay(self, body: Sequence[Instruction], fill: int) -> None:
        for item in body:
            match item:
                case Work():
                    self._add([KIND_NUMBER[item.stitch]] * item.count)
                case Start():
                    self._add([_SC] * item.count)
                case Colour():
                    self.colour = item.name
                case Repeat():
                    self._repeat(item, fill if item.times is None else item.times)
                case _:
                    pass

    def _add(self, kinds: list[int]) -> None:
        if len(self.kinds) + len(kinds) <= MOST_STITCHES:
            self.kinds += kinds
            self.colours += [self.colour] * len(kinds)

    def _repeat(self, item: Repeat, times: int) -> None:
        if not times:
            return
        at = len(self.kinds)
        self.lay(item.body, 1)
        once = len(self.kinds) - at
        if any(isinstance(i, Colour) for i in item.body):
            for _ in range(min(times - 1, MOST_STITCHES)):
                self.lay(item.body, 1)
        elif len(self.kinds) + once * (times - 1) <= MOST_STITCHES:
            self.kinds += self.kinds[at:] * (times - 1)
            self.colours += self.colours[at:] * (times - 1)


@dataclass(frozen=True, slots=True)
class _Laid:
    """A round laid out, whoever asked for it: arrays are shared and read-only."""

    kinds: NDArray[np.uint8]
    takes: NDArray[np.int64]
    gives: NDArray[np.int64]
    colours: tuple[str, ...]
    start: bool
    marks: tuple[tuple[int, int], ...]
    height: float
    last_colour: str


def _marks(kinds: NDArray[np.uint8], gives: NDArray[np.int64]) -> tuple[tuple[int, int], ...]:
    at = np.cumsum(gives) - gives
    change = _CHANGE[kinds]
    shaped = np.flatnonzero(change)
    return tuple(zip(at[shaped].tolist(), change[shaped].tolist(), strict=True))


@lru_cache(maxsize=4096)
def _laid(body: tuple[Instruction, ...], live: int, colour: str) -> _Laid:
    """Lay out `body`; remembered, because most rounds of an edited part are the same as before.

    colours: one a movement, or a single one for a round of one colour.
    """
    laying = _Laying(colour)
    fill = (round_sum(body, live).fill or 0) if going_around(body) is not None else 0
    laying.lay(body, fill)
    kinds = np.array(laying.kinds, np.uint8)
    start = any(isinstance(i, Start) for i in body)
    takes = _TAKES[kinds] if not start else np.zeros(len(kinds), np.int64)
    gives = _GIVES[kinds]
    for array in (kinds, takes, gives):
        array.setflags(write=False)
    one = len(set(laying.colours)) <= 1
    colours = tuple(laying.colours[:1] if one else laying.colours)
    height = float(_HEIGHT[kinds].max()) if len(kinds) else 1.0
    return _Laid(kinds, takes, gives, colours, start, () if start else _marks(kinds, gives), height, laying.colour)


def movements(body: tuple[Instruction, ...], live: int, colour: str, number_of: dict[str, int]) -> Movements:
    """Lay out `body` over `live` stitches, starting with `colour` on the hook.

    number_of gives every colour its number and grows by colours not met before.
    """
    laid = _laid(body, live, colour)
    for name in laid.colours:
        number_of.setdefault(name, len(number_of))
    if len(laid.colours) == 1:
        colours = np.full(len(laid.kinds), number_of[laid.colours[0]], np.int16)
    else:
        colours = np.array([number_of[c] for c in laid.colours], np.int16)
    return Movements(laid.kinds, laid.takes, laid.gives, colours, laid.start, laid.marks, laid.height, laid.last_colour)
