"""How hard a figure is to make, by what its rounds and its putting together ask for, and what makes it so.

Four levels, told by techniques as the trade grades them (basic: the plain stitch and its shaping; easy: simple colour work,
other edges; intermediate: colour within rounds, textures, special construction; complex: many of those together). Common
practice, quoted from memory; the bounds between them are our own judgement.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from craft.design.design import Design, Level
from craft.design.running import RunPart
from craft.rounds.pattern import (
    Chain,
    Cluster,
    Colour,
    Edge,
    Instruction,
    Leave,
    Onto,
    Repeat,
    Round,
    Spur,
    Start,
    Step,
    StepKind,
    Way,
    Work,
)
from craft.rounds.stitches import STITCHES, Loops

MANY_TECHNIQUES, MANY_PIECES = 5, 14
"""From so many special techniques on a figure is complex; so many pieces are one of them."""

SEVERAL_PARTS, FEW_STITCHES = 5, 4

_PLAIN = {"sc", "slst", "ch"}
_EASY = {"hdc", "dc", "tr", "fsc", "splitsc"}


@dataclass(frozen=True, slots=True)
class Asked:
    """A technique that a figure asks for: what it is, at which level that begins, and where it is first met."""

    what: str
    level: Level
    where: str


@dataclass(frozen=True, slots=True)
class Difficulty:
    """How hard a figure is, and what makes it so: the techniques of its level, with where they are first met."""

    level: Level
    why: tuple[Asked, ...]

    @property
    def reasons(self) -> str:
        """In words: 'bobbles (Body, R8), parts worked in (Body, R12)'."""
        return ", ".join(f"{a.what} ({a.where})" if a.where else a.what for a in self.why)


def difficulty_of(design: Design, parts: Sequence[RunPart]) -> Difficulty:
    """The level of a figure by what is used in it."""
    found: dict[str, Asked] = {}
    for asked in _asked(design, parts):
        found.setdefault(asked.what, asked)
    special = [a for a in found.values() if a.level is Level.INTERMEDIATE]
    if len(special) >= MANY_TECHNIQUES:
        return Difficulty(Level.COMPLEX, tuple(special))
    if special:
        return Difficulty(Level.INTERMEDIATE, tuple(special))
    easy = [a for a in found.values() if a.level is Level.EASY]
    return Difficulty(Level.EASY if easy else Level.BASIC, tuple(easy))


def _asked(design: Design, parts: Sequence[RunPart]) -> Iterator[Asked]:
    for part in parts:
        first = True
        for item in part.written.items:
            if isinstance(item, Step):
                yield from _of_step(part, item)
            elif isinstance(item, Round):
                where = f"{part.name}, {item.label}" if item.label else part.name
                yield from _of_round(item, where, first=first)
                first = False
    if any(y.plush for y in design.yarns):
        yield Asked("plush yarn, whose stitches are felt more than seen", Level.INTERMEDIATE, "")
    yield from _of_joins(design, parts)


def _of_step(part: RunPart, step: Step) -> Iterator[Asked]:
    named = {StepKind.WIRE: "wire", StepKind.THREAD: "threads sewn through", StepKind.COIL: "a coil sewn to itself"}
    if step.kind in named:
        yield Asked(named[step.kind], Level.INTERMEDIATE, part.name)


def _of_round(made: Round, where: str, *, first: bool) -> Iterator[Asked]:
    if made.way is Way.ROW:
        yield Asked("rows", Level.EASY, where)
    if made.joined:
        yield Asked("joined rounds", Level.EASY, where)
    if made.loops in (Loops.BACK, Loops.FRONT):
        yield Asked("single loops", Level.EASY, where)
    for at, inside in enumerate(made.body):
        yield from _of_instruction(inside, where, at, first=first)


def _of_instruction(inside: Instruction, where: str, at: int, *, first: bool) -> Iterator[Asked]:
    match inside:
        case Work() | Start():
            yield from _of_stitch(inside.stitch, where)
            if isinstance(inside, Work) and inside.through is not None:
                yield Asked("two edges worked together", Level.INTERMEDIATE, where)
        case Repeat() | Cluster():
            for deeper in inside.body:
                yield from _of_instruction(deeper, where, at + 1, first=first)
        case Spur():
            yield Asked("chains worked back along", Level.INTERMEDIATE, where)
        case Chain():
            yield Asked("an oval start" if first else "chains within rounds", Level.EASY, where)
        case Colour():
            colours = Asked("colour changes", Level.EASY, where)
            yield Asked("colours changed within a round", Level.INTERMEDIATE, where) if at else colours
        case Leave():
            yield Asked("short rows or stitches left to wait", Level.INTERMEDIATE, where)
        case Onto():
            named = {
                Edge.PIECE: "parts worked in",
                Edge.HELD: "a piece that divides",
                Edge.FREE: "loops picked up later",
                Edge.SIDE: "an edge picked up",
            }
            if inside.edge in named:
                yield Asked(named[inside.edge], Level.INTERMEDIATE, where)


def _of_stitch(key: str, where: str) -> Iterator[Asked]:
    entry = STITCHES.get(key)
    if entry is None:
        return
    plain = entry.base or entry.key
    if plain in _EASY:
        yield Asked("taller stitches", Level.EASY, where)
    elif plain not in _PLAIN:
        yield Asked(f"{entry.title[0]}", Level.INTERMEDIATE, where)


def _of_joins(design: Design, parts: Sequence[RunPart]) -> Iterator[Asked]:
    sewn = sum(j.sewn for j in design.joins)
    pieces = sum(p.part.make for p in parts)
    if pieces >= MANY_PIECES:
        yield Asked(f"{pieces} pieces to make and put together", Level.INTERMEDIATE, "")
    elif sewn >= SEVERAL_PARTS:
        yield Asked(f"{sewn} seams", Level.EASY, "")
    tiny = [p.name for p in parts if (w := p.worked) is not None and w.counts and max(w.counts) <= FEW_STITCHES]
    if tiny:
        yield Asked("tubes of very few stitches", Level.INTERMEDIATE, tiny[0])
