"""What goes over the wire about letters."""

from __future__ import annotations

import datetime
from typing import Annotated

from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from ninja import Schema
from pydantic import AfterValidator, StringConstraints


def _address(text: str) -> str:
    try:
        validate_email(text)
    except ValidationError:
        raise ValueError("A mail address is written like name@place.example.") from None
    return text


MailAddress = Annotated[str, StringConstraints(strip_whitespace=True, max_length=254), AfterValidator(_address)]

Subject = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=160)]
Body = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=10_000)]


class LetterIn(Schema):
    """A letter to be sent."""

    to: MailAddress
    subject: Subject
    body: Body


class LetterOut(Schema):
    """A letter as it was sent."""

    id: int
    to: str
    subject: str
    body: str
    failed: str
    created: datetime.datetime


class Letters(Schema):
    """Letters about a design. by_folder: no mail server is set, so they were only written."""

    letters: list[LetterOut]
    by_folder: bool
