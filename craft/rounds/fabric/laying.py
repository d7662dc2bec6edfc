"""Laying out a stretch of work: single movements of the hook as arrays, remembered by what was asked.

A stretch is worked along one edge without a turn. Where it goes in is told relative to the stitches
it uses up, so that the same stretch on other stitches is the same layout.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from craft.remembered import by_bytes
from craft.rounds.arithmetic import MOST_STITCHES, going_around, is_seam, sum_of
from craft.rounds.fabric.graph import KIND_KEYS, KIND_NUMBER, LOOP_NUMBER, Numbers
from craft.rounds.pattern import Cluster, Colour, FromHook, Instruction, Repeat, Same, Skip, Spur, Work
from craft.rounds.stitches import STITCHES, Loops, stitch

_HEIGHT = np.array([s.height for s in STITCHES.values()])
_CHAIN = KIND_NUMBER["ch"]


@dataclass(frozen=True, slots=True)
class Hole:
    """A gap in the fabric: behind so many stitches of the round, chains over it, stitches passed."""

    at: int
    chains: int
    passed: int


@dataclass(frozen=True, slots=True)
class Laid:
    """A stretch laid out; arrays are shared and read-only.

    kinds, loops: one row a stitch made. colours: one name a stitch, or a single one for all.
    counts: how many stitches each is worked into; into: those, as places among the stitches used up;
    places below zero mean the stretch's own stitches, -1 the first. live: None, or which stitches
    join the edge. takes: stitches of the edge used up. through: for each second edge by name, which
    rows of `into` are doubled there. marks: (place among the live stitches made, change) of increases
    and decreases. passed: places of stitches passed by. height: of the tallest stitch.
    """

    kinds: NDArray[np.uint8]
    loops: NDArray[np.uint8]
    colours: tuple[str, ...]
    counts: Numbers
    into: Numbers
    live: NDArray[np.bool_] | None
    takes: int
    through: tuple[tuple[str, Numbers], ...]
    marks: tuple[tuple[int, int], ...]
    holes: tuple[Hole, ...]
    passed: tuple[int, ...]
    height: float
    last_colour: str
    spurs: int

    @property
    def nbytes(self) -> int:
        """About how many bytes it takes."""
        arrays: list[NDArray[Any]] = [self.kinds, self.loops, self.counts, self.into, *(n for _, n in self.through)]
        return 1_000 + sum(a.nbytes for a in arrays) + 8 * len(self.colours) + 120 * len(self.marks)


@dataclass(frozen=True, slots=True)
class _Move:
    """One movement: makes `gives` stitches of `kind` (-1 passes), uses `takes`, or shares the place before."""

    kind: int
    takes: int
    gives: int
    loops: int
    colour: str
    through: str | None = None
    shares: bool = False
    spur: int = 0
    seam: bool = False


class _Laying:
    def __init__(self, colour: str, loops: Loops) -> None:
        self.moves: list[_Move] = []
        self.colour = colour
        self.loops = loops
        self.spurs = 0
        self.stitches = 0

    def lay(self, body: Sequence[Instruction], fill: int) -> None:
        for item in body:
            match item:
                case Work():
                    self._work(item)
                case Cluster():
                    self._cluster(item)
                case Same():
                    self._add(replace(self._move(Work(item.stitch)), takes=0, shares=True), item.count)
                case Skip():
                    if item.count:
                        self._add(_Move(-1, item.count, 0, 0, self.colour), 1)
                case FromHook():
                    self._add(_Move(-1, item.nth - 1, 0, 0, self.colour), 1)
                case Colour():
                    self.colour = item.name
                case Spur():
                    self._spur(item)
                case Repeat():
                    self._repeat(item, fill if item.times is None else item.times)
                case _:
                    pass

    def _move(self, item: Work) -> _Move:
        kind = KIND_NUMBER[item.stitch]
        entry = stitch(item.stitch)
        loops = entry.loops or item.loops or self.loops
        return _Move(kind, entry.takes, entry.gives, LOOP_NUMBER[loops], self.colour, item.through, seam=is_seam(item))

    def _work(self, item: Work) -> None:
        self._add(self._move(item), item.count)

    def _add(self, move: _Move, count: int) -> None:
        if len(self.moves) + count <= MOST_STITCHES:
            self.moves += [move] * count

    def _cluster(self, item: Cluster) -> None:
        first = True
        for work in item.body:
            move = self._move(work)
            for _ in range(work.count):
                self._add(replace(move, takes=1 if first else 0, shares=not first), 1)
                first = False

    def _spur(self, item: Spur) -> None:
        self.spurs += 1
        inner = _Laying(self.colour, Loops.BOTH)
        fill = _fill(item.body, item.room)
        inner.lay(item.body, fill)
        self._add(_Move(_CHAIN, 0, 1, 0, self.colour, spur=self.spurs), item.chain)
        self._add(_Move(-1, item.nth - 1, 0, 0, self.colour, spur=self.spurs), 1)
        for move in inner.moves:
            self._add(replace(move, spur=self.spurs), 1)

    def _repeat(self, item: Repeat, times: int) -> None:
        if not times:
            return
        at = len(self.moves)
        spurs = self.spurs
        self.lay(item.body, 1)
        again = self.moves[at:]
        alike = self.spurs == spurs and not any(isinstance(i, Colour | Repeat) for i in item.body)
        if not alike:
            for _ in range(min(times - 1, MOST_STITCHES)):
                if len(self.moves) + len(again) > MOST_STITCHES:
                    return
                self.lay(item.body, 1)
        elif len(self.moves) + len(again) * (times - 1) <= MOST_STITCHES:
            self.moves += again * (times - 1)


def _fill(body: Sequence[Instruction], room: int) -> int:
    """How often what goes around in `body` fits into `room` stitches."""
    at = going_around(body)
    if at is None:
        return 0
    repeat = body[at]
    assert isinstance(repeat, Repeat)
    unit = sum_of(repeat.body).takes
    left = room - sum_of([item for i, item in enumerate(body) if i != at]).takes
    return max(left, 0) // unit if unit else 1


_BOTH = LOOP_NUMBER[Loops.BOTH]


@by_bytes(24 * 2**20, lambda laid: laid.nbytes)
def lay(body: tuple[Instruction, ...], room: int, colour: str, loops: Loops = Loops.BOTH) -> Laid:
    """Lay out `body` over `room` stitches of an edge, beginning with `colour` on the hook."""
    laying = _Laying(colour, loops)
    laying.lay(body, _fill(body, room))
    moves = laying.moves
    kinds = np.array([m.kind for m in moves], np.int64)
    takes = np.array([m.takes for m in moves], np.int64)
    gives = np.array([m.gives for m in moves], np.int64)
    shares = np.array([m.shares for m in moves], np.bool_)
    spur = np.array([m.spur for m in moves], np.int64)
    rows = np.repeat(np.arange(len(moves)), gives)
    counts, into = _places(takes, gives, shares, spur, rows)
    made = kinds[rows].astype(np.uint8)
    seam = np.array([m.seam for m in moves], np.bool_)
    live = _live(seam | (spur != 0), rows)
    on_edge = np.ones(len(rows), np.bool_) if live is None else live
    names = [m.colour for m in moves]
    one = len(set(names)) <= 1
    colours = tuple(names[:1] if one else [names[r] for r in rows])
    # What goes into nothing goes into no loop either: a bridge in a front-loop round, say.
    looped = np.where(counts > 0, np.array([m.loops for m in moves], np.uint8)[rows], _BOTH).astype(np.uint8)
    edge_takes = np.where(spur == 0, takes, 0)
    passed, holes = _passed(kinds, edge_takes, gives, spur)
    if live is not None:
        live.setflags(write=False)
    for array in (made, looped, counts, into):
        array.setflags(write=False)
    heights = _HEIGHT[made[on_edge]]
    return Laid(
        kinds=made,
        loops=looped,
        colours=colours or (colour,),
        counts=counts,
        into=into,
        live=live,
        takes=int(edge_takes.sum()),
        through=_through(moves, rows, counts),
        marks=_marks(kinds, edge_takes, gives, shares, spur),
        holes=holes,
        passed=passed,
        height=float(heights.max()) if len(heights) else 1.0,
        last_colour=laying.colour,
        spurs=laying.spurs,
    )


def _live(off: NDArray[np.bool_], rows: Numbers) -> NDArray[np.bool_] | None:
    """Which stitches join the edge, None when all do."""
    return None if not off.any() else ~off[rows]


def _places(
    takes: Numbers, gives: Numbers, shares: NDArray[np.bool_], spur: Numbers, rows: Numbers
) -> tuple[Numbers, Numbers]:
    """What each stitch is worked into: how many places, and which."""
    on_edge = np.where(spur == 0, takes, 0)
    before = np.cumsum(on_edge) - on_edge
    counts = takes.copy()
    first = before.copy()
    if shares.any():
        owner = np.maximum.accumulate(np.where(~shares & (takes > 0), np.arange(len(takes)), -1))
        known = shares & (owner >= 0)
        counts[known] = takes[owner[known]]
        first[known] = before[owner[known]]
    if (spur != 0).any():
        _spur_places(takes, gives, spur, counts, first)
    each = counts[rows]
    offset = np.arange(int(each.sum())) - np.repeat(np.cumsum(each) - each, each)
    into = np.repeat(first[rows], each)
    return each, np.where(into >= 0, into + offset, into - offset)


def _spur_places(takes: Numbers, gives: Numbers, spur: Numbers, counts: Numbers, first: Numbers) -> None:
    """Places of spur stitches: their own chains, from the hook's end back."""
    made_before = np.cumsum(gives) - gives
    for number in range(1, int(spur.max()) + 1):
        at = np.flatnonzero(spur == number)
        chains = [i for i in at if takes[i] == 0 and gives[i] == 1]
        if not chains:
            continue
        base, many = int(made_before[chains[0]]), len(chains)
        used = 0
        for i in at:
            if takes[i]:
                # Own stitch k is place -(k + 1); the chain next to the hook is the last one made.
                top = base + many - 1 - used
                first[i] = -(max(top - int(takes[i]) + 1, base) + 1)
                counts[i] = min(int(takes[i]), max(top - base + 1, 1)) if gives[i] else 0
                used += int(takes[i])


