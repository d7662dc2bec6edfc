"""Which pictures stand in a booklet, how they are called, and what they show in words.

A picture's key says what is to be taken: 'figure:front', 'step:<key of a step>', 'after:<key of a part>:<round>',
'photo:<key>'. Whoever prints the booklet has them painted; the tree only names them.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from craft.document.booklet.document import Block, Document, Picture, Pictures, Section, Steps
from craft.errors import CraftError
from craft.rounds.fabric import WorkedPart
from craft.text.catalogue import ENGLISH, Words

SIDES = (("front", "from the front"), ("right", "from its left"), ("back", "from behind"), ("left", "from its right"))
"""The four sides of a finished figure: from where the picture is taken, and what is seen then."""

MOST_STAGES = 4
"""Pictures of a part on the way."""

LEAST_ROUNDS = 8
"""A shorter part needs no pictures on the way."""


class Level(StrEnum):
    """How many pictures an edition has: all of them, the finished figure alone, or none."""

    ALL = "all"
    FIGURE = "figure"
    NONE = "none"


class Kind(StrEnum):
    """What a picture shows: the figure from a side, a step's new part lit, a part after a round, a photograph."""

    FIGURE = "figure"
    STEP = "step"
    AFTER = "after"
    PHOTO = "photo"


@dataclass(frozen=True, slots=True)
class Shown:
    """A picture's key, read. what: side, key of a step, of a part, or of a photograph. round: of a part's stage."""

    kind: Kind
    what: str
    round: int = 0

    @classmethod
    def of(cls, key: str) -> Shown:
        """What a key names; CraftError where it names nothing."""
        kind, _, rest = key.partition(":")
        what, _, number = rest.partition(":")
        if kind not in set(Kind) or not what or (kind == Kind.AFTER) != number.isdigit():
            raise CraftError("There is no such picture in a booklet.", field="picture")
        return cls(Kind(kind), what, int(number or 0))

    @property
    def key(self) -> str:
        """As it stands in the tree."""
        return f"{self.kind.value}:{self.what}" + (f":{self.round}" if self.kind is Kind.AFTER else "")


def of_figure(title: str, words: Words = ENGLISH) -> Pictures:
    """The finished figure from its four sides."""
    told = [(side, words.say(seen)) for side, seen in SIDES]
    return Pictures(
        tuple(
            Picture(Shown(Kind.FIGURE, side).key, f"{title} {seen}", seen[:1].upper() + seen[1:]) for side, seen in told
        )
    )


def of_part(key: str, worked: WorkedPart, words: Words = ENGLISH) -> Pictures | None:
    """A part on the way: where it stops growing, where it begins to close, and done; None for what is soon made."""
    rounds = [t for t in worked.rounds if t.live > 0]
    if len(rounds) < LEAST_ROUNDS:
        return None
    name = worked.name or words.say("Part")
    shown = []
    for at in _stages([t.live for t in rounds]):
        label = words.label(rounds[at - 1].label)
        alt = words.say("{name} after {label}, {n} stitches", name=name, label=label, n=rounds[at - 1].live)
        shown.append(Picture(Shown(Kind.AFTER, key, at).key, alt, words.say("After {label}", label=label)))
    return Pictures(tuple(shown))


def _stages(counts: Sequence[int]) -> list[int]:
    """Rounds, from 1, after which the shape has changed: each first round of a longer even stretch's end, and the last."""
    turns = [
        at
        for at in range(1, len(counts))
        if (counts[at] - counts[at - 1] > 0) != (at + 1 < len(counts) and counts[at + 1] - counts[at] > 0)
        and at >= LEAST_ROUNDS // 2
    ]
    spread: list[int] = []
    for at in turns:
        if (not spread or at + 1 - spread[-1] >= LEAST_ROUNDS // 2) and len(counts) - at - 1 >= LEAST_ROUNDS // 4:
            spread.append(at + 1)
    if len(spread) >= MOST_STAGES:
        spread = [spread[i * (len(spread) - 1) // (MOST_STAGES - 2)] for i in range(MOST_STAGES - 1)]
    return [*dict.fromkeys(spread), len(counts)]


def at_level(document: Document, level: Level) -> Document:
    """A booklet with fewer pictures; no word is left out with them."""
    if level is Level.ALL:
        return document
    sections = tuple(_fewer(s, level) for s in document.sections)
    return replace(document, sections=tuple(s for s in sections if s.blocks))


def _fewer(section: Section, level: Level) -> Section:
    return Section(section.key, section.title, tuple(_kept(section, level)), section.level)


def _kept(section: Section, level: Level) -> Iterator[Block]:
    for block in section.blocks:
        if isinstance(block, Pictures):
            if level is Level.FIGURE and all(Shown.of(p.key).kind is Kind.FIGURE for p in block.items):
                yield block
        elif isinstance(block, Steps):
            yield Steps(block.lines)
        else:
            yield block
