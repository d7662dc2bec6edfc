"""What goes over the wire about translators."""

from __future__ import annotations

import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

Foreign = Literal["de", "fr", "es", "it", "nl"]


class TranslatorIn(Schema):
    """Somebody to translate into a language. days: how long the link holds."""

    language: Foreign
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    days: Annotated[int, Field(ge=1, le=400)] = 60


class TranslatedOut(Schema):
    """A piece as a translator wrote it. source: the prose that she saw."""

    source: str
    text: str


class TranslatorOut(Schema):
    """A translator, and what she wrote. closed: her link opens nothing any more. address: of her link, told once."""

    id: int
    name: str
    language: Foreign
    expires: datetime.datetime
    closed: bool
    pieces: list[TranslatedOut]
    address: str | None = None
