"""Parts of rounds, steps and notes, and the pattern they make up; texts are one line each."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from craft.errors import require
from craft.problems import Span
from craft.rounds.pattern.coil import Coil
from craft.rounds.pattern.instructions import NOWHERE, Colour, Instruction, Join
from craft.rounds.pattern.threads import SewnThread
from craft.rounds.stitches import Loops, Terms


class StepKind(StrEnum):
    """What a stage direction asks for."""

    EYES = "eyes"
    STUFF = "stuff"
    EMPTY = "empty"
    CLOSE = "close"
    FASTEN_OFF = "fasten-off"
    GO_ON = "go-on"
    MARKER = "marker"
    WIRE = "wire"
    DISC = "disc"
    TAIL = "tail"
    EMBROIDER = "embroider"
    INSIDE_OUT = "inside-out"
    STRANDS = "strands"
    SEW = "sew"
    THREAD = "thread"
    COIL = "coil"
    OTHER = "other"


INSIDE_STEPS = frozenset({StepKind.EYES, StepKind.STUFF, StepKind.WIRE, StepKind.DISC})
"""Steps that need a hand inside, so come before closing."""


class Way(StrEnum):
    """What a line of work is called: a round, a row, or a line without a label of its own."""

    ROUND = "round"
    ROW = "row"
    LINE = "line"


def _one_line(text: str, what: str, most: int) -> None:
    require(
        bool(text.strip()) and "\n" not in text and len(text) <= most,
        f"{what} must be one line of at most {most} characters.",
    )


@dataclass(frozen=True, slots=True)
class Round:
    """One written round or row, or a fold of equal ones from `first` to `last`.

    first, last: the numbers in the label, None for "next round". or_to: the last number of a longer
    variant, which is offered and not worked. count: live stitches as stated, None when the text is
    silent. way: what the label calls it; a LINE is work without a label, such as a starting chain.
    joined: closed with a slip stitch; otherwise the round is part of a spiral.
    count_span, body_span: raw places, for mends.
    """

    first: int | None
    last: int | None
    body: tuple[Instruction, ...]
    count: int | None = None
    loops: Loops = Loops.BOTH
    way: Way = Way.ROUND
    or_to: int | None = None
    span: Span = field(default=NOWHERE, compare=False)
    body_span: Span = field(default=NOWHERE, compare=False)
    count_span: Span | None = field(default=None, compare=False)

    def __post_init__(self) -> None:
        if self.first is not None and self.last is not None:
            require(self.last >= self.first, "A range of rounds ends after it starts.")
        if self.or_to is not None:
            require(self.last is not None and self.or_to > self.last, "A longer variant ends later.")

    def within(self, span: Span) -> Span:
        """The raw place of an instruction's span, which counts from the start of the body."""
        return Span(self.body_span.start + span.start, self.body_span.start + span.end)

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
        """The label in its printed form: 'R4', 'R7-R12', 'Row 3' or 'Next round'; empty for a line."""
        if self.way is Way.LINE:
            return ""
        if self.first is None:
            return "Next round" if self.way is Way.ROUND else "Next row"
        return self.labelled(self.first, self.last or self.first)

    def labelled(self, first: int, last: int) -> str:
        """The label with other numbers."""
        if self.way is Way.ROW:
            return f"Row {first}" if first == last else f"Rows {first}-{last}"
        return f"R{first}" if first == last else f"R{first}-R{last}"


MOST_STEP = 2_000
"""Code points of a stage direction; longer prose is a note."""


@dataclass(frozen=True, slots=True)
class Step:
    """A stage direction between rounds, in her words. threads: those that it sews through the piece. coil: what it rolls up."""

    kind: StepKind
    text: str
    span: Span = field(default=NOWHERE, compare=False)
    threads: tuple[SewnThread, ...] = ()
    coil: Coil | None = None

    def __post_init__(self) -> None:
        _one_line(self.text, "A stage direction", MOST_STEP)


@dataclass(frozen=True, slots=True)
class Note:
    """Prose between rounds, in her words."""

    text: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _one_line(self.text, "A note", 20_000)


@dataclass(frozen=True, slots=True)
class Section:
    """A heading inside a part that goes on in the same fabric: 'First leg' after a split."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        _one_line(self.name, "A heading", 60)


Item = Round | Step | Note | Colour | Section


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
