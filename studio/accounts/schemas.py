"""What goes over the wire about designers."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Login = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=150)]
Password = Annotated[str, Field(min_length=1, max_length=200)]
TermsName = Literal["us", "uk", "letters"]


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


class Session(Schema):
    """The state of the session; `me` is null when nobody is signed in."""

    me: Me | None
    demo: bool
