"""What goes over the wire about commissions."""

from __future__ import annotations

import datetime
from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field, StringConstraints

from studio.designs.fields import Prose

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Money = Annotated[Decimal, Field(ge=0, le=999_999, decimal_places=2)]
Currency = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=12)]


class CommissionIn(Schema):
    """A commission. due: null where no day was agreed."""

    client: Name
    about: Prose = ""
    price: Money = Decimal(0)
    paid: Money = Decimal(0)
    currency: Currency = "EUR"
    due: datetime.date | None = None


class AgreementIn(Schema):
    """A change to ask the client about. price: what it changes of the price, less than 0 for less."""

    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=1_000)]
    price: Annotated[Decimal, Field(ge=-999_999, le=999_999, decimal_places=2)] = Decimal(0)


class AgreementOut(Schema):
    """A change that the client was asked about, and what she said."""

    id: UUID
    text: str
    price: float
    state: Literal["asked", "yes", "no"]
    said: str
    asked: datetime.datetime
    answered: datetime.datetime | None


class ShownIn(Schema):
    """A photograph that the client may see."""

    picture: UUID
    caption: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""


class ShownList(Schema):
    """All photographs that the client may see."""

    pictures: Annotated[list[ShownIn], Field(max_length=100)]


class PhotoOut(Schema):
    """A photograph of a making of the design; shown: the client sees it, with this caption."""

    making: UUID
    picture: UUID
    shown: bool
    caption: str


class CommissionOut(Schema):
    """A commission. total: the price with all that was agreed. link: whether the client's holds."""

    id: int
    client: str
    about: str
    price: float
    paid: float
    total: float
    currency: str
    due: datetime.date | None
    link: bool
    agreements: list[AgreementOut]
    photos: list[PhotoOut]


class Commissions(Schema):
    """All commissions of a design."""

    commissions: list[CommissionOut]


class ClientLink(Schema):
    """A client's link, told this once."""

    path: str
