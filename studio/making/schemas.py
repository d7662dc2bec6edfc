"""What goes over the wire about makings."""

from __future__ import annotations

import datetime
from functools import reduce
from operator import or_
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StringConstraints

from craft.figure.placement import Stages
from craft.making import KINDS, Learned, Pair, Quantity, Sample, Worksheet
from craft.making.events import LATEST, MOST_SEQ
from studio.bench.schemas import EstimateOut
from studio.making.models import Kind, Verdict
from studio.wire import schema_of

Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Device = Annotated[str, StringConstraints(min_length=1, max_length=40)]

_HEAD: dict[str, Any] = {
    "id": (UUID, ...),
    "device": (Device, ...),
    "seq": (Annotated[int, Field(ge=0, le=MOST_SEQ)], ...),
    "at": (Annotated[int, Field(ge=0, le=LATEST)], ...),
}


def _event(kind: str, value: type) -> Any:
    return schema_of(value, name=f"{value.__name__}Event", tags={"kind": kind}, more=_HEAD)


AnyEvent: Any = Annotated[reduce(or_, (_event(k, v) for k, v in KINDS.items())), Field(discriminator="kind")]
"""An event of a log, told by its kind."""

MOST_AT_ONCE = 500
"""Events that one request brings."""


class SheetOut(schema_of(Worksheet)):  # type: ignore[misc]
    """An edition round by round."""


class MakingIn(Schema):
    """A making to begin. release: of which number, null for the design as it is. size: its key, '' for the first."""

    title: Title
    kind: Literal["own", "client"] = "own"
    release: int | None = None
    size: Annotated[str, StringConstraints(max_length=16)] = ""


class MakingTitle(Schema):
    """What a making is called."""

    title: Title


class AnswerOut(Schema):
    """What the designer answers to a remark. event: of the remark."""

    event: UUID
    state: Literal["changed", "stays", "open"]
    text: str
    version: str


class MakingOut(Schema):
    """A making with what is worked from. maker: whoever holds its link, '' for the designer. asks: what a tester is asked to
    look at. until: when the test closes. answers: to her remarks."""

    id: UUID
    title: str
    maker: str
    kind: Kind
    edition: str
    sheet: SheetOut
    asks: str = ""
    until: datetime.date | None = None
    answers: list[AnswerOut] = []


class SyncIn(Schema):
    """What a device has that the studio may not have, and up to which number it knows the studio's."""

    events: Annotated[list[AnyEvent], Field(max_length=MOST_AT_ONCE)] = []
    known: Annotated[int, Field(ge=0)] = 0


class LogOut(Schema):
    """A log as a file of its own, format 1: every event with its id, device, number, time and kind."""

    format: Literal[1] = 1
    title: str
    edition: str
    events: list[AnyEvent]


class RefusedEvent(Schema):
    """An event that the studio cannot take, and why. The device keeps it."""

    id: UUID
    why: str


class SyncOut(Schema):
    """What the studio has that the device did not know. known: up to which number that is. more: there is more to fetch.
    now: the studio's clock, ms since 1970."""

    events: list[AnyEvent]
    known: int
    more: bool
    now: int
    refused: list[RefusedEvent]


class StagesOut(schema_of(Stages)):  # type: ignore[misc]
    """A part as it is worked: its faces by rounds."""


class OpenStage(Schema):
    """A part as it lies after so many of its rounds, open at the last of them."""

    after: int
    look: StagesOut


class MakingFigure(Schema):
    """The parts of an edition as they look while they are worked, by key: finished, and open on the way, fewest rounds
    first. whole: there is nothing more to come."""

    parts: dict[str, StagesOut]
    open: dict[str, list[OpenStage]] = {}
    whole: bool


class BothFigures(Schema):
    """The parts in which something was done otherwise, as the pattern says and as they were made. left: what could not be written
    as rounds, in sentences."""

    says: MakingFigure
    did: MakingFigure
    left: list[str]


class PhotoKept(Schema):
    """A photograph that is kept."""

    id: UUID
    width: int
    height: int


class PartProgress(Schema):
    """How far a piece is, for its ladder. counts: as the pattern says; done: rounds; did: counts as they were made."""

    part: str
    name: str
    piece: int
    fill: str
    counts: list[int]
    labels: list[str]
    done: int
    did: list[int]


class DeviationOut(Schema):
    """Something done otherwise, and what was made of it."""

    key: str
    part: str
    part_name: str
    round: int
    told: str
    pieces: list[int]
    verdict: Verdict | None


class NoteOut(Schema):
    """A note or a photograph of a making, with where it was made. picture: its id, null for words alone."""

    at: datetime.datetime
    place: str
    text: str
    picture: UUID | None


class MakingSummary(Schema):
    """How a making goes. last: when its log was last written to. pauses: longer times that were left out."""

    id: UUID
    title: str
    kind: Kind
    edition: str
    release: int | None
    begun: datetime.datetime
    last: datetime.datetime | None
    stitches: int
    done: int
    finished: bool
    minutes: float
    pauses: int
    hook_mm: float | None
    skeins: list[str]
    at: str
    parts: list[PartProgress]
    deviations: list[DeviationOut]
    notes: list[NoteOut]


class PairOut(schema_of(Pair)):  # type: ignore[misc]
    """A measurement beside its prediction."""

    ratio: float
    odd: bool


class LearnedOut(schema_of(Learned, instead={Pair: PairOut})):  # type: ignore[misc]
    """What all measurements of a quantity say. before, now: the design's own estimate, and what it is with them in it; in mm, g
    or minutes; null where the quantity is not one of the whole figure. printed: from how many makings the booklet prints it,
    0 while it prints the estimate; null for what it does not print."""

    before: EstimateOut | None = None
    now: EstimateOut | None = None
    printed: int | None = None


class PrintSize(Schema):
    """Which length the booklet is to print as makings measured it."""

    quantity: Literal[Quantity.HEIGHT, Quantity.WIDTH]


class SampleOut(schema_of(Sample)):  # type: ignore[misc]
    """What one making measured, as a sample. making: whose. yarn: of the basket that it would be kept with, null where none
    is known. hook_mm: it was worked with."""

    making: UUID
    title: str
    yarn: int | None
    hook_mm: float
    stitch_mm: float
    round_mm: float


class SampleKept(Schema):
    """A sample that was put into the basket, and of which yarn."""

    id: int
    yarn: str


class Makings(Schema):
    """All makings of a design, what they teach, and which could be kept as a sample."""

    makings: list[MakingSummary]
    learned: list[LearnedOut]
    samples: list[SampleOut]
    sizes: list[tuple[str, str]]
    releases: list[int]


class VerdictIn(Schema):
    """What becomes of something done otherwise; null takes the decision back, where it changed no text."""

    verdict: Verdict | None
