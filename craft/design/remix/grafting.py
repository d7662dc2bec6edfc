"""Grafts: a base to one of its rounds, then a piece from one of its own."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum

from craft.design.design import Design
from craft.design.grading.edges import Around
from craft.design.grading.regrade import regrade
from craft.design.grading.source import SourcePart, SourceRound, source_of
from craft.design.grading.words import rounds_resaid
from craft.design.remix.adapting import adapter_rounds
from craft.design.remix.ports import Cut
from craft.design.remix.putting_in import renamed_in
from craft.errors import CraftError, require
from craft.gauge import Gauge
from craft.problems import Severity
from craft.rounds.fabric import MAIN_COLOUR, Piece, WorkedPart, run_part
from craft.rounds.pattern import (
    Colour,
    Edge,
    Instruction,
    Item,
    Note,
    Onto,
    Part,
    Repeat,
    Round,
    Section,
    Spur,
    Step,
    StepKind,
    folded,
)
from craft.text.notation import find_coil, find_threads


class Adapt(StrEnum):
    """How a piece is made to fit: ROUNDS between the two, or the piece GRADED to the base's edge."""

    ROUNDS = "rounds"
    GRADE = "grade"


@dataclass(frozen=True)
class Graft:
    """A part made of two. base, piece: stitches that meet at the cut, as they were. adapters: rounds put between.

    scale: by which the piece was graded, 1 where it was not. tops: the number that each round of the piece has now.
    told: what was sorted out or left out, in sentences.
    """

    part: Part
    worked: WorkedPart
    base: int
    piece: int
    adapters: int
    scale: float
    tops: Mapping[int, int]
    told: tuple[str, ...] = field(default=())


_CLOSING = frozenset({StepKind.CLOSE, StepKind.FASTEN_OFF, StepKind.TAIL, StepKind.SEW})
"""Directions that end a part."""


@dataclass(frozen=True)
class _Taken:
    """What is taken of a piece: its rounds one by one from the item `at` on, as they are or graded.

    tops: the number in `source` that stands for each round of the piece.
    """

    source: SourcePart
    at: int
    tops: Mapping[int, int]

    @property
    def here(self) -> SourceRound:
        """The first round that is taken."""
        return self.source.rounds[self.at]

    @property
    def first(self) -> int:
        """Its number."""
        return self.here.made.first or 1

    @property
    def numbers(self) -> list[int]:
        """Numbers of all rounds."""
        return _numbers(self.source)


def graft(
    base: Cut,
    piece: Cut,
    adapt: Adapt | None = None,
    colours: Mapping[str, str] | None = None,
    names: Mapping[str, str] | None = None,
) -> Graft:
    """The base's rounds up to its cut, then the piece's from its own. adapt: what to do where the counts differ.

    colours: other names of the piece's yarns. names: other names of parts that it takes in. CraftError where it cannot
    be: rows against rounds, counts that differ with nothing to be done about it, loops that are not there any more.
    """
    colours, names = colours or {}, names or {}
    have, need = base.here.live, piece.here.before
    _fit(base, piece)
    scale = have / need if adapt is Adapt.GRADE else 1.0
    taken = _Taken(piece.source, piece.at, {n: n for n in _numbers(piece.source)})
    if have != need and adapt is Adapt.GRADE:
        taken = _graded(piece, scale, base.gauge)
    elif have != need and adapt is None:
        raise CraftError(
            f"{base.run.name} has {have} stitches after R{base.round}, {piece.run.name} goes on from {need} at "
            f"R{piece.round}. Put rounds between, or grade the piece.",
            field="adapt",
        )
    lower, told = _lower(base)
    below = [r for at, r in base.source.rounds.items() if at <= base.at]
    adapters = adapter_rounds(have, taken.here.before, base.gauge, base.round + 1, below)
    shift = base.round + len(adapters) - (taken.first - 1)
    upper, more = _upper(taken, shift, colours, names)
    wanted = colours.get(taken.here.colour, taken.here.colour)
    same = _one_yarn(_colour_at(base), wanted, base.design)
    change = [] if same or _begins_coloured(upper) else [Colour(wanted)]
    made = Part(base.run.name, folded((*lower, *adapters, *change, *upper)), base.run.part.make)
    along = {names.get(n, n): replace(p, name=names.get(n, n)) for n, p in piece.pieces.items()}
    worked = _sound(made, base, {**base.pieces, **along})
    tops = {old: new + shift for old, new in taken.tops.items()}
    told += more + _seam(base, piece, len(adapters), lower, upper)
    return Graft(made, worked, have, need, len(adapters), scale, tops, tuple(told))


