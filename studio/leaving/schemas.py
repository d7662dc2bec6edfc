"""What goes over the wire about a studio as a whole: what it holds, where it is open, when it closes."""

from __future__ import annotations

from datetime import datetime

from ninja import Schema

from studio.accounts.schemas import Password
from studio.leaving.usage import Holding
from studio.wire import schema_of

HoldingOut = schema_of(Holding, name="HoldingOut")


class OpenSession(Schema):
    """Where she is signed in. id: to end it by; here: this very session."""

    id: str
    device: str
    until: datetime
    here: bool


class StudioState(Schema):
    """Her studio: what it holds, where it is open, and the day on which it closes when she leaves."""

    holdings: list[HoldingOut]  # type: ignore[valid-type]
    sessions: list[OpenSession]
    leaves: datetime | None


class LeaveIn(Schema):
    """The present password, without which nobody closes a studio."""

    present: Password
