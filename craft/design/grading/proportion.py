"""Rounds that are more than plain, in proportion: what is worked along an edge scales, what stands for itself stays.

A split, a limb worked in, an oval's first round, a skirt's: their plain stretches take up the difference, in equal
shares where they were equal; every edge is used up as it was.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from craft.design.grading.painting import is_motif, takes_and_gives
from craft.errors import CraftError
from craft.rounds.arithmetic import sum_of
from craft.rounds.pattern import Chain, Cluster, Edge, FromHook, Instruction, Leave, Onto, Repeat, Shift, Skip, Work
from craft.rounds.stitches import stitch
from craft.rounds.unrolled import counted


@dataclass(frozen=True, slots=True)
class EdgeSize:
    """Stitches of an edge at the first size and at the new one."""

    before: int
    after: int

    @property
    def ratio(self) -> float:
        """How many times as long it is."""
        return self.after / max(self.before, 1)


EdgeOf = Callable[[Onto, int], EdgeSize]
"""The size of an edge that a round goes on along, by how many of its stitches are taken at the first size."""


ThroughOf = Callable[[str, int], int]
"""How many stitches work another edge in along with this one, by its name ('' for this one folded) and how many they
were at the first size."""


def in_proportion(
    body: Sequence[Instruction], main: EdgeSize, edge_of: EdgeOf, through_of: ThroughOf
) -> tuple[Instruction, ...]:
    """A round's body at another size. main: the edge it begins on.

    CraftError when an edge has too few stitches for what is worked along it.
    """
    out: list[Instruction] = []
    for onto, group in _by_edge(body):
        if onto is not None:
            out.append(onto)
        taken = _taken(group)
        size = main if onto is None or onto.edge is Edge.MAIN else edge_of(onto, taken)
        out += _scaled(_with_through(group, through_of), taken, size)
    return tuple(out)


def _by_edge(body: Sequence[Instruction]) -> list[tuple[Onto | None, list[Instruction]]]:
    groups: list[tuple[Onto | None, list[Instruction]]] = [(None, [])]
    for item in body:
        if isinstance(item, Onto):
            groups.append((item, []))
        else:
            groups[-1][1].append(item)
    return [g for g in groups if g[0] is not None or g[1]]


def _taken(group: Sequence[Instruction]) -> int:
    """Stitches of the edge that a group of instructions uses; what goes around counts once."""
    return sum_of([i for i in group if not isinstance(i, Chain)]).takes


@dataclass(slots=True)
class _Run:
    """Something of a round that scales: at which place, how many of the edge's stitches one of it takes, how many there
    are now. least: fewer cannot be."""

    at: int
    unit: int
    many: int
    wanted: float
    least: int = 1


def _scaled(group: Sequence[Instruction], taken: int, size: EdgeSize) -> list[Instruction]:
    """What is worked along one edge, of which it took `taken` stitches at the first size."""
    items: list[Instruction | None] = list(counted(group))
    fills = any(isinstance(i, Repeat) and i.times is None for i in items)
    folded = any(isinstance(i, Work) and i.through == "" for i in items)
    runs = [run for at, item in enumerate(items) if item and (run := _run(at, item, size)) is not None]
    if not fills and not (folded and not runs):
        fixed = _taken([i for i in items if i]) - sum(r.unit * r.many for r in runs)
        target = (size.after if taken == size.before else round(taken * size.ratio)) - fixed
        rest = _shared(runs, target)
        if rest:
            items = _with_rest(items, runs, rest)
    for run in runs:
        if fills and run.at and isinstance(items[run.at - 1], FromHook):
            continue  # 'sc in 2nd ch from hook and in each ch across'
        items[run.at] = _with(items[run.at], max(run.least, round(run.wanted)))
    if fills:
        items = _come_out(items, size.after)
    left = [i for i in items if i is not None]
    if any(isinstance(i, _WORKED) for i in group) and not any(isinstance(i, _WORKED) for i in left):
        raise CraftError("nothing is left to be worked along an edge", field="scale")
    return left


_WORKED = (Work, Repeat, Cluster, Skip)


def _come_out(items: Sequence[Instruction | None], live: int) -> list[Instruction | None]:
    """What goes around as often as it fits, with plain stitches for what no whole repeat fits into."""
    at = next(k for k, i in enumerate(items) if isinstance(i, Repeat) and i.times is None)
    around = items[at]
    assert isinstance(around, Repeat)
    unit = sum_of(around.body).takes
    room = live - (_taken([i for k, i in enumerate(items) if i and k != at]))
    if unit < 2 or room % unit == 0 or around.leave:
        return list(items)
    if room < unit:
        raise CraftError("there are too few stitches for one repeat", field="scale")
    plain = Work(_plain_of(around), room % unit)
    return [*items[:at], replace(around, times=room // unit), plain, *items[at + 1 :]]


def _run(at: int, item: Instruction, size: EdgeSize) -> _Run | None:
    """What of an instruction scales with the edge; None for what stays as it is."""
    match item:
        case Work():
            entry = stitch(item.stitch)
            if entry.takes != 1 or entry.gives != 1 or is_motif(item) or item.through is not None:
                return None
            return _Run(at, 1, item.count, item.count * size.ratio, least=0)
        case Skip() if item.count:
            return _Run(at, 1, item.count, item.count * size.ratio)
        case Repeat() if item.times is not None:
            unit = sum_of(item.body).takes
            return _Run(at, unit, item.times, item.times * size.ratio) if unit else None
        case _:
            return None


def _shared(runs: Sequence[_Run], target: int) -> int:
    """Let the runs take `target` stitches in all, equal ones equally where that comes out; what is left over.

    CraftError when they cannot be so few.
    """
    if not runs:
        if target:
            raise CraftError("nothing in the round can take up the difference", field="scale")
        return 0
    if target < sum(r.unit * r.least for r in runs):
        raise CraftError("there are too few stitches for all that is worked in the round", field="scale")
    alike: dict[tuple[int, int], list[_Run]] = {}
    for run in runs:
        run.wanted = max(run.least, math.floor(run.wanted + 0.5))
        alike.setdefault((run.unit, run.many), []).append(run)
    left = target - sum(r.unit * round(r.wanted) for r in runs)
    # Runs that stand alone give way first, the longest of them; then equal ones together; then one by one.
    classes = sorted(alike.values(), key=lambda c: (len(c), -c[0].unit * c[0].many))
    for same in (*classes, *([r] for r in sorted(runs, key=lambda r: -r.many))):
        step = sum(r.unit for r in same)
        times = int(left / step)
        times = max(times, -min(round(r.wanted) - r.least for r in same))
        for run in same:
            run.wanted += times
        left -= times * step
    while left < 0:
        spare = next((r for r in sorted(runs, key=lambda r: -r.many) if round(r.wanted) > r.least), None)
        if spare is None:
            raise CraftError("there are too few stitches for all that is worked in the round", field="scale")
        spare.wanted -= 1
        left += spare.unit
    return left


def _with(item: Instruction | None, many: int) -> Instruction | None:
    """An instruction so many times; nothing for none."""
    if not many:
        return None
    if isinstance(item, Repeat):
        return replace(item, times=many)
    if isinstance(item, Work | Skip):
        return replace(item, count=many)
    return item


def _with_rest(items: list[Instruction | None], runs: Sequence[_Run], rest: int) -> list[Instruction | None]:
    """Plain stitches for what no whole repeat fits into, behind the last of the repeats."""
    last = max(r.at for r in runs)
    plain = _plain_of(items[last])
    for run in runs:
        if run.at > last:
            run.at += 1
    return [*items[: last + 1], Work(plain, rest), *items[last + 1 :]]


def _plain_of(item: Instruction | None) -> str:
    if isinstance(item, Repeat):
        keys = [i.stitch for i in item.body if isinstance(i, Work) and takes_and_gives(i) == (1, 1) and not is_motif(i)]
        return keys[0] if keys else "sc"
    return item.stitch if isinstance(item, Work) else "sc"


def bridged(body: Sequence[Instruction], scale: float) -> tuple[Instruction, ...]:
    """The body with chains that bridge a gap, and what is skipped under them, longer or shorter in proportion."""
    out: list[Instruction] = []
    begun = False
    for item in body:
        bridge = isinstance(item, Chain) and begun
        out.append(
            replace(item, count=max(1, round(item.count * scale))) if bridge and isinstance(item, Chain) else item
        )
        begun = begun or isinstance(item, Work | Repeat | Cluster)
    return tuple(out)


def shifted(body: Sequence[Instruction], scale: float) -> tuple[Instruction, ...]:
    """The body with stitches that only move the start, and those left, in proportion."""
    return tuple(_moved(item, scale) for item in body)


def _moved(item: Instruction, scale: float) -> Instruction:
    if isinstance(item, Shift) or (isinstance(item, Leave) and item.count):
        return replace(item, count=max(1, round((item.count or 0) * scale)))
    return item


def _with_through(body: Sequence[Instruction], through_of: ThroughOf) -> list[Instruction]:
    """The body with every stretch that works another edge in as long as that edge is now."""
    return [
        replace(i, count=through_of(i.through, i.count)) if isinstance(i, Work) and i.through is not None else i
        for i in body
    ]