def _fit(base: Cut, piece: Cut) -> None:
    ways = {True: "rows", False: "rounds"}
    require(
        base.tally.flat == piece.tally.flat,
        f"{base.run.name} is worked in {ways[base.tally.flat]} there, {piece.run.name} in {ways[piece.tally.flat]}.",
        field="round",
    )
    begins = "The first round of a piece begins from nothing; take it from a later one."
    require(not piece.here.begins, begins, field="from")
    waiting = sum(r.tally.held for at, r in base.source.rounds.items() if at <= base.at and r.tally is not None)
    put_aside = f"{base.run.name} has stitches waiting at R{base.round}; cut it before they are put aside."
    require(not waiting, put_aside, field="round")


def _graded(piece: Cut, scale: float, gauge: Gauge) -> _Taken:
    """The piece graded, from the round that stands for the one it was to be taken from."""
    part = piece.run.part
    sized = f"The piece would have to be {scale:.0%} of its size; what can be graded is from 20 % to 500 %."
    require(0.2 <= scale <= 5, sized, field="adapt")
    colour = part.colour or MAIN_COLOUR
    around = Around(colour, dict(piece.pieces), dict(piece.pieces))
    found = regrade(piece.run.written, scale, gauge, part.recipe if part.drafted else None, around, piece.source)
    source = source_of(found.part, colour, dict(piece.pieces))
    places = {r.made.first: at for at, r in source.rounds.items() if r.made.first is not None and not r.begins}
    old, new = _numbers(piece.source), _numbers(source)
    tops = found.tops or {n: round(n * len(new) / len(old)) for n in old}
    wished = tops.get(piece.round - 1, 0) + 1
    first = min(places, key=lambda n: abs(n - wished), default=None)
    require(first is not None, "Nothing is left of the piece at this size.", field="adapt")
    assert first is not None
    return _Taken(source, places[first], tops)


def _numbers(source: SourcePart) -> list[int]:
    return [r.made.first for r in source.rounds.values() if r.made.first is not None]


# --- both sides -----------------------------------------------------------------------------------


def _lower(base: Cut) -> tuple[list[Item], list[str]]:
    """What stays of the base, and what of its directions does not."""
    kept, told = list(base.items[: base.at + 1]), []
    for item in base.items[base.at + 1 :]:
        if isinstance(item, Round):
            break
        if isinstance(item, Step) and item.kind in _CLOSING:
            told.append(f"Left out, as the part goes on: “{item.text}”")
        elif isinstance(item, Step | Note):
            kept.append(item)
    later = [i for i in base.items[base.at + 1 :] if isinstance(i, Step | Note) and i not in kept]
    told += [f"Gone with the rounds above the cut: “{i.text}”" for i in later if not _is_closing(i)]
    return kept, told


def _is_closing(item: Item) -> bool:
    return isinstance(item, Step) and item.kind in _CLOSING


