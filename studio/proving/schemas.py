"""What goes over the wire about proving."""

from __future__ import annotations

import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import StringConstraints

from studio.designs.fields import Line, Prose, Short

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=500)]


class LogEntryIn(Schema):
    """A line of the making log."""

    date: datetime.date
    text: Said


class LogEntryOut(Schema):
    """A line of the making log, with its id."""

    id: UUID
    date: datetime.date
    text: Line


class TesterIn(Schema):
    """Somebody who makes it from the draft."""

    name: Name
    yarn: Short = ""
    state: Literal["asked", "making", "done"] = "asked"
    remarks: Prose = ""


class TesterOut(Schema):
    """A tester, with her id."""

    id: UUID
    name: str
    yarn: str
    state: Literal["asked", "making", "done"]
    remarks: str


class Proving(Schema):
    """A design's making log and testers."""

    log: list[LogEntryOut]
    testers: list[TesterOut]
