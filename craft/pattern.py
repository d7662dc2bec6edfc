"""Frozen values of a written pattern: parts of rounds, steps and notes.

Equality is by value; positions in the raw text (`span`) are left out of it. Texts are one
line each. `to_json` and `from_json` are the stored form; see docs/file-format.md.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from craft.errors import CraftError, require
from craft.problems import Span
from craft.stitches import Loops, Terms, stitch

SCHEMA_VERSION = 1
"""Version of the JSON form."""

MOST_COUNT = 100_000
"""The largest number of stitches any single number in a pattern may mean."""

NOWHERE = Span(0, 0)
_COLOUR_NAME = re.compile(r"[^\W\d_](?:[\w' -]{0,37}[\w'-])?")


class StartKind(StrEnum):
    """How a closed round begins from nothing; both give the same count."""

    RING = "ring"
    CHAIN2 = "chain2"


class StepKind(StrEnum):
    """What a stage direction asks for."""

    EYES = "eyes"
    STUFF = "stuff"
    CLOSE = "close"
    FASTEN_OFF = "fasten-off"
    MARKER = "marker"
    SEW = "sew"
    OTHER = "other"


def _counted(n: int, least: int, what: str) -> None:
    require(isinstance(n, int) and least <= n <= MOST_COUNT, f"{what} must be from {least} to {MOST_COUNT:,}.")


def _one_line(text: str, what: str, most: int) -> None:
    require(
        bool(text.strip()) and "\n" not in text and len(text) <= most,
        f"{what} must be one line of at most {most} characters.",
    )


@dataclass(frozen=True, slots=True)
class Start:
    """`count` stitches into a ring or into the second chain from the hook."""

    start: StartKind
    count: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _counted(self.count, 1, "A start")


@dataclass(frozen=True, slots=True)
class Work:
    """`count` times the stitch `stitch` (a registry key)."""

    stitch: str
    count: int = 1
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        stitch(self.stitch)
        _counted(self.count, 1, "A number of stitches")


@dataclass(frozen=True, slots=True)
class Repeat:
    """`body` again and again: `times` in all, or None for as often as fits around.

    `times_span` is the raw place of the number, for mends.
    """

    body: tuple[Instruction, ...]
    times: int | None = None
    span: Span = field(default=NOWHERE, compare=False)
    times_span: Span | None = field(default=None, compare=False)

    def __post_init__(self) -> None:
        require(bool(self.body), "A repeat has something to repeat.")
        if self.times is not None:
            _counted(self.times, 1, "A number of repeats")


@dataclass(frozen=True, slots=True)
class Chain:
    """A turning chain at the head of a joined round: takes none, gives none."""

    count: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _counted(self.count, 1, "A chain")


@dataclass(frozen=True, slots=True)
class Join:
    """The slip stitch that closes a joined round: takes none, gives none."""

    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Colour:
    """From here on in the colour `name`."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        require(
            bool(_COLOUR_NAME.fullmatch(self.name)),
            "A colour's name is letters, digits, blanks, - and ', starts with a letter, and is short.",
        )


@dataclass(frozen=True, slots=True)
class Unread:
    """Words of a round that are not understood; kept as they stand."""

    text: str
    span: Span = field(default=NOWHERE, compare=False)


Instruction = Start | Work | Repeat | Chain | Join | Colour | Unread


@dataclass(frozen=True, slots=True)
class Round:
    """One written round, or a fold of equal rounds from `first` to `last`.

    first, last: the numbers in the label, None for "next round".
    count: live stitches as stated, None when the text is silent.
    joined: closed with a slip stitch; otherwise the round is part of a spiral.
    count_span, body_span: raw places, for mends.
    """

    first: int | None
    last: int | None
    body: tuple[Instruction, ...]
    count: int | None = None
    loops: Loops = Loops.BOTH
    span: Span = field(default=NOWHERE, compare=False)
    body_span: Span = field(default=NOWHERE, compare=False)
    count_span: Span | None = field(default=None, compare=False)

    def __post_init__(self) -> None:
        if self.first is not None and self.last is not None:
            require(self.last >= self.first, "A range of rounds ends after it starts.")

    @property
    def joined(self) -> bool:
        """Whether the round is closed with a slip stitch."""
        return any(isinstance(i, Join) for i in self.body)

    @property
    def repeats(self) -> int:
        """How many equal rounds the label stands for."""
        if self.first is None or self.last is None:
            return 1
        return self.last - self.first + 1

    @property
    def label(self) -> str:
        """The label in its printed form: 'R4', 'R7-R12' or 'Next round'."""
        if self.first is None:
            return "Next round"
        return f"R{self.first}" if self.repeats == 1 else f"R{self.first}-R{self.last}"


@dataclass(frozen=True, slots=True)
class Step:
    """A stage direction between rounds, in her words."""

    kind: StepKind
    text: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _one_line(self.text, "A stage direction", 2000)