def _upper(
    taken: _Taken, shift: int, colours: Mapping[str, str], names: Mapping[str, str]
) -> tuple[list[Item], list[str]]:
    """What is taken of the piece, numbered on, and what of its directions is not."""
    items = taken.source.items
    gone = [i.text for i in items[: taken.at] if isinstance(i, Step | Note)]
    told = [f"Gone with the piece's first rounds: “{text}”" for text in gone]
    tops = {n: n + shift for n in taken.numbers}
    lives = {n for n in taken.numbers if n >= taken.first}
    out: list[Item] = []
    by = shift
    for at, item in enumerate(items[taken.at :], taken.at):
        match item:
            case Section():
                by = 0 if _first_number(items[at:]) == 1 else shift  # what is numbered anew stays so
                out.append(item)
            case Round():
                number = None if item.first is None else item.first + by
                body = tuple(renamed_in(_free_loops(i, tops, lives), colours, names) for i in item.body)
                out.append(replace(item, first=number, last=number, or_to=None, body=body))
            case Step():
                text = rounds_resaid(item.text, tops)
                threads = find_threads(text) if item.threads else ()
                out.append(replace(item, text=text, threads=threads, coil=item.coil and find_coil(text)))
            case Note():
                out.append(replace(item, text=rounds_resaid(item.text, tops)))
            case Colour():
                out.append(replace(item, name=colours.get(item.name, item.name)))
            case _:
                out.append(item)
    return out, told


def _first_number(items: Sequence[Item]) -> int | None:
    return next((i.first for i in items if isinstance(i, Round) and i.first is not None), None)


def _free_loops(item: Instruction, tops: Mapping[int, int], lives: set[int]) -> Instruction:
    """An instruction with the rounds, whose loops it is worked in, as they are numbered now."""
    match item:
        case Onto(edge=Edge.FREE, round=int(n)):
            require(n in lives, f"It is worked on in loops of R{n}, which is not taken along.", field="from")
            return replace(item, round=tops[n])
        case Repeat() | Spur():
            return replace(item, body=tuple(_free_loops(i, tops, lives) for i in item.body))
    return item


def _colour_at(base: Cut) -> str:
    """The yarn on the hook after the base's last round."""
    return base.tally.colours[-1] if base.tally.colours else base.here.colour


def _one_yarn(one: str, two: str, design: Design) -> bool:
    """Whether two names are of one yarn: the main colour is the first yarn."""
    main = {MAIN_COLOUR, *([design.yarn.name] if design.yarn else [])}
    return one == two or (one in main and two in main)


def _begins_coloured(items: Sequence[Item]) -> bool:
    first = items[0] if items else None
    return isinstance(first, Round) and bool(first.body) and isinstance(first.body[0], Colour)


def _sound(made: Part, base: Cut, pieces: Mapping[str, Piece]) -> WorkedPart:
    """The part as it runs; CraftError with the first thing that does not come out."""
    worked, problems = run_part(made, base.run.part.colour or MAIN_COLOUR, dict(pieces))
    fault = next((p for p in problems if p.severity is Severity.FAULT), None)
    if fault is not None:
        raise CraftError(f"The two do not come together: {fault.message}", field="from")
    return worked


def _seam(base: Cut, piece: Cut, adapters: int, lower: Sequence[Item], upper: Sequence[Item]) -> list[str]:
    """What she should look at where the two meet."""
    told = []
    if base.tally.joined != piece.tally.joined:
        a, b = ("joined rounds", "a spiral") if base.tally.joined else ("a spiral", "joined rounds")
        told.append(f"Worked as {a} below the cut and as {b} above it: the start of the round may show there.")
    for kind, words in ((StepKind.EYES, "Eyes are placed"), (StepKind.STUFF, "Stuffing is begun")):
        both = [[i for i in side if isinstance(i, Step) and i.kind is kind] for side in (lower, upper)]
        if all(both):
            told.append(f"{words} in both halves: “{both[0][0].text}” and “{both[1][0].text}”")
    if adapters:
        told.append(f"{adapters} adapter {'round' if adapters == 1 else 'rounds'} behind R{base.round}.")
    return told