def _marks(
    kinds: Numbers, takes: Numbers, gives: Numbers, shares: NDArray[np.bool_], spur: Numbers
) -> tuple[tuple[int, int], ...]:
    """Increases and decreases, stitches that share a place counted with the first of them."""
    counted = np.where((spur == 0) & (kinds >= 0) & (kinds != _CHAIN), gives, 0)
    on_edge = np.where(spur == 0, gives, 0)
    at = np.cumsum(on_edge) - on_edge
    takes = np.where(kinds >= 0, takes, 0)
    change = np.where(counted > 0, counted - takes, 0)
    if shares.any():
        owner = np.maximum.accumulate(np.where(~shares, np.arange(len(shares)), 0))
        change = np.bincount(owner, counted, len(shares)).astype(np.int64) - takes
        change = np.where((counted > 0) & ~shares, change, 0)
    shaped = np.flatnonzero(change * (takes > 0))
    return tuple(zip(at[shaped].tolist(), change[shaped].tolist(), strict=True))


def _passed(kinds: Numbers, takes: Numbers, gives: Numbers, spur: Numbers) -> tuple[tuple[int, ...], tuple[Hole, ...]]:
    """Places passed by, and the holes that bridges and skips leave."""
    chains = (kinds == _CHAIN) & (spur == 0)
    skips = (kinds < 0) & (spur == 0) & (takes > 0)
    if not chains.any() and not skips.any():
        return (), ()
    before = np.cumsum(takes) - takes
    made = np.cumsum(np.where(spur == 0, gives, 0))
    passed: list[int] = []
    holes: list[Hole] = []
    open_chains, open_skips, at = 0, 0, 0
    for i in range(len(kinds)):
        if spur[i]:
            continue
        if chains[i] or skips[i]:
            if not open_chains and not open_skips:
                at = int(made[i - 1]) if i else 0
            open_chains += int(chains[i])
            open_skips += int(takes[i]) if skips[i] else 0
            passed += range(int(before[i]), int(before[i] + takes[i])) if skips[i] else ()
        elif open_chains or open_skips:
            holes.append(Hole(at, open_chains, open_skips))
            open_chains, open_skips = 0, 0
    if open_chains or open_skips:
        holes.append(Hole(at, open_chains, open_skips))
    return tuple(passed), tuple(holes)


def _through(moves: Sequence[_Move], rows: Numbers, counts: Numbers) -> tuple[tuple[str, Numbers], ...]:
    """For each second edge, the rows of made stitches that are worked through it too."""
    names = dict.fromkeys(m.through for m in moves if m.through is not None)
    if not names:
        return ()
    which = [moves[r].through for r in rows]
    return tuple((name, np.array([i for i, w in enumerate(which) if w == name], np.int64)) for name in names)


def keys_of(kinds: NDArray[np.uint8]) -> list[str]:
    """Stitch keys of kind numbers."""
    return [KIND_KEYS[k] for k in kinds.tolist()]
