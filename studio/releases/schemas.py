"""What goes over the wire about releases."""

from __future__ import annotations

import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

from studio.booklets.schemas import FindingOut, SheetIn
from studio.designs.fields import Short
from studio.releases.models import PrintState

EndingName = Literal["pdf", "html", "epub", "txt", "md", "json"]
Reason = Annotated[str, StringConstraints(strip_whitespace=True, max_length=1_000)]
Changes = Annotated[str, StringConstraints(max_length=20_000)]


class PrintIn(SheetIn):
    """An edition that a release prints, and in which files."""

    files: Annotated[list[EndingName], Field(min_length=1, max_length=6)] = ["pdf"]


class ReleaseIn(Schema):
    """A release. prints: its editions. reason: why it is released although something blocks it. changes: what is said of
    it in the list of changes, null for the errata as they write themselves."""

    prints: Annotated[list[PrintIn], Field(min_length=1, max_length=12)]
    reason: Reason = ""
    changes: Changes | None = None


class ChangesIn(Schema):
    """The list of changes of a release, as she edits it."""

    changes: Changes


class ErratumOut(Schema):
    """One thing that is otherwise than in an earlier release."""

    part: str
    at: str
    before: str
    after: str


class FileOut(Schema):
    """A file of a release. digest: SHA-256 of its bytes."""

    id: int
    title: str
    ending: EndingName
    name: str
    size: int
    digest: str


class ReleaseOut(Schema):
    """A release with its files."""

    number: int
    version: str
    date: datetime.date
    digest: str
    state: PrintState
    error: str
    forced: str
    findings: list[FindingOut]
    errata: list[ErratumOut]
    changes: str
    files: list[FileOut]


class NextRelease(Schema):
    """What the next release would be: its number, what was found, what is different from the last one, whether all its
    pictures are there."""

    number: int
    version: str
    blocked: bool
    findings: list[FindingOut]
    errata: list[ErratumOut]
    changes: str
    unchanged: bool


class Releases(Schema):
    """All releases of a design, the newest first, and what the next one would be."""

    releases: list[ReleaseOut]
    next: NextRelease


class Against(Schema):
    """Two releases held against each other, the earlier first."""

    errata: list[ErratumOut]
    words: list[str]


class LinkIn(Schema):
    """A link for readers. note: for whom. days: how long it holds."""

    note: Short = ""
    days: Annotated[int, Field(ge=1, le=400)] = 365


class LinkOut(Schema):
    """A link for readers. address: told once, when it is made; null afterwards."""

    id: int
    note: str
    created: datetime.datetime
    expires: datetime.datetime
    revoked: bool
    address: str | None = None