@dataclass(frozen=True, slots=True)
class Note:
    """Prose between rounds, in her words."""

    text: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _one_line(self.text, "A note", 20_000)


Item = Round | Step | Note | Colour


@dataclass(frozen=True, slots=True)
class Part:
    """A closed or open shape worked in one go, made `make` times."""

    name: str | None
    items: tuple[Item, ...]
    make: int = 1
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        if self.name is not None:
            _one_line(self.name, "A part's name", 60)
        require(1 <= self.make <= 200, "A part is made from 1 to 200 times.", field="make")

    @property
    def rounds(self) -> tuple[Round, ...]:
        """The written rounds in order."""
        return tuple(item for item in self.items if isinstance(item, Round))


@dataclass(frozen=True, slots=True)
class HeadEntry:
    """A line of the head block, such as `Hook: 3 mm`."""

    key: str
    value: str


@dataclass(frozen=True, slots=True)
class Pattern:
    """Parts with the head block before them; `terms` is what the text was read in."""

    parts: tuple[Part, ...]
    head: tuple[HeadEntry, ...] = ()
    terms: Terms = Terms.US

    def entry(self, key: str) -> str | None:
        """The value of a head line, None when it is not there."""
        return next((e.value for e in self.head if e.key == key), None)


# --- the stored form -----------------------------------------------------------------------


def _instruction_json(i: Instruction) -> dict[str, Any]:
    match i:
        case Start():
            return {"do": "start", "start": i.start.value, "count": i.count}
        case Work():
            return {"do": "work", "stitch": i.stitch, "count": i.count}
        case Repeat():
            return {"do": "repeat", "times": i.times, "body": [_instruction_json(b) for b in i.body]}
        case Chain():
            return {"do": "chain", "count": i.count}
        case Join():
            return {"do": "join"}
        case Colour():
            return {"do": "colour", "name": i.name}
        case Unread():
            return {"do": "unread", "text": i.text}


def _instruction(j: Mapping[str, Any]) -> Instruction:
    match j["do"]:
        case "start":
            return Start(StartKind(j["start"]), j["count"])
        case "work":
            return Work(j["stitch"], j["count"])
        case "repeat":
            return Repeat(tuple(_instruction(b) for b in j["body"]), j["times"])
        case "chain":
            return Chain(j["count"])
        case "join":
            return Join()
        case "colour":
            return Colour(j["name"])
        case "unread":
            return Unread(j["text"])
        case other:
            raise CraftError(f"No instruction is called {other!r}.")


def _item_json(item: Item) -> dict[str, Any]:
    match item:
        case Round():
            return {
                "item": "round",
                "first": item.first,
                "last": item.last,
                "count": item.count,
                "loops": item.loops.value,
                "body": [_instruction_json(i) for i in item.body],
            }
        case Step():
            return {"item": "step", "kind": item.kind.value, "text": item.text}
        case Note():
            return {"item": "note", "text": item.text}
        case Colour():
            return {"item": "colour", "name": item.name}


def _item(j: Mapping[str, Any]) -> Item:
    match j["item"]:
        case "round":
            return Round(
                j["first"], j["last"], tuple(_instruction(i) for i in j["body"]), j["count"], Loops(j["loops"])
            )
        case "step":
            return Step(StepKind(j["kind"]), j["text"])
        case "note":
            return Note(j["text"])
        case "colour":
            return Colour(j["name"])
        case other:
            raise CraftError(f"A part holds no {other!r}.")


def to_json(pattern: Pattern) -> dict[str, Any]:
    """The pattern as plain JSON values, with `schema`."""
    return {
        "schema": SCHEMA_VERSION,
        "terms": pattern.terms.value,
        "head": [{"key": e.key, "value": e.value} for e in pattern.head],
        "parts": [{"name": p.name, "make": p.make, "items": [_item_json(i) for i in p.items]} for p in pattern.parts],
    }


def from_json(data: object) -> Pattern:
    """The pattern of plain JSON values; CraftError names what is wrong with them."""
    if not isinstance(data, Mapping) or data.get("schema") != SCHEMA_VERSION:
        raise CraftError(f"This is no Spirrel pattern of schema {SCHEMA_VERSION}.")
    if not isinstance(data.get("parts"), list) or not isinstance(data.get("head"), list):
        raise CraftError("The pattern file is damaged: parts and head are lists.")
    try:
        return Pattern(
            tuple(Part(p["name"], tuple(_item(i) for i in p["items"]), p["make"]) for p in data["parts"]),
            tuple(HeadEntry(str(e["key"]), str(e["value"])) for e in data["head"]),
            Terms(data["terms"]),
        )
    except CraftError:
        raise
    except (KeyError, TypeError, ValueError, AttributeError, RecursionError) as error:
        raise CraftError(f"The pattern file is damaged: {type(error).__name__} at {error}.") from None
