"""The rounds of a part as they were worked at its first size: what every one was worked on, and what it made."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from craft.remembered import by_bytes
from craft.rounds.fabric import MAIN_COLOUR, Piece, Tally, WorkedPart, run_part
from craft.rounds.pattern import (
    Again,
    Chain,
    Colour,
    Instruction,
    Item,
    Join,
    Part,
    Repeat,
    Round,
    Section,
    Start,
    Turn,
    Work,
    unfolded,
)
from craft.rounds.stitches import stitch
from craft.rounds.unrolled import written_out


@dataclass(frozen=True, slots=True, eq=False)
class SourceRound:
    """A round of the first size: itself, and no other that is like it.

    before: stitches it was worked on. tally: what came of it, None for a starting chain. colour: on the hook when it
    begins. begins: nothing lies under it that it goes on from.
    """

    made: Round
    before: int
    tally: Tally | None
    colour: str
    begins: bool = False

    @property
    def live(self) -> int:
        """Stitches after it."""
        return self.before if self.tally is None else self.tally.live

    @property
    def plain(self) -> bool:
        """Whether it goes once around (or once across) over every stitch of the round below, and over nothing else."""
        tally = self.tally
        if tally is None or self.begins or tally.rest or tally.held or tally.holes or tally.taken != self.before:
            return False
        return tally.live == tally.made and _is_plain(_core(self.made.body, flat=tally.flat))

    def stitches(self) -> list[Instruction]:
        """Its stitches one by one, without what leads them in and closes them."""
        return list(_stitches(self.made.body, self.before, self.tally is not None and self.tally.flat))


@by_bytes(8 * 2**20, lambda stitches: 100 + 8 * len(stitches))
def _stitches(body: tuple[Instruction, ...], before: int, flat: bool) -> tuple[Instruction, ...]:
    return tuple(i for i in written_out(_core(body, flat=flat), before) if not isinstance(i, Join))


def lead_and_close(body: Sequence[Instruction]) -> tuple[tuple[Instruction, ...], tuple[Instruction, ...]]:
    """What stands before the first stitch and behind the last: turning chains, turns, joins."""
    at = next((k for k, i in enumerate(body) if not isinstance(i, Chain | Turn)), len(body))
    end = len(body)
    while end > at and isinstance(body[end - 1], Join | Turn):
        end -= 1
    return tuple(body[:at]), tuple(body[end:])


def _core(body: Sequence[Instruction], *, flat: bool) -> tuple[Instruction, ...]:
    lead, close = lead_and_close(body)
    if not flat and any(isinstance(i, Turn) for i in (*lead, *close)):
        return tuple(body)
    return tuple(body[len(lead) : len(body) - len(close)])


def _is_plain(body: Sequence[Instruction]) -> bool:
    for item in body:
        match item:
            case Repeat():
                if not _is_plain(item.body):
                    return False
            case Work():
                entry = stitch(item.stitch)
                if item.through is not None or not entry.takes or not entry.gives:
                    return False
            case Colour():
                pass
            case _:
                return False
    return True


@dataclass(frozen=True, slots=True)
class SourcePart:
    """A part of the first size, every round written for itself. items: as written; rounds: by their index in items.

    told: codes of the problems that it has as it is.
    """

    part: Part
    items: tuple[Item, ...]
    rounds: Mapping[int, SourceRound]
    worked: WorkedPart
    colour: str
    told: frozenset[str] = frozenset()


def source_of(part: Part, colour: str = MAIN_COLOUR, pieces: Mapping[str, Piece] | None = None) -> SourcePart:
    """A part run round by round, with `colour` on the hook at first; pieces: others that it takes in."""
    items = tuple(_spelled(part.items))
    worked, problems = run_part(replace(part, items=items), colour, pieces)
    tallies = {t.source: t for t in worked.rounds}
    found: dict[int, SourceRound] = {}
    live, at, on_hook, anew = 0, 0, colour, True
    for index, item in enumerate(items):
        match item:
            case Colour():
                on_hook = item.name
            case Section():
                anew = True
            case Round():
                tally = tallies.get(at)
                at += 1
                starts = any(isinstance(i, Start) for i in item.body) or (tally is not None and tally.start)
                before = tally.taken + tally.rest if tally is not None and (anew or starts) else live
                found[index] = SourceRound(item, before, tally, on_hook, begins=starts or (anew and tally is not None))
                if tally is not None:
                    live, on_hook, anew = tally.live, _last_colour(item, on_hook), False
            case _:
                pass
    return SourcePart(part, items, found, worked, colour, frozenset(p.code for p in problems))


def _last_colour(made: Round, colour: str) -> str:
    for item in _deep(made.body):
        if isinstance(item, Colour):
            colour = item.name
    return colour


def _deep(body: Sequence[Instruction]) -> list[Instruction]:
    out: list[Instruction] = []
    for item in body:
        out += _deep(item.body) if isinstance(item, Repeat) else [item]
    return out


def _spelled(items: Sequence[Item]) -> list[Item]:
    """Every round by itself; rounds that are said by naming others written out."""
    known: dict[int, Round] = {}
    out: list[Item] = []
    for item in unfolded(items):
        if not isinstance(item, Round):
            out.append(item)
            continue
        again = next((i for i in item.body if isinstance(i, Again)), None)
        for number in _numbers(item):
            made = item if item.first is None else replace(item, first=number, last=number)
            if again is not None and number is not None and item.first is not None:
                origin = known.get(again.first + (number - item.first) % (again.last - again.first + 1))
                if origin is not None:
                    last = number == item.last
                    count = item.count if last and item.count is not None else origin.count
                    made = replace(made, body=origin.body, loops=origin.loops, count=count)
            if number is not None:
                known[number] = made
            out.append(made)
    return out


def _numbers(item: Round) -> list[int | None]:
    if item.first is None or item.last is None:
        return [None]
    return list(range(item.first, item.last + 1))
