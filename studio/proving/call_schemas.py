"""What goes over the wire about tests and their testers."""

from __future__ import annotations

import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StringConstraints

from craft.making import Group, Said
from studio.booklets.schemas import FindingOut
from studio.designs.fields import Prose
from studio.making.schemas import AnswerOut, MakingOut
from studio.post.schemas import MailAddress
from studio.proving.schemas import Name
from studio.wire import schema_of

AnswerName = Literal["changed", "stays", "open"]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


class CallText(Schema):
    """What a test asks. closes: null while there is no such day."""

    title: Title
    look_at: Prose = ""
    wanted: Annotated[int, Field(ge=1, le=60)] = 5
    opens: datetime.date
    closes: datetime.date | None = None


class CallIn(CallText):
    """A test to be called. release: of which number, null for the design as it is. size: its key, '' for the first."""

    release: int | None = None
    size: Annotated[str, StringConstraints(max_length=16)] = ""


class InviteIn(Schema):
    """Somebody to be asked. mail: '' where none is known."""

    name: Name
    mail: MailAddress | Literal[""] = ""


class LetterText(Schema):
    """A letter's text, to be sent or copied."""

    subject: str
    body: str


class InvitedOut(Schema):
    """A tester's new link, told this once, and the letter that brings it."""

    tester: UUID
    path: str
    letter: LetterText


class TestPicture(Schema):
    """A photograph of a tester. shown: she agreed that it may be shown."""

    making: UUID
    picture: UUID
    text: str
    shown: bool


class TesterShown(Schema):
    """How a tester is getting on. link: holds, '' for why it does not. minutes: at work. letter: a reminder while she works,
    thanks when she is done. consents: the name that she agreed to be thanked by, '' for none."""

    id: UUID
    making: UUID | None
    name: str
    mail: str
    state: Literal["asked", "making", "done"]
    link: bool
    why: str
    share: float
    at: str
    last: datetime.datetime | None
    minutes: float
    yarn: str
    weight: int | None
    hook_mm: float | None
    gauge: str
    size: str
    words: str
    remarks: int
    consents: str
    pictures: list[TestPicture]
    letter: LetterText


class WrittenAs(Schema):
    """Something a tester did otherwise that can be written into the rounds: by which making it is told, and what it says."""

    making: UUID
    key: str
    told: str


class GroupOut(schema_of(Group, instead={Said: schema_of(Said, name="SaidOut")})):  # type: ignore[misc]
    """What is said of a place. answers: to what of it is answered. writes: what of it the rounds may say instead, each way
    once."""

    key: str
    asks: bool
    testers: int
    answers: list[AnswerOut]
    writes: list[WrittenAs]


class HeatOut(Schema):
    """How many testers stumbled at each round of a part."""

    part: str
    name: str
    fill: str
    counts: list[int]
    labels: list[str]
    heat: list[int]


class ByWeight(Schema):
    """What was measured in one yarn class, of the whole figure. ratio: the median of measured to predicted, null for fewer than
    three makers. weight: null where the testers did not say."""

    weight: int | None
    quantity: str
    makers: int
    ratio: float | None
    ratios: list[float]


class CallOut(Schema):
    """A test with how it goes."""

    id: int
    title: str
    edition: str
    look_at: str
    wanted: int
    opens: datetime.date
    closes: datetime.date | None
    days_left: int | None
    testers: list[TesterShown]
    groups: list[GroupOut]
    heat: list[HeatOut]
    by_weight: list[ByWeight]


class UnreadLine(Schema):
    """A line of a table that could not be taken, and why."""

    line: int
    why: str


class PapersIn(Schema):
    """A table of reports, as CSV."""

    text: Annotated[str, StringConstraints(min_length=1, max_length=1_000_000)]


class PapersOut(Schema):
    """What came of a table: new remarks, of how many testers, and the lines that could not be read."""

    fresh: int
    testers: int
    unread: list[UnreadLine]


class AnswerIn(Schema):
    """An answer to remarks, the same to all of them. version: of the pattern in which it was changed."""

    events: Annotated[list[UUID], Field(min_length=1, max_length=200)]
    state: AnswerName
    text: Annotated[str, StringConstraints(strip_whitespace=True, max_length=1_000)] = ""
    version: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""


class Tests(Schema):
    """All tests of a design, and what still stands in the way of its release. columns: of a table of reports."""

    calls: list[CallOut]
    open: list[FindingOut]
    columns: list[str]


class TestPage(Schema):
    """What a tester's page is about: her making, what she is asked, and what was answered to her."""

    making: MakingOut
    call: str
    designer: str
