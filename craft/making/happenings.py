"""What may happen while somebody makes a figure: each kind of it as a value that keeps its own rules."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from craft.errors import CraftError, require

MOST_ROUND, MOST_PIECE, MOST_WORDS = 20_000, 200, 2_000


def _words(text: str, most: int = MOST_WORDS, field: str = "text") -> None:
    require(len(text) <= most, f"That is longer than {most:,} characters.", field=field)


def uuid_said(text: str, field: str) -> None:
    """Refuse what is no id."""
    try:
        UUID(text)
    except ValueError:
        raise CraftError("An event has an id of its own (a UUID).", field=field) from None


def _place(part: str, piece: int, round_: int) -> None:
    require(0 < len(part) <= 16, "A part is named by its key.", field="part")
    require(1 <= piece <= MOST_PIECE, f"Pieces of a part are counted from 1 to {MOST_PIECE}.", field="piece")
    require(0 <= round_ <= MOST_ROUND, f"Rounds are counted up to {MOST_ROUND:,}.", field="round")


@dataclass(frozen=True, slots=True)
class Done:
    """A round is done; round: counted from 1 as worked. piece: which of several of its part, from 1."""

    part: str
    piece: int
    round: int

    def __post_init__(self) -> None:
        _place(self.part, self.piece, self.round)


@dataclass(frozen=True, slots=True)
class Ripped:
    """Pulled out again: `round` rounds are left, 0 for none. The why is hers to say or not."""

    part: str
    piece: int
    round: int
    text: str = ""

    def __post_init__(self) -> None:
        _place(self.part, self.piece, self.round)
        _words(self.text)


@dataclass(frozen=True, slots=True)
class Stitched:
    """So many stitches of a round are worked by now."""

    part: str
    piece: int
    round: int
    stitches: int

    def __post_init__(self) -> None:
        _place(self.part, self.piece, self.round)
        require(0 <= self.stitches <= 100_000, "A round has at most 100,000 stitches.", field="stitches")


class Otherwise(StrEnum):
    """What was done otherwise in a round: it came to another count, was worked again, left out, in another colour, or in some
    other way that words say."""

    COUNT = "count"
    MORE = "more"
    LEFT_OUT = "left-out"
    COLOUR = "colour"
    OTHER = "other"


@dataclass(frozen=True, slots=True)
class DidOtherwise:
    """A round was not done as it says. many: the count it came to, or how many rounds more; colour: for another colour."""

    part: str
    piece: int
    round: int
    what: Otherwise
    many: int = 0
    colour: str = ""
    text: str = ""

    def __post_init__(self) -> None:
        _place(self.part, self.piece, self.round)
        _words(self.text)
        _words(self.colour, 80, "colour")
        counted = self.what in (Otherwise.COUNT, Otherwise.MORE)
        require(not counted or 1 <= self.many <= 100_000, "Say how many it came to, 1 or more.", field="many")
        require(self.what is not Otherwise.COLOUR or self.colour.strip() != "", "Say which colour.", field="colour")
        require(self.what is not Otherwise.OTHER or self.text.strip() != "", "Say what was otherwise.", field="text")


@dataclass(frozen=True, slots=True)
class Noted:
    """A note; part and round where it was written, '' and 0 for the whole figure."""

    text: str
    part: str = ""
    round: int = 0

    def __post_init__(self) -> None:
        require(self.text.strip() != "", "A note has words.", field="text")
        _words(self.text)


@dataclass(frozen=True, slots=True)
class Pictured:
    """A photograph was taken; picture: the id of its file."""

    picture: str
    text: str = ""
    part: str = ""
    round: int = 0

    def __post_init__(self) -> None:
        uuid_said(self.picture, "picture")
        _words(self.text, 200)


class Measure(StrEnum):
    """What was measured: the height or width of the figure or a part, or how far it is around a part at a round."""

    HEIGHT = "height"
    WIDTH = "width"
    GIRTH = "girth"


@dataclass(frozen=True, slots=True)
class Measured:
    """A length in mm; part: '' for the whole figure. round: of a girth."""

    what: Measure
    mm: float
    part: str = ""
    round: int = 0

    def __post_init__(self) -> None:
        require(1 <= self.mm <= 5_000, "A length is from 1 mm to 5 m.", field="mm")
        around = self.what is Measure.GIRTH
        require(
            not around or (self.part != "" and self.round > 0),
            "A girth is measured at a round of a part.",
            field="round",
        )


@dataclass(frozen=True, slots=True)
class Weighed:
    """A ball on the scale, in grams, before or after working from it. yarn: its name."""

    yarn: str
    grams: float
    after: bool

    def __post_init__(self) -> None:
        require(self.yarn.strip() != "", "Say which yarn was weighed.", field="yarn")
        _words(self.yarn, 80, "yarn")
        require(0 <= self.grams <= 5_000, "A ball weighs from 0 to 5,000 g.", field="grams")


@dataclass(frozen=True, slots=True)
class HookTaken:
    """The hook in use from here on."""

    mm: float

    def __post_init__(self) -> None:
        require(0.4 <= self.mm <= 40, "A hook is from 0.4 to 40 mm.", field="mm")


@dataclass(frozen=True, slots=True)
class SkeinTaken:
    """The skein in use from here on: of which yarn, and which one in her words (a lot, a second ball)."""

    yarn: str
    text: str

    def __post_init__(self) -> None:
        _words(self.yarn, 80, "yarn")
        _words(self.text, 120)
        require((self.yarn + self.text).strip() != "", "Say which skein.", field="text")


@dataclass(frozen=True, slots=True)
class Paused:
    """She put it down: no time counts until the next event."""


@dataclass(frozen=True, slots=True)
class TimeCorrected:
    """So many minutes more, or fewer, than the log makes of it."""

    minutes: float
    text: str = ""

    def __post_init__(self) -> None:
        require(0 < abs(self.minutes) <= 60_000, "A correction is up to 1,000 hours, more or less.", field="minutes")
        _words(self.text, 200)


@dataclass(frozen=True, slots=True)
class StepDone:
    """A step of the assembly, counted from 1, is done, or is not after all."""

    step: int
    undone: bool = False

    def __post_init__(self) -> None:
        require(1 <= self.step <= 1_000, "Steps are counted from 1.", field="step")


class Remark(StrEnum):
    """What a tester says of a place of the pattern."""

    UNCLEAR = "unclear"
    WRONG_COUNT = "wrong-count"
    LIKED = "liked"


@dataclass(frozen=True, slots=True)
class Remarked:
    """A remark on a round, or on a step of the assembly (part '', round: the step's number, 0 for the whole pattern)."""

    what: Remark
    part: str = ""
    round: int = 0
    text: str = ""

    def __post_init__(self) -> None:
        _words(self.text)
        require(0 <= self.round <= MOST_ROUND, "Rounds are counted from 1.", field="round")


@dataclass(frozen=True, slots=True)
class Reported:
    """What a tester tells of her making as a whole; the latest report counts.

    weight: class of the yarn, None unsaid. across, up: stitches and rounds to 10 cm, 0 unsaid. minutes: 0 for what the log
    says. pictures, named: whether her photographs may be shown, and whether she is to be thanked by name.
    """

    yarn: str = ""
    weight: int | None = None
    hook_mm: float = 0.0
    across: float = 0.0
    up: float = 0.0
    size: str = ""
    minutes: float = 0.0
    text: str = ""
    pictures: bool = False
    named: str = ""

    def __post_init__(self) -> None:
        for text, most in ((self.yarn, 120), (self.size, 80), (self.text, MOST_WORDS), (self.named, 120)):
            _words(text, most)
        require(self.weight is None or 0 <= self.weight <= 7, "Yarn classes go from 0 to 7.", field="weight")
        require(0 <= self.hook_mm <= 40, "A hook is up to 40 mm.", field="hook_mm")
        require(
            0 <= self.across <= 200 and 0 <= self.up <= 200, "Up to 200 stitches and rounds to 10 cm.", field="across"
        )
        require(0 <= self.minutes <= 600_000, "Up to 10,000 hours.", field="minutes")


@dataclass(frozen=True, slots=True)
class Finished:
    """The figure is made."""


@dataclass(frozen=True, slots=True)
class Withdrawn:
    """An earlier event of this log was a slip and counts no longer."""

    event: str

    def __post_init__(self) -> None:
        uuid_said(self.event, "event")


What = (
    Done
    | Ripped
    | Stitched
    | DidOtherwise
    | Noted
    | Pictured
    | Measured
    | Weighed
    | HookTaken
    | SkeinTaken
    | Paused
    | TimeCorrected
    | StepDone
    | Remarked
    | Reported
    | Finished
    | Withdrawn
)

KINDS: Mapping[str, type] = {
    "done": Done,
    "ripped": Ripped,
    "stitched": Stitched,
    "otherwise": DidOtherwise,
    "note": Noted,
    "picture": Pictured,
    "measured": Measured,
    "weighed": Weighed,
    "hook": HookTaken,
    "skein": SkeinTaken,
    "paused": Paused,
    "time": TimeCorrected,
    "step": StepDone,
    "remark": Remarked,
    "report": Reported,
    "finished": Finished,
    "withdrawn": Withdrawn,
}
"""Every kind of event by its name in files and on the wire."""
