"""What goes over the wire about designers."""

from __future__ import annotations

from typing import Annotated, Literal

from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from ninja import Schema
from pydantic import AfterValidator, Field, StringConstraints

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Login = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=150)]
Password = Annotated[str, Field(min_length=1, max_length=200)]
TermsName = Literal["us", "uk", "letters"]


def _address(text: str) -> str:
    if text:
        try:
            validate_email(text)
        except ValidationError:
            raise ValueError("This is no address of mail.") from None
    return text


class SignIn(Schema):
    """Name and password."""

    username: Login
    password: Password


class SignUp(SignIn):
    """A new designer."""

    studio: Name


class PasswordChange(Schema):
    """The present password and the next."""

    present: Password
    next: Password


class AddressChange(Schema):
    """Where a way back in is sent, and the present password; an empty address for nowhere."""

    present: Password
    address: Annotated[str, StringConstraints(strip_whitespace=True, max_length=254), AfterValidator(_address)]


class Forgotten(Schema):
    """Whose password is forgotten."""

    username: Login


class NewPassword(Schema):
    """Another password, by the link of a letter."""

    user: Annotated[str, Field(max_length=64)]
    token: Annotated[str, Field(max_length=128)]
    password: Password


class Preferences(Schema):
    """What a designer may set."""

    studio: Name
    terms: TermsName
    left_handed: bool


class Me(Schema):
    """Who is signed in."""

    username: str
    studio: str
    terms: TermsName
    left_handed: bool
    address: str


class Session(Schema):
    """The state of the session; `me` is null when nobody is signed in."""

    me: Me | None
    demo: bool
